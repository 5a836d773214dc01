/** npm test: installs what is missing and runs every check. The last line counts them. */
import { spawnSync } from 'node:child_process';
import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureInstalled, root, say } from './lib.mjs';

ensureInstalled();
const { ensureChromium } = await import('./chromium.mjs');
ensureChromium();

let passed = 0;
let failed = 0;

function check(name, command, args) {
  const began = Date.now();
  const { status } = spawnSync(command, args, { cwd: root, stdio: 'inherit' });
  say(`${status === 0 ? 'ok' : 'FAILED'}  ${name} (${Math.round((Date.now() - began) / 1000)} s)`);
  if (status === 0) passed += 1;
  else failed += 1;
}

for (const part of ['core', 'server', 'app', 'e2e'])
  check(`types of ${part}`, 'npx', ['--no-install', 'tsc', '--noEmit', '-p', part]);
check('lint', 'npx', ['--no-install', 'eslint', '.', '--max-warnings', '0']);
check('format', 'npx', ['--no-install', 'prettier', '--check', '--log-level', 'warn', '.']);
check('unused code and dependencies', 'npx', ['--no-install', 'knip', '--no-progress']);

const report = join(root, '.cordel', 'jest.json');
mkdirSync(join(root, '.cordel'), { recursive: true });
rmSync(report, { force: true });
const { status } = spawnSync(
  'npx',
  ['--no-install', 'jest', '--json', `--outputFile=${report}`, '--silent=false', ...process.argv.slice(2)],
  { cwd: root, stdio: ['ignore', 'ignore', 'inherit'] },
);
try {
  const { numPassedTests, numFailedTests, numFailedTestSuites, numPendingTests } = JSON.parse(
    readFileSync(report, 'utf8'),
  );
  passed += numPassedTests;
  // A file that does not load has no failed test in it, and is a failure all the same.
  failed += numFailedTests + (numFailedTests === 0 ? numFailedTestSuites : 0) + numPendingTests;
  if (status !== 0 && numFailedTests + numFailedTestSuites === 0) failed += 1;
} catch {
  say('The tests did not run to their end.');
  failed += 1;
}

say(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
