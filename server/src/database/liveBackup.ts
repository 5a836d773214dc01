import { spawn } from 'node:child_process';
import { mkdtemp, readdir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { OperatorError } from '../operatorError';
import { writeBackup } from './backup';
import type { Database } from './database';
import type { Migration } from './migrate';

/** Of folders in which backups are made. */
const beginning = 'backup-';

/**
 * Takes away what servers left behind that were killed in the middle of a backup.
 * @param age of what is surely left, ms: servers may share the folder
 */
export async function clearLeftOvers(folder: string, age: number): Promise<void> {
  for (const name of await readdir(folder)) {
    if (!name.startsWith(beginning)) continue;
    const path = join(folder, name);
    const { mtimeMs } = await stat(path);
    if (Date.now() - mtimeMs >= age) await rm(path, { recursive: true, force: true });
  }
}

/** A place of one's own in the data folder, taken away by `work`'s end. */
export async function inOwnFolder<T>(folder: string, work: (place: string) => Promise<T>): Promise<T> {
  const place = await mkdtemp(join(folder, beginning));
  try {
    return await work(place);
  } finally {
    await rm(place, { recursive: true, force: true });
  }
}

/**
 * Writes a backup while the server works on. An embedded database has one connection, for which everybody would wait: its files are copied in a moment, and a process
 * of its own reads the copy.
 * @param place a folder of one's own
 * @param file in it, not there yet
 */
export async function backupWhileServing(
  database: Database,
  migrations: readonly Migration[],
  place: string,
  file: string,
  signal: AbortSignal,
): Promise<void> {
  signal.throwIfAborted();
  if (!database.copyTo) {
    await writeBackup(database.read, migrations, file);
    return;
  }
  await database.copyTo(join(place, 'database'));
  const environment = { ...process.env, CORDEL_DATA: place };
  delete (environment as Record<string, string | undefined>).DATABASE_URL;
  // Beside the bundle that this is in.
  const program = fileURLToPath(new URL('./backup.js', import.meta.url));
  const child = spawn(process.execPath, [program, 'backup', file], {
    env: environment,
    stdio: ['ignore', 'ignore', 'pipe'],
    signal,
  });
  const end = () => child.kill();
  process.once('exit', end);
  let said = '';
  child.stderr.on('data', (text: Buffer) => (said += text.toString().slice(0, 2000)));
  try {
    await new Promise<void>((done, fail) => {
      child.once('error', fail);
      child.once('close', (code) =>
        code === 0 ? done() : fail(new OperatorError(said.trim() || 'The backup was cut short.')),
      );
    });
  } finally {
    process.off('exit', end);
  }
}
