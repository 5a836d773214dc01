/**
 * npm run soak: what hangs on the moment or on chance, tried many times; `npm test` tries the same a few times. Before
 * a release, and after a change of how things are stored or sent. How often is in the tests themselves (`times(few,
 * many)`); CONTRIBUTING.md has the list.
 */
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { ensureInstalled, root } from './lib.mjs';

const files = ['server/test/(kill|folder|import|wholeShelf)', 'app/src/sync/(interleavings|edits)'];

ensureInstalled();
const { ensurePostgres } = await import('./postgres.mjs');
ensurePostgres();
const { status } = spawnSync(process.execPath, [join(root, 'node_modules/jest/bin/jest.js'), ...files], {
  cwd: root,
  stdio: 'inherit',
  env: { ...process.env, CORDEL_SOAK: 'yes' },
});
process.exit(status ?? 1);
