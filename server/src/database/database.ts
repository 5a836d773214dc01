import type { ExtractTablesWithRelations } from 'drizzle-orm';
import type { PgDatabase, PgQueryResultHKT } from 'drizzle-orm/pg-core';
import type * as schema from '../schema';

/**
 * What the server knows of its database: PostgreSQL through Drizzle, either embedded (PGlite, `embedded.ts`, one process on one folder) or a PostgreSQL
 * server (`postgres.ts`, any number of Cordel processes). Schema, migrations and queries are the same; they differ in this:
 *
 * | | embedded | PostgreSQL |
 * |---|---|---|
 * | who may open it | one process; `folderLock.ts` keeps others off | any number; the first migrates under an advisory lock |
 * | connections | one: reads wait while a transaction runs, so nothing holds one open for long | a pool |
 * | `fact.seq` | given out under the lock of the project's row, which nobody contends for | the same lock, contended for by processes |
 * | an answered write is on the disk | `logOnDisk.ts` waits for it: PGlite does not | `synchronous_commit` |
 * | `publish` | reaches this process, the only one there is | LISTEN / NOTIFY reaches all of them, this one too |
 * | backup while it serves | of a copy of its files, by a process of its own | in a transaction of its own |
 * | copy before migrating | the folder is copied | a backup file is written |
 */
type Tables = typeof schema;
export type Queries = PgDatabase<PgQueryResultHKT, Tables, ExtractTablesWithRelations<Tables>>;

export interface Database {
  readonly kind: 'embedded' | 'postgres';
  readonly read: Queries;
  /** Runs `work` in a transaction. When the promise resolves, the write is on the disk; when it rejects, nothing of it is. */
  write<T>(work: (queries: Queries) => Promise<T>): Promise<T>;
  /** The same for a single statement, which is a transaction by itself and needs no more than its own way there and back. */
  writeOne<T>(statement: (queries: Queries) => Promise<T>): Promise<T>;
  /** Tells every process that works on this database; for what means nothing a minute later, so nothing of it is kept. */
  publish(message: string): Promise<void>;
  subscribe(listener: (message: string) => void): void;
  /** Copies the files of an embedded database, as of one moment, to a place where there is nothing; null where it has none. */
  readonly copyTo: ((place: string) => Promise<void>) | null;
  close(): Promise<void>;
}

/** The error code of PostgreSQL in an error that Drizzle may have wrapped: "23505" is a unique violation. */
export function sqlState(error: unknown): string | null {
  const { cause, code } = (error ?? {}) as { cause?: unknown; code?: unknown };
  const inner = (cause as { code?: unknown } | undefined)?.code;
  const found = inner ?? code;
  return typeof found === 'string' && /^[0-9A-Z]{5}$/.test(found) ? found : null;
}
