/**
 * npm test: installs what is missing and runs every check; the last line counts them. `npm test -- core` runs what is about a part: core, server, app or e2e;
 * further words go to Jest, like `npm test -- e2e bench`.
 */
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join, relative } from 'node:path';
import { ensureInstalled, root, say } from './lib.mjs';

const parts = ['core', 'server', 'app', 'e2e'];
const wanted = process.argv.slice(2).filter((word) => parts.includes(word));
const more = process.argv.slice(2).filter((word) => !parts.includes(word));
const chosen = wanted.length > 0 ? wanted : parts;
const needsServer = chosen.includes('e2e') || chosen.includes('server');

ensureInstalled();
const { ensureChromium } = await import('./chromium.mjs');
const { ensurePostgres } = await import('./postgres.mjs');
if (chosen.includes('e2e')) ensureChromium();
if (needsServer) ensurePostgres();

let passed = 0;
let failed = 0;
const began = Date.now();
const seconds = (from) => Math.round((Date.now() - from) / 1000);
const kept = join(root, '.cordel');
mkdirSync(kept, { recursive: true });

/** Runs a check, and shows what it printed when it is over. */
function check([name, command, ...args]) {
  const from = Date.now();
  const child = spawn(process.execPath, [join(root, 'node_modules', command), ...args], {
    cwd: root,
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let output = '';
  child.stdout.on('data', (text) => (output += text));
  child.stderr.on('data', (text) => (output += text));
  return new Promise((done) =>
    child.on('close', (status) => {
      if (status !== 0) say(output.trimEnd());
      say(`${status === 0 ? 'ok' : 'FAILED'}  ${name} (${seconds(from)} s)`);
      if (status === 0) passed += 1;
      else failed += 1;
      done();
    }),
  );
}

// What they found before is kept, and only what changed is looked at again.
const cache = (name) => ['--cache', '--cache-strategy', 'content', '--cache-location', join(kept, name)];
const checks = [
  ['lint', 'eslint/bin/eslint.js', '.', '--max-warnings', '0', ...cache('eslint')],
  ['format', 'prettier/bin/prettier.cjs', '--check', '--log-level', 'warn', '.', ...cache('prettier')],
  // The core's once, for all that stand on it: see `references` in the parts' tsconfig.json.
  ['types', 'typescript-native/bin/tsc', '-b', ...chosen],
  ['unused code and dependencies', 'knip/bin/knip.js', '--no-progress'],
];
/** One after the other. */
async function checkAll() {
  for (const one of checks) await check(one);
}

/** Builds what the tests of server and journeys run on, which find it done. Resolves with whether it could. */
async function build() {
  if (!needsServer) return true;
  const from = Date.now();
  try {
    const { buildServer, exportApp } = await import('./build.mjs');
    await buildServer();
    await exportApp();
    say(`ok  server and app are built (${seconds(from)} s)`);
    return true;
  } catch (error) {
    say(`FAILED  server and app could not be built: ${String(error)}`);
    failed += 1;
    return false;
  }
}

const expects = join(kept, 'expects');

/**
 * Runs the tests of these parts, as far as they are chosen. Resolves with how Jest ended and what it reports; with null
 * where none of them is chosen.
 * @param name of its report
 */
async function test(name, those, ...args) {
  const projects = those
    .filter((part) => chosen.includes(part))
    .flatMap((part) => (part === 'server' ? ['server', 'server on PostgreSQL'] : [part]));
  if (projects.length === 0) return null;
  const report = join(kept, `jest-${name}.json`);
  rmSync(report, { force: true });
  const given = [
    '--json',
    `--outputFile=${report}`,
    '--silent=false',
    ...args,
    '--selectProjects',
    ...projects,
  ];
  // Further words may be about the other parts only.
  const files = more.length > 0 ? ['--passWithNoTests', '--', ...more] : [];
  const child = spawn(process.execPath, [join(root, 'node_modules/jest/bin/jest.js'), ...given, ...files], {
    cwd: root,
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, CORDEL_EXPECTS: expects },
  });
  const status = await new Promise((done) => child.on('close', done));
  return { status, results: existsSync(report) ? JSON.parse(readFileSync(report, 'utf8')) : null };
}

/** Counts what Jest reported, and says where the time went. */
function count(runs) {
  for (const { status, results } of runs) {
    if (!results) {
      say('The tests did not run to their end.');
      failed += 1;
      continue;
    }
    const { numPassedTests, numFailedTests, numFailedTestSuites, numPendingTests } = results;
    passed += numPassedTests;
    // A file that does not load has no failed test in it, and is a failure all the same.
    failed += numFailedTests + (numFailedTests === 0 ? numFailedTestSuites : 0) + numPendingTests;
    if (status !== 0 && numFailedTests + numFailedTestSuites === 0) failed += 1;
  }
  const all = runs.flatMap(({ results }) => results ?? []);
  const tests = all.reduce((sum, { numTotalTests }) => sum + numTotalTests, 0);
  if (tests === 0) {
    say('No test was run.');
    failed += 1;
    return;
  }
  const calls = readFileSync(expects, 'utf8')
    .split('\n')
    .reduce((sum, line) => sum + Number(line), 0);
  say(`${tests} tests called expect ${calls} times. The slowest files:`);
  const times = all
    .flatMap(({ testResults }) => testResults)
    .map(({ name, startTime, endTime }) => ({ name, took: (endTime - startTime) / 1000 }))
    .sort((one, other) => other.took - one.took);
  for (const { name, took } of times.slice(0, 10))
    say(`${took.toFixed(1).padStart(7)} s  ${relative(root, name)}`);
}

rmSync(expects, { force: true });
// The build has one core to itself, and what stands on nothing that is built has the other.
const [built, early] = await Promise.all([
  build(),
  checkAll().then(() => test('early', ['core', 'app'], ...(needsServer ? ['--maxWorkers=2'] : []))),
]);
const late = built ? await test('late', ['server', 'e2e']) : null;
count([early, late].filter((run) => run !== null));
say(`${seconds(began)} s in all.`);
say(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
