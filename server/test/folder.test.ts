import { mkdirSync, readdirSync, rmSync, statSync, symlinkSync, truncateSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { times } from '../../core/test/times';
import { diskTrouble } from '../src/operatorError';
import { newProjectOn } from './journey';
import { makeAttempt } from './makeProject';
import {
  bareFolder,
  dataFolder,
  everyFact,
  execute,
  removeFolders,
  request,
  startServer,
  temporaryFolder,
  type ServerProcess,
} from './process';

/** The folder of an embedded database: one process on it, and nothing made where something should be. */

/** A start on a folder that a dead process holds, made while the other tests run: it watches the claim for a while. */
let onDeadClaim: Promise<ServerProcess>;
beforeAll(() => {
  const folder = dataFolder('empty');
  writeFileSync(
    join(folder, 'lock.3'),
    JSON.stringify({ token: 'x', pid: process.pid, began: '1', place: 'elsewhere' }),
  );
  onDeadClaim = startServer(folder);
});
afterAll(removeFolders);

/** How many of these starts got the folder; the others say why not. Ends them all. */
async function whoGotIt(
  starts: readonly Promise<ServerProcess>[],
): Promise<{ got: number; words: string[] }> {
  const outcomes = await Promise.allSettled(starts);
  const running = outcomes.flatMap((one) => (one.status === 'fulfilled' ? [one.value] : []));
  await Promise.all(running.map((one) => one.stop()));
  return {
    got: running.length,
    words: outcomes.flatMap((one) => (one.status === 'rejected' ? [String(one.reason)] : [])),
  };
}

describe('a second server on the same folder is kept out', () => {
  let server: ServerProcess;
  beforeAll(async () => {
    server = await startServer(dataFolder('empty'));
  }, 60_000);
  afterAll(() => server.stop());

  test.each<[string, () => Promise<unknown>]>([
    ['by the same path', () => startServer(server.folder)],
    [
      'by a symbolic link',
      () => {
        const link = join(temporaryFolder(), 'link');
        symlinkSync(server.folder, link);
        return startServer(link);
      },
    ],
    ['with another TMPDIR', () => startServer(server.folder, { TMPDIR: temporaryFolder() })],
    ['by another spelling', () => startServer(`${server.folder}/../${server.folder.split('/').at(-1)!}/`)],
  ])('%s', async (_, start) => {
    await expect(start()).rejects.toThrow(/Another Cordel already works on/);
    expect((await request(`${server.url}/api/health`)).status).toBe(200);
  });
});

test('of three starts at once after a kill -9 one goes on, time after time, and nothing acknowledged is lost', async () => {
  const folder = dataFolder('empty');
  const first = await startServer(folder);
  const { closureId, splices, definition, post } = await newProjectOn(`${first.url}/api`);
  await post([makeAttempt(closureId, splices[0]!, 0.03)]);
  await first.kill();
  for (let round = 0; round < times(1, 10); round += 1) {
    const starts = [1, 2, 3].map(() => startServer(folder));
    const outcomes = await Promise.allSettled(starts);
    const running = outcomes.flatMap((one) => (one.status === 'fulfilled' ? [one.value] : []));
    expect(running).toHaveLength(1);
    const facts = `${running[0]!.url}/api/projects/${definition.project.id}/facts`;
    await request(facts, 'POST', { facts: [makeAttempt(closureId, splices[round + 1]!, 0.03)] });
    expect(await everyFact(facts)).toHaveLength(round + 2);
    await running[0]!.kill();
  }
  expect(readdirSync(folder).filter((name) => name.startsWith('lock'))).toHaveLength(1);
}, 600_000);

test('a claim whose process number was given to another process is dead', async () => {
  const here = await onDeadClaim;
  await here.stop();
  expect(await whoGotIt([startServer(here.folder)])).toEqual({ got: 1, words: [] });
}, 60_000);

describe('a database that is not whole is told, and never filled', () => {
  test.each<[string, (folder: string) => void, RegExp]>([
    [
      'an empty folder in its place',
      (folder) => empty(join(folder, 'database')),
      /is not whole: PG_VERSION, global\/pg_control, base, pg_wal are missing/,
    ],
    [
      'half a copy',
      (folder) => rmSync(join(folder, 'database/global'), { recursive: true }),
      /is not whole: global\/pg_control is missing/,
    ],
    [
      'a log that was not copied',
      (folder) => rmSync(join(folder, 'database/pg_wal'), { recursive: true }),
      /is not whole: pg_wal is missing/,
    ],
    [
      'none where one was',
      (folder) => rmSync(join(folder, 'database'), { recursive: true }),
      /There was a database in .*, and it is gone\. Is its disk mounted\?/,
    ],
    [
      'a damaged control file',
      (folder) => truncateSync(join(folder, 'database/global/pg_control'), 100),
      /cannot be opened. It is damaged/,
    ],
  ])(
    '%s',
    async (_, spoil, words) => {
      // A server made it, worked on it and ended.
      const folder = dataFolder('empty');
      spoil(folder);
      const before = readdirSync(folder)
        .filter((name) => !name.startsWith('lock'))
        .sort();
      const message = await startServer(folder).then(
        () => 'it started',
        (error: Error) => error.message,
      );
      expect(message).toMatch(words);
      expect(message).toContain(folder);
      expect(message).not.toMatch(/undefined|at .*\.js:\d+/);
      expect(
        readdirSync(folder)
          .filter((name) => !name.startsWith('lock'))
          .sort(),
      ).toEqual(before);
    },
    60_000,
  );

  test('a database in which nothing is Cordel’s', async () => {
    const folder = dataFolder('empty');
    execute(folder, 'drop schema public cascade; drop schema drizzle cascade; create schema public;');
    await expect(startServer(folder)).rejects.toThrow(/has no tables of Cordel in it/);
  }, 60_000);
});

function empty(folder: string): void {
  rmSync(folder, { recursive: true });
  mkdirSync(folder);
}

test('nobody else on the machine can read what is stored', async () => {
  const folder = bareFolder();
  const server = await startServer(folder);
  const modes = (path: string): [string, number][] =>
    readdirSync(path, { withFileTypes: true }).flatMap((entry): [string, number][] => {
      const inner = join(path, entry.name);
      const own: [string, number] = [inner, statSync(inner).mode & 0o077];
      return entry.isDirectory() ? [own, ...modes(inner)] : [own];
    });
  expect(statSync(folder).mode & 0o777).toBe(0o700);
  expect(modes(folder).filter(([, others]) => others !== 0)).toEqual([]);
  await server.stop();
}, 60_000);

test.each([
  [
    'a full disk',
    Object.assign(new Error('ENOSPC: no space left on device, write'), { code: 'ENOSPC' }),
    /is full/,
  ],
  ['a full disk, as PGlite says it', { errno: 28, name: 'ErrnoError' }, /is full/],
  ['a read-only disk', Object.assign(new Error('EROFS'), { code: 'EROFS' }), /mounted read-only/],
  [
    'a folder of somebody else',
    Object.assign(new Error('EACCES: permission denied'), { code: 'EACCES' }),
    /may not write to \/data/,
  ],
])('%s is told in words with the folder and what to do', (_, error, words) =>
  expect(diskTrouble(error, '/data')).toMatch(words),
);

test('a folder that is a file is told', async () => {
  const file = join(temporaryFolder(), 'file');
  writeFileSync(file, '');
  await expect(startServer(file)).rejects.toThrow(/is no folder|File exists|EEXIST/);
});
