/** What the server's tests on PostgreSQL need: a cluster of their own with two databases to copy, an empty shelf and the demo. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ensurePostgres, startPostgres } from './postgres.mjs';
import prepareTests, { runOnce } from './prepareTests.mjs';

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
  await runOn(`${cluster.url}/cordel_empty`, []);
  make('cordel_demo', 'cordel_empty');
  await runOn(`${cluster.url}/cordel_demo`, ['--demo']);
}

/** Starts the server on a database and stops it when it listens. */
async function runOn(url, args) {
  const folder = mkdtempSync(join(tmpdir(), 'cordel-test-'));
  try {
    await runOnce(folder, args, url);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
