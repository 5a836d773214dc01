import { randomUUID } from 'node:crypto';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { allOf, newProjectOn } from './journey';
import { makeAttempt } from './makeProject';
import {
  bareFolder,
  dataFolder,
  databaseUrlOf,
  everyFact,
  postgres,
  psql,
  removeFolders,
  request,
  runBackup,
  startServer,
  temporaryFolder,
} from './process';

/** A whole database out and in, on either kind and from one kind to the other. */

afterAll(removeFolders);

/** In which numbering each project counts its records. */
async function numberings(url: string): Promise<string[]> {
  const { body } = await request<{ shelf: { project: { id: string } }[] }>(`${url}/api/projects`);
  return Promise.all(
    body.shelf.map(
      async ({ project }) =>
        (await request<{ numbering: string }>(`${url}/api/projects/${project.id}/facts?limit=1`)).body
          .numbering,
    ),
  );
}

async function demoWithMore(): Promise<{
  folder: string;
  all: Awaited<ReturnType<typeof allOf>>;
  numbered: string[];
  unknown: object;
}> {
  const folder = dataFolder('demo');
  const server = await startServer(folder);
  const { closureId, splices, post, project } = await newProjectOn(`${server.url}/api`, 4);
  const unknown = {
    ...makeAttempt(closureId, splices[0]!, 0.03),
    id: randomUUID(),
    v: 7,
    body: { note: 'ão 🧰 \\ "x"' },
  };
  await post([makeAttempt(closureId, splices[1]!, 0.03, { note: 'line\nbreak' }), unknown]);
  const gone = await newProjectOn(`${server.url}/api`);
  await request(gone.project, 'DELETE');
  expect(await everyFact(`${project}/facts`)).toHaveLength(2);
  const all = await allOf(server.url);
  const numbered = await numberings(server.url);
  await server.stop();
  return { folder, all, numbered, unknown };
}

/** What stands in a folder and in its database. */
const tablesAndFiles = (folder: string) => [
  ...readdirSync(folder),
  ...(postgres
    ? psql(
        databaseUrlOf(folder),
        "select table_name from information_schema.tables where table_schema = 'public'",
      )
        .split('\n')
        .filter(Boolean)
    : []),
];

test('what a backup wrote a restore brings back, on this kind of database and on the other, and from there back again', async () => {
  const { folder, all, numbered } = await demoWithMore();
  const file = join(temporaryFolder(), 'first.cordel-backup');
  const backup = await runBackup('backup', file, folder);
  expect([backup.code, backup.output]).toEqual([
    0,
    expect.stringMatching(/^\d+ rows of .* read back and whole\.\n$/),
  ]);

  const same = bareFolder();
  expect((await runBackup('restore', file, same)).code).toBe(0);
  const there = await startServer(same);
  expect(await allOf(there.url)).toEqual(all);
  // Devices that know the one before must not take its numbers for these.
  const others = await numberings(there.url);
  expect(others).toHaveLength(numbered.length);
  expect(others.filter((one) => numbered.includes(one))).toEqual([]);
  // It goes on where it was: a number that was given out is not given out again.
  const { closureId, splices, post, project } = await newProjectOn(`${there.url}/api`);
  await post([makeAttempt(closureId, splices[0]!, 0.03)]);
  expect(await everyFact(`${project}/facts`)).toHaveLength(1);
  await request(project, 'DELETE');
  await there.stop();

  if (!postgres) return;
  const embedded = temporaryFolder();
  expect((await runBackup('restore', file, embedded, { DATABASE_URL: '' })).code).toBe(0);
  const other = await startServer(embedded, { DATABASE_URL: '' });
  expect(await allOf(other.url)).toEqual(all);
  await other.stop();
  const second = join(temporaryFolder(), 'second.cordel-backup');
  expect((await runBackup('backup', second, embedded, { DATABASE_URL: '' })).code).toBe(0);
  const back = bareFolder();
  expect((await runBackup('restore', second, back)).code).toBe(0);
  const again = await startServer(back);
  expect(await allOf(again.url)).toEqual(all);
  await again.stop();
}, 180_000);

test('neither overwrites anything, and a backup that is not whole is told before anything is made', async () => {
  const folder = dataFolder('demo');
  const file = join(temporaryFolder(), 'a.cordel-backup');
  await runBackup('backup', file, folder);
  const written = readFileSync(file);
  const again = await runBackup('backup', file, folder);
  expect([again.code, again.output]).toEqual([1, expect.stringContaining('overwrites nothing')]);
  expect(readFileSync(file).equals(written)).toBe(true);
  const onto = await runBackup('restore', file, folder);
  expect([onto.code, onto.output]).toEqual([1, expect.stringContaining('overwrites nothing')]);

  const spoilt: [string, Buffer][] = [
    ['half', written.subarray(0, written.length / 2)],
    ['another file', Buffer.from('{"format":"other"}\n')],
    [
      'a turned bit',
      Buffer.from(written.map((byte, index) => (index === written.length - 2000 ? byte ^ 1 : byte))),
    ],
  ];
  for (const [name, bytes] of spoilt) {
    const bad = join(temporaryFolder(), 'bad.cordel-backup');
    writeFileSync(bad, bytes);
    const empty = bareFolder();
    const { code, output } = await runBackup('restore', bad, empty);
    expect([name, code, output]).toEqual([name, 1, expect.stringContaining('no whole backup of Cordel')]);
    expect([name, tablesAndFiles(empty)]).toEqual([name, []]);
  }
  expect((await runBackup('restore', '/nowhere/x', bareFolder())).output).toContain('There is no file');
}, 180_000);

test('while a server works on the folder it is left alone; a PostgreSQL database is backed up beside its servers', async () => {
  const folder = dataFolder('demo');
  const server = await startServer(folder);
  const file = join(temporaryFolder(), 'b.cordel-backup');
  const { code, output } = await runBackup('backup', file, folder);
  if (postgres) expect(code).toBe(0);
  else expect([code, output]).toEqual([1, expect.stringContaining('Another Cordel already works on')]);
  await server.stop();
}, 60_000);
