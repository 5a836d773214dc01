import { drizzle } from 'drizzle-orm/node-postgres';
import { existsSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { PGlite } from '@electric-sql/pglite';
import { drizzle as drizzleEmbedded } from 'drizzle-orm/pglite';
import { Pool } from 'pg';
import { checkBackup, readBackup, writeBackup } from './database/backup';
import type { Queries } from './database/database';
import { restoreEmbedded } from './database/embedded';
import { lockFolder } from './database/folderLock';
import { migrationsIn } from './database/migrate';
import { unreachable } from './database/postgres';
import { diskTrouble, OperatorError } from './operatorError';
import * as schema from './schema';

/**
 * `backup FILE` and `restore FILE`, of the database in CORDEL_DATA or that of DATABASE_URL. What one wrote the other reads, from either kind of database into either.
 */
const root = fileURLToPath(new URL('../..', import.meta.url));
const migrations = migrationsIn(join(root, 'server', 'migrations'));
const folder = process.env.CORDEL_DATA || join(root, '.cordel', 'work');
const url = process.env.DATABASE_URL || null;
const where = url ? 'the database of DATABASE_URL' : folder;

async function main([what, name]: readonly string[]): Promise<void> {
  if ((what !== 'backup' && what !== 'restore') || !name)
    throw new OperatorError(`Give a file: npm run ${what === 'restore' ? 'restore' : 'backup'} -- FILE`);
  process.umask(0o077);
  const file = resolve(process.env.INIT_CWD ?? process.cwd(), name);
  const rows = what === 'backup' ? await backup(file) : await restore(file);
  const all = Object.values(rows).reduce((sum, count) => sum + count, 0);
  console.log(
    what === 'backup'
      ? `${all} rows of ${where} are in ${file}, read back and whole.`
      : `${all} rows of ${file} are in ${where}, counted and whole.`,
  );
}

async function backup(file: string) {
  if (existsSync(file))
    throw new OperatorError(`${file} is there already, and a backup overwrites nothing. Give another name.`);
  if (url) return onServer((db) => writeBackup(db, migrations, file));
  const database = join(folder, 'database');
  if (!existsSync(join(database, 'PG_VERSION')))
    throw new OperatorError(`There is no database in ${folder}. Set CORDEL_DATA to the folder that has it.`);
  const unlock = await lockFolder(folder);
  try {
    const client = await PGlite.create(database);
    try {
      return await writeBackup(drizzleEmbedded(client, { schema }) as unknown as Queries, migrations, file);
    } finally {
      await client.close();
    }
  } finally {
    await unlock();
  }
}

async function restore(file: string) {
  // Looked through before anything is made.
  await checkBackup(file);
  if (url) return onServer((db) => readBackup(db, migrations, file));
  const unlock = await lockFolder(folder);
  try {
    return await restoreEmbedded(folder, (db) => readBackup(db, migrations, file));
  } finally {
    await unlock();
  }
}

async function onServer<T>(work: (db: Queries) => Promise<T>): Promise<T> {
  const pool = new Pool({ connectionString: url!, max: 1, connectionTimeoutMillis: 10_000 });
  try {
    return await work(drizzle(pool, { schema }) as unknown as Queries);
  } catch (error) {
    throw error instanceof OperatorError ? error : unreachable(url!, error);
  } finally {
    await pool.end();
  }
}

main(process.argv.slice(2)).catch((error: unknown) => {
  const disk = diskTrouble(error, folder) ?? diskTrouble((error as { cause?: unknown })?.cause, folder);
  if (disk) console.error(disk);
  else if (error instanceof OperatorError) console.error(error.message);
  else console.error(error);
  process.exit(1);
});
