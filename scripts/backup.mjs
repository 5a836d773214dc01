/** npm run backup -- FILE, npm run restore -- FILE: see docs/operating.md. */
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { ensureInstalled, root } from './lib.mjs';

ensureInstalled();
const { buildServer } = await import('./build.mjs');
await buildServer();
const { status } = spawnSync(
  process.execPath,
  [join(root, 'server/dist/backup.js'), ...process.argv.slice(2)],
  {
    stdio: 'inherit',
  },
);
process.exit(status ?? 1);
