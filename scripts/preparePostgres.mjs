/** What the server's tests on PostgreSQL need: a cluster of their own with two databases to copy, an empty shelf and the demo. */
import { execFileSync, spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { root } from './lib.mjs';
import { ensurePostgres, startPostgres } from './postgres.mjs';
import prepareTests, { demoNight } from './prepareTests.mjs';

export default async function preparePostgres() {
  await prepareTests();
  // One for all parts of a run that need it.
  if (globalThis.cordelCluster) return;
  ensurePostgres();
  const cluster = await startPostgres();
  globalThis.cordelCluster = cluster;
  process.env.CORDEL_TEST_POSTGRES = cluster.url;
  process.env.CORDEL_TEST_POSTGRES_FOLDER = cluster.folder;
  const make = (name, template) =>
    execFileSync('psql', [`${cluster.url}/postgres`, '-qXc', `create database ${name} template ${template}`]);
  make('cordel_empty', 'template1');
  await runOnce(`${cluster.url}/cordel_empty`, []);
  make('cordel_demo', 'cordel_empty');
  await runOnce(`${cluster.url}/cordel_demo`, ['--demo']);
}

/** Starts the server on a database and stops it when it listens. */
function runOnce(url, args) {
  const folder = mkdtempSync(join(tmpdir(), 'cordel-test-'));
  return new Promise((done, fail) => {
    const server = spawn(process.execPath, [join(root, 'server/dist/main.js'), ...args], {
      env: {
        ...process.env,
        DATABASE_URL: url,
        CORDEL_DATA: folder,
        PORT: '0',
        HOST: '',
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
    server.on('close', (code) => {
      rmSync(folder, { recursive: true, force: true });
      if (code === 0) done();
      else fail(new Error(`The server did not start:\n${output}`));
    });
  });
}
