import { mkdirSync, readlinkSync, renameSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import { open, type FileHandle } from 'node:fs/promises';
import { join, relative } from 'node:path';
import { LogOnDisk } from '../src/database/logOnDisk';
import { onlyEmbedded, removeFolders, temporaryFolder } from './process';

/** What is waited for before a write to the embedded database is answered, seen at the files themselves: a folder as PostgreSQL leaves it. */
onlyEmbedded('the log of the embedded database', () => {
  let database: string;
  let log: LogOnDisk;
  /** The segment that is written to. */
  let current: string;
  /** Files that were waited for, in the database's folder. */
  let waited: string[] = [];
  let prototype: FileHandle;

  const segment = (number: number) =>
    `0000000100000000000000${number.toString(16).toUpperCase().padStart(2, '0')}`;
  const inLog = (...numbers: number[]) => numbers.map((number) => join('pg_wal', segment(number)));
  const write = (file: string) => writeFileSync(join(database, file), 'x');

  beforeAll(async () => {
    database = join(temporaryFolder(), 'database');
    for (const folder of ['pg_wal/archive_status', 'global', 'base/5'])
      mkdirSync(join(database, folder), { recursive: true });
    for (const file of ['global/pg_control', 'base/5/16384', ...inLog(1)]) write(file);
    current = segment(1);
    log = new LogOnDisk(database, async () => current);
    const file = await open(join(database, 'global/pg_control'), 'r');
    prototype = Object.getPrototypeOf(file) as FileHandle;
    await file.close();
    for (const way of ['datasync', 'sync'] as const)
      jest.spyOn(prototype, way).mockImplementation(async function (this: FileHandle) {
        waited.push(relative(database, readlinkSync(`/proc/self/fd/${this.fd}`)));
      });
    await log.sync();
  });
  beforeEach(() => (waited = []));
  afterAll(async () => {
    await log.close();
    jest.restoreAllMocks();
    removeFolders();
  });

  test('a commit waits for the segment that it is in', async () => {
    await log.sync();
    expect(waited).toEqual(inLog(1));
  });

  test('a commit that went over the end of a segment waits for both', async () => {
    write(inLog(2)[0]!);
    current = segment(2);
    await log.sync();
    expect(waited).toEqual(expect.arrayContaining(inLog(1, 2)));
    waited = [];
    await log.sync();
    expect(waited).toEqual(inLog(2));
  });

  // Seen with PGlite: after a checkpoint the current segment was 09, and the folder held 09 to 0E.
  test('segments that PostgreSQL keeps for later under the next names do not hide the one that is written to', async () => {
    renameSync(join(database, inLog(1)[0]!), join(database, inLog(3)[0]!));
    for (const file of inLog(4, 5, 6)) write(file);
    for (let time = 0; time < 3; time += 1) {
      waited = [];
      await log.sync();
      expect(waited).toEqual(expect.arrayContaining(inLog(2)));
    }
    current = segment(3);
    await log.sync();
    waited = [];
    rmSync(join(database, inLog(2)[0]!));
    await log.sync();
    expect(waited).toEqual(expect.arrayContaining(inLog(3)));
  });

  test('after a checkpoint everything is waited for, since the log before it is not read any more', async () => {
    const later = new Date(Date.now() + 5000);
    utimesSync(join(database, 'global/pg_control'), later, later);
    await log.sync();
    expect(waited).toEqual(
      expect.arrayContaining(['global/pg_control', 'base/5/16384', 'base/5', ...inLog(3)]),
    );
    waited = [];
    await log.sync();
    expect(waited).not.toContain('global/pg_control');
  });

  test('many who ask at once share a turn, and none of them one that began before', async () => {
    await log.sync();
    const turn = waited.length;
    waited = [];
    await Promise.all(Array.from({ length: 20 }, () => log.sync()));
    expect(waited).toHaveLength(2 * turn);
  });

  test('where the disk refuses everybody who waits is told, and the next turn is a new try', async () => {
    const refuse = jest.spyOn(prototype, 'datasync').mockRejectedValue(new Error('EIO'));
    const [one, other] = await Promise.allSettled([log.sync(), log.sync()]);
    expect([one.status, other.status]).toEqual(['rejected', 'rejected']);
    refuse.mockImplementation(async function (this: FileHandle) {
      waited.push(relative(database, readlinkSync(`/proc/self/fd/${this.fd}`)));
    });
    await log.sync();
    expect(waited).toEqual(expect.arrayContaining(inLog(3)));
  });
});
