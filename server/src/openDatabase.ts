import { chmod, mkdir, readdir } from 'node:fs/promises';
import { join } from 'node:path';
import type { Config } from './config';
import { writeBackup } from './database/backup';
import type { Database } from './database/database';
import { openEmbedded } from './database/embedded';
import { lockFolder } from './database/folderLock';
import { clearLeftOvers } from './database/liveBackup';
import type { Migration } from './database/migrate';
import { openPostgres } from './database/postgres';

const day = 24 * 3600_000;

/** Opens the database that is configured, up to date, and gives what closes it again. */
export async function openDatabase(
  { folder, databaseUrl }: Pick<Config, 'folder' | 'databaseUrl'>,
  migrations: readonly Migration[],
): Promise<{ database: Database; close: () => Promise<void> }> {
  // Nobody else on this machine reads what is stored.
  process.umask(0o077);
  await mkdir(folder, { recursive: true, mode: 0o700 });
  if (databaseUrl) {
    await clearLeftOvers(folder, day);
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
    await clearLeftOvers(folder, 0);
    const database = await openEmbedded(folder, migrations);
    await keepPrivate(join(folder, 'database'));
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

/** PGlite gives its first files to everybody to read and write, and earlier versions of Cordel left them so. */
async function keepPrivate(folder: string): Promise<void> {
  await chmod(folder, 0o700);
  const entries = await readdir(folder, { recursive: true, withFileTypes: true });
  await Promise.all(
    entries.map((entry) =>
      // A file of the log may be recycled meanwhile.
      chmod(join(entry.parentPath, entry.name), entry.isDirectory() ? 0o700 : 0o600).catch(() => undefined),
    ),
  );
}
