import { PGlite } from '@electric-sql/pglite';
import { drizzle } from 'drizzle-orm/pglite';
import { cp, mkdir, readdir, readFile, rename, rm, stat, statfs, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import * as schema from '../schema';
import { diskTrouble, OperatorError } from '../operatorError';
import type { Database, Queries } from './database';
import { LogOnDisk, syncFolder } from './logOnDisk';
import { migrate, stateOf, type Migration } from './migrate';

/** What a data folder says of itself once a database was made in it. */
const markName = 'cordel.json';

/**
 * Opens the database in `data`/database, making it where there never was one, and brings its tables up to date. Rejects with an `OperatorError` where what
 * is there cannot be it.
 * @param folder locked by the caller
 */
export async function openEmbedded(folder: string, migrations: readonly Migration[]): Promise<Database> {
  const database = join(folder, 'database');
  const isNew = await makeWhereThereNeverWasOne(folder, database);
  const client = await openAt(database);
  const db = drizzle(client, { schema });
  try {
    const state = await stateOf(db, migrations);
    if (!isNew && state.last === null)
      throw new OperatorError(
        `The database in ${database} has no tables of Cordel in it, so it is not the one that was made here. Put the whole folder back from a copy (docs/operating.md), or set CORDEL_DATA to another folder to begin a new shelf.`,
      );
    if (state.newer) throw new OperatorError(state.newer);
    if (!isNew && state.pending.length > 0) {
      await copyBefore(client, database, `${database}.before-${state.pending[0]!.tag}`);
    }
    await migrate(db, state.pending);
  } catch (error) {
    await client.close().catch(() => undefined);
    throw error;
  }
  const log = new LogOnDisk(database, async () => {
    const { rows } = await client.query<{ name: string }>(
      'select pg_walfile_name(pg_current_wal_insert_lsn()) as name',
    );
    return rows[0]!.name;
  });
  // What recovery and migrations wrote. The first write to be answered waits for it.
  log.sync().catch(() => undefined);
  const listeners = new Set<(message: string) => void>();
  return {
    kind: 'embedded',
    read: db as unknown as Queries,
    async write(work) {
      const result = await db.transaction((transaction) => work(transaction as unknown as Queries));
      await log.sync();
      return result;
    },
    async writeOne(statement) {
      const result = await statement(db as unknown as Queries);
      await log.sync();
      return result;
    },
    publish: async (message) => listeners.forEach((listener) => listener(message)),
    subscribe: (listener) => void listeners.add(listener),
    copyTo: (place) =>
      // While a transaction has the one connection nothing else writes.
      client.transaction(async (transaction) => {
        await transaction.exec('CHECKPOINT');
        await cp(database, place, { recursive: true });
      }),
    async close() {
      await log.close();
      await client.close();
      await syncFolder(database);
    },
  };
}

/** Makes a database, has `fill` fill it, and puts it in its place when it is whole. Refuses where there is one. */
export async function restoreEmbedded<T>(folder: string, fill: (db: Queries) => Promise<T>): Promise<T> {
  const database = join(folder, 'database');
  if (await stat(database).catch(() => null))
    throw new OperatorError(
      `There is a database in ${folder} already, and a restore overwrites nothing. Set CORDEL_DATA to another folder.`,
    );
  const making = `${database}.making`;
  await rm(making, { recursive: true, force: true });
  await mkdir(making, { recursive: true });
  const client = await openAt(making);
  let result: T;
  try {
    result = await fill(drizzle(client, { schema }) as unknown as Queries);
  } finally {
    await client.close();
  }
  await syncFolder(making);
  await rename(making, database);
  await mark(folder);
  return result;
}

/** true where a database was made. A folder in which one was made once, and is not or not whole, is never filled: that would hide what is missing. */
async function makeWhereThereNeverWasOne(folder: string, database: string): Promise<boolean> {
  const marked = await readFile(join(folder, markName), 'utf8').catch(() => null);
  const entries = await readdir(database).catch((error: NodeJS.ErrnoException) => {
    if (error.code === 'ENOENT') return null;
    throw error;
  });
  if (entries === null) {
    if (marked !== null)
      throw new OperatorError(
        `There was a database in ${database}, and it is gone. Is its disk mounted? Put it back from a copy, or remove ${join(folder, markName)} to begin a new shelf.`,
      );
    await makeDatabase(database);
    await mark(folder);
    return true;
  }
  const missing: string[] = [];
  for (const part of ['PG_VERSION', 'global/pg_control', 'base', 'pg_wal'])
    if (!(await stat(join(database, part)).catch(() => null))) missing.push(part);
  if (missing.length > 0)
    throw new OperatorError(
      `The database in ${database} is not whole: ${missing.join(', ')} ${missing.length === 1 ? 'is' : 'are'} missing. Perhaps half of it was copied, or its disk is not mounted. Put it back from a copy, or set CORDEL_DATA to another folder to begin a new shelf.`,
    );
  if (marked === null) await mark(folder);
  return false;
}

async function mark(folder: string): Promise<void> {
  await writeFile(
    join(folder, markName),
    `${JSON.stringify({ folder: 'cordel-data', database: 'database' })}\n`,
  );
}

async function openAt(database: string): Promise<PGlite> {
  try {
    return await PGlite.create(database);
  } catch (error) {
    const trouble =
      diskTrouble(error, database) ??
      ((await isFull(database)) ? diskTrouble({ code: 'ENOSPC' }, database) : null);
    if (trouble) throw new OperatorError(trouble, error);
    throw new OperatorError(
      `The database in ${database} cannot be opened. It is damaged: put it back from a copy (docs/operating.md).`,
      error,
    );
  }
}

/** PGlite does not say why it stopped; a disk with no room for its next pages is why. */
async function isFull(folder: string): Promise<boolean> {
  const { bavail, bsize } = await statfs(folder).catch(() => ({ bavail: Infinity, bsize: 1 }));
  return bavail * bsize < 2_000_000;
}

/**
 * Making a database takes seconds, and a half made one cannot be opened. It is made beside its place and put there when it is whole, so
 * that a start that is cut short costs nothing but its time.
 */
async function makeDatabase(database: string): Promise<void> {
  const making = `${database}.making`;
  await rm(making, { recursive: true, force: true });
  await mkdir(making, { recursive: true });
  await (await openAt(making)).close();
  await rename(making, database);
}

/** The files as they are now: nothing is written to them meanwhile, since there is one connection and it waits for this. */
async function copyBefore(client: PGlite, database: string, copy: string): Promise<void> {
  await client.exec('CHECKPOINT');
  await rm(`${copy}.making`, { recursive: true, force: true });
  await cp(database, `${copy}.making`, { recursive: true });
  await syncFolder(`${copy}.making`);
  await rm(copy, { recursive: true, force: true });
  await rename(`${copy}.making`, copy);
}
