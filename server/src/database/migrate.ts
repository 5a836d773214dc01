import { sql } from 'drizzle-orm';
import { readMigrationFiles } from 'drizzle-orm/migrator';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { PgDatabase, PgQueryResultHKT } from 'drizzle-orm/pg-core';

/** One committed step of the schema. */
export interface Migration {
  /** "0005_facts" */
  readonly tag: string;
  /** When it was written, ms since 1970: by this a database knows how far it is. */
  readonly when: number;
  readonly hash: string;
  readonly statements: readonly string[];
}

// eslint-disable-next-line @typescript-eslint/no-explicit-any -- it runs on either driver, before anything knows the schema
type AnyDatabase = PgDatabase<PgQueryResultHKT, any, any>;

/** The migrations in a folder as drizzle-kit writes it, oldest first. */
export function migrationsIn(folder: string): Migration[] {
  const { entries } = JSON.parse(readFileSync(join(folder, 'meta/_journal.json'), 'utf8')) as {
    entries: { tag: string }[];
  };
  return readMigrationFiles({ migrationsFolder: folder }).map((file, index) => ({
    tag: entries[index]!.tag,
    when: file.folderMillis,
    hash: file.hash,
    statements: file.sql,
  }));
}

export interface SchemaState {
  /** `when` of the newest one that it has; null where it has none. */
  readonly last: number | null;
  readonly pending: readonly Migration[];
  /** Why this Cordel must not touch it, where a newer one has. */
  readonly newer: string | null;
}

/** How far a database is. Writes nothing. */
export async function stateOf(db: AnyDatabase, migrations: readonly Migration[]): Promise<SchemaState> {
  const there = rowsOf(await db.execute(sql`select to_regclass('drizzle.__drizzle_migrations') as there`));
  const [row] =
    there[0]?.there == null
      ? []
      : rowsOf(
          await db.execute(
            sql`select created_at from drizzle.__drizzle_migrations order by created_at desc limit 1`,
          ),
        );
  const last = row ? Number(row.created_at) : null;
  const newest = migrations.at(-1)?.when ?? 0;
  return {
    last,
    pending: migrations.filter((one) => last === null || one.when > last),
    newer:
      last !== null && last > newest
        ? 'A newer Cordel has worked on this database, and this one would spoil it. Start the newer one, or restore a backup from before (docs/operating.md). Nothing was changed.'
        : null,
  };
}

/** Applies these steps, all in one transaction. */
export async function migrate(db: AnyDatabase, pending: readonly Migration[]): Promise<void> {
  if (pending.length === 0) return;
  await db.transaction(async (transaction) => {
    await transaction.execute(sql`create schema if not exists drizzle`);
    await transaction.execute(
      sql`create table if not exists drizzle.__drizzle_migrations (id serial primary key, hash text not null, created_at bigint)`,
    );
    for (const { statements, hash, when } of pending) {
      for (const statement of statements)
        if (statement.trim() !== '') await transaction.execute(sql.raw(statement));
      await transaction.execute(
        sql`insert into drizzle.__drizzle_migrations (hash, created_at) values (${hash}, ${when})`,
      );
    }
  });
}

/** The rows of `execute`, which each driver gives in its own wrapping. */
export function rowsOf(result: unknown): Record<string, unknown>[] {
  return (result as { rows: Record<string, unknown>[] }).rows;
}
