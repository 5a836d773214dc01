/**
 * What server tests and journeys need before they run: the built server, the exported app, and two prepared data folders to copy,
 * because making a database from nothing takes many seconds.
 */
import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { cpSync, existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { buildServer, exportApp } from './build.mjs';
import { root } from './lib.mjs';

const shelf = join(root, '.cordel', 'test');

/** The demo's night in tests and pictures, so that they show the same every day. */
const demoNight = '2026-04-15T05:30:00.000Z';

export default async function prepareTests() {
  await buildServer();
  await exportApp();
  const hash = createHash('sha256').update(readFileSync(join(root, 'server/dist/main.js')));
  const migrations = join(root, 'server/migrations');
  for (const name of readdirSync(migrations)
    .filter((one) => one.endsWith('.sql'))
    .sort())
    hash.update(readFileSync(join(migrations, name)));
  const templates = join(shelf, `templates-${hash.digest('hex').slice(0, 16)}`);
  process.env.CORDEL_TEST_TEMPLATES = templates;
  if (existsSync(templates)) return;

  rmSync(shelf, { recursive: true, force: true });
  const making = `${templates}.making`;
  mkdirSync(making, { recursive: true });
  await runOnce(join(making, 'empty'), []);
  cpSync(join(making, 'empty'), join(making, 'demo'), { recursive: true });
  await runOnce(join(making, 'demo'), ['--demo']);
  renameSync(making, templates);
}

/** Starts the server on a folder and stops it when it listens. */
export function runOnce(folder, args, databaseUrl = '') {
  return new Promise((done, fail) => {
    const server = spawn(process.execPath, [join(root, 'server/dist/main.js'), ...args], {
      env: {
        ...process.env,
        CORDEL_DATA: folder,
        PORT: '0',
        HOST: '',
        DATABASE_URL: databaseUrl,
        CORDEL_DEMO_AT: demoNight,
        CORDEL_LOG: 'warn',
      },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    let output = '';
    const hear = (text) => {
      output += text;
      if (output.includes('Stop with')) server.kill('SIGTERM');
    };
    server.stdout.on('data', hear);
    server.stderr.on('data', hear);
    server.on('close', (code) =>
      code === 0 ? done() : fail(new Error(`The server did not start:\n${output}`)),
    );
  });
}
