import { PGlite } from '@electric-sql/pglite';
import type { ExtractTablesWithRelations } from 'drizzle-orm';
import type { PgDatabase, PgQueryResultHKT } from 'drizzle-orm/pg-core';
import { drizzle } from 'drizzle-orm/pglite';
import { migrate } from 'drizzle-orm/pglite/migrator';
import { existsSync } from 'node:fs';
import { mkdir, open, readdir, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import * as schema from './schema';

/**
 * The one file that knows that the database is PGlite. The rest sees a PostgreSQL database through Drizzle, so that the same schema
 * can be put on a server of its own.
 */
type Tables = typeof schema;
export type Queries = PgDatabase<PgQueryResultHKT, Tables, ExtractTablesWithRelations<Tables>>;

export interface Database {
  readonly read: Queries;
  /** Runs `work` in a transaction. When the promise resolves, the write is on the disk; when it rejects, nothing of it is. */
  write<T>(work: (queries: Queries) => Promise<T>): Promise<T>;
  close(): Promise<void>;
}

/** Opens the database in `folder`, making it where there is none, and brings its tables up to date in a transaction. */
export async function openDatabase(folder: string, migrationsFolder: string): Promise<Database> {
  if (!existsSync(folder)) await makeDatabase(folder);
  const client = await PGlite.create(folder);
  const db = drizzle(client, { schema });
  await migrate(db, { migrationsFolder });
  return {
    read: db,
    async write(work) {
      const result = await db.transaction((transaction) => work(transaction));
      await syncLog(join(folder, 'pg_wal'));
      return result;
    },
    close: () => client.close(),
  };
}

/**
 * Making a database takes seconds, and a half made one cannot be opened. It is made beside its place and put there when it is whole, so
 * that a start that is cut short costs nothing but its time.
 */
async function makeDatabase(folder: string): Promise<void> {
  const making = `${folder}.making`;
  await rm(making, { recursive: true, force: true });
  await mkdir(making, { recursive: true });
  await (await PGlite.create(making)).close();
  await rename(making, folder);
}

/**
 * PGlite hands its write-ahead log to the operating system before it reports a commit, which survives the end of this process; it
 * does not wait for the disk. This does: a van's power cut after the answer should not cost the splice either.
 */
async function syncLog(folder: string): Promise<void> {
  const segments = (await readdir(folder)).filter((name) => /^[0-9A-F]{24}$/.test(name)).sort();
  // A transaction may have crossed into the newest segment, so the one before it is synced as well.
  for (const segment of segments.slice(-2)) {
    const file = await open(join(folder, segment), 'r+');
    try {
      await file.datasync();
    } finally {
      await file.close();
    }
  }
}
