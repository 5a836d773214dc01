/** Runs a TypeScript program of e2e/ that uses the test helpers. */
import { build } from 'esbuild';
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { root } from './lib.mjs';

/** @returns {Promise<number>} its exit code */
export async function bundleAndRun(program, args = []) {
  // Two folders below the root, as the helpers are: they find the repository from where they stand.
  const outfile = join(root, 'e2e/dist/program.cjs');
  await build({
    entryPoints: [join(root, program)],
    outfile,
    bundle: true,
    platform: 'node',
    format: 'cjs',
    external: ['puppeteer-core', 'esbuild', 'sharp', 'prettier'],
    logLevel: 'warning',
  });
  const { status } = spawnSync(process.execPath, [outfile, ...args], {
    stdio: 'inherit',
    env: { ...process.env, CORDEL_ROOT: root },
  });
  return status ?? 1;
}
