/** Installs, builds and starts the server in this terminal. */
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { ensureInstalled, root, say, stop } from './lib.mjs';

/** @param {{ folder: string, args: string[] }} options `folder` below .cordel, unless CORDEL_DATA names one */
export async function serve({ folder, args }) {
  ensureInstalled();
  const { buildServer, exportApp } = await import('./build.mjs');
  try {
    await buildServer();
    await exportApp();
  } catch (error) {
    stop(error.message);
  }
  say('Opening the database; the very first time this takes up to half a minute …');
  const server = spawn(
    process.execPath,
    ['--enable-source-maps', join(root, 'server/dist/main.js'), ...args],
    {
      stdio: 'inherit',
      env: { ...process.env, CORDEL_DATA: process.env.CORDEL_DATA || join(root, '.cordel', folder) },
    },
  );
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
  server.on('close', (code) => process.exit(code ?? 0));
}
