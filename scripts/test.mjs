/**
 * npm test: installs what is missing and runs every check; the last line counts them. `npm test -- core` runs what is about a part: core, server, app or e2e;
 * further words go to Jest, like `npm test -- e2e bench`.
 */
import { spawn, spawnSync } from 'node:child_process';
import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureInstalled, root, say } from './lib.mjs';

const parts = ['core', 'server', 'app', 'e2e'];
const wanted = process.argv.slice(2).filter((word) => parts.includes(word));
const more = process.argv.slice(2).filter((word) => !parts.includes(word));
const chosen = wanted.length > 0 ? wanted : parts;

ensureInstalled();
const { ensureChromium } = await import('./chromium.mjs');
const { ensurePostgres } = await import('./postgres.mjs');
if (chosen.includes('e2e')) ensureChromium();
if (chosen.includes('e2e') || chosen.includes('server')) ensurePostgres();

let passed = 0;
let failed = 0;

/** Runs a check, and shows what it printed when it is over. */
function check([name, ...args]) {
  const began = Date.now();
  const child = spawn('npx', ['--no-install', ...args], { cwd: root, stdio: ['ignore', 'pipe', 'pipe'] });
  let output = '';
  child.stdout.on('data', (text) => (output += text));
  child.stderr.on('data', (text) => (output += text));
  return new Promise((done) =>
    child.on('close', (status) => {
      if (status !== 0) say(output.trimEnd());
      say(`${status === 0 ? 'ok' : 'FAILED'}  ${name} (${Math.round((Date.now() - began) / 1000)} s)`);
      if (status === 0) passed += 1;
      else failed += 1;
      done();
    }),
  );
}

// Two at a time: each has one thing to do after the other.
const waiting = [
  ...chosen.map((part) => [`types of ${part}`, 'tsc', '--noEmit', '-p', part]),
  ['lint', 'eslint', '.', '--max-warnings', '0'],
  ['format', 'prettier', '--check', '--log-level', 'warn', '.'],
  ['unused code and dependencies', 'knip', '--no-progress'],
];
const work = async () => {
  for (let next = waiting.shift(); next; next = waiting.shift()) await check(next);
};
await Promise.all([work(), work()]);

const report = join(root, '.cordel', 'jest.json');
mkdirSync(join(root, '.cordel'), { recursive: true });
rmSync(report, { force: true });
const projects = chosen.flatMap((part) => (part === 'server' ? ['server', 'server on PostgreSQL'] : [part]));
const { status } = spawnSync(
  'npx',
  [
    '--no-install',
    'jest',
    '--json',
    `--outputFile=${report}`,
    '--silent=false',
    '--selectProjects',
    ...projects,
    ...(more.length > 0 ? ['--', ...more] : []),
  ],
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
