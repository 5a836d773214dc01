import { chmod, mkdir } from 'node:fs/promises';
import { join } from 'node:path';
import type { Config } from './config';
import { writeBackup } from './database/backup';
import type { Database } from './database/database';
import { openEmbedded } from './database/embedded';
import { lockFolder } from './database/folderLock';
import { migrationsIn } from './database/migrate';
import { openPostgres } from './database/postgres';

/** Opens the database that is configured, up to date, and gives what closes it again. */
export async function openDatabase(
  { folder, databaseUrl }: Pick<Config, 'folder' | 'databaseUrl'>,
  migrationsFolder: string,
): Promise<{ database: Database; close: () => Promise<void> }> {
  const migrations = migrationsIn(migrationsFolder);
  // Nobody else on this machine reads what is stored.
  process.umask(0o077);
  await mkdir(folder, { recursive: true, mode: 0o700 });
  if (databaseUrl) {
    const database = await openPostgres(databaseUrl, migrations, async (db, state) => {
      await writeBackup(
        db,
        migrations,
        join(folder, `before-${state.pending[0]!.tag}-${Date.now()}.cordel-backup`),
      );
    });
    return { database, close: () => database.close() };
  }
  const unlock = await lockFolder(folder);
  try {
    await chmod(folder, 0o700);
    await chmod(join(folder, 'database'), 0o700).catch(() => undefined);
    const database = await openEmbedded(folder, migrations);
    return {
      database,
      close: async () => {
        await database.close();
        await unlock();
      },
    };
  } catch (error) {
    await unlock();
    throw error;
  }
}
