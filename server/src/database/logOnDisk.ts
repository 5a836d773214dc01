import { readdirSync, statSync } from 'node:fs';
import { open, readdir, type FileHandle } from 'node:fs/promises';
import { join } from 'node:path';

/**
 * Waits for the disk in PGlite's place. PGlite hands what it writes to the operating system, which survives the end of this process, and never waits
 * for the disk itself. This does, before a write is answered: a van's power cut after the answer must not cost the splice either.
 *
 * What was committed is in the write-ahead log. After a checkpoint the log before it is not read any more, so then all files of the database
 * are waited for; between a checkpoint and that moment, some hundred ms every gigabyte of log, a power cut may still harm the embedded database.
 */
export class LogOnDisk {
  private running: Promise<void> | null = null;
  private next: Promise<void> | null = null;
  /** Segments of the log before this one are on the disk. */
  private from = '';
  private listed = '';
  private checkpoint = 0;
  private readonly handles = new Map<string, FileHandle>();

  /**
   * @param database its folder
   * @param current asks the database for the segment that it writes to
   */
  constructor(
    private readonly database: string,
    private readonly current: () => Promise<string>,
  ) {}

  /** Everything that was committed before the call is on the disk when this resolves. Those who ask while the disk is at work share its next turn. */
  sync(): Promise<void> {
    if (!this.running) return this.begin();
    this.next ??= this.running
      .catch(() => undefined)
      .then(() => {
        this.next = null;
        return this.begin();
      });
    return this.next;
  }

  private begin(): Promise<void> {
    const turn = this.turn().finally(() => {
      if (this.running === turn) this.running = null;
    });
    this.running = turn;
    return turn;
  }

  private async turn(): Promise<void> {
    const checkpoint = statSync(join(this.database, 'global/pg_control')).mtimeMs;
    if (checkpoint !== this.checkpoint) {
      await syncFolder(this.database);
      this.checkpoint = checkpoint;
      return;
    }
    // The newest are not the ones written to: PostgreSQL keeps segments of older log for later under the names that come next.
    const names = readdirSync(join(this.database, 'pg_wal')).filter((name) => /^[0-9A-F]{24}$/.test(name));
    const listed = names.sort().join();
    const from = listed === this.listed ? this.from : await this.current();
    await Promise.all(
      names.filter((name) => name >= this.from).map(async (name) => (await this.handle(name)).datasync()),
    );
    this.from = from;
    this.listed = listed;
    for (const name of this.handles.keys()) if (!names.includes(name) || name < from) await this.drop(name);
  }

  private async handle(name: string): Promise<FileHandle> {
    let handle = this.handles.get(name);
    if (!handle) {
      handle = await open(join(this.database, 'pg_wal', name), 'r+');
      this.handles.set(name, handle);
    }
    return handle;
  }

  private async drop(name: string): Promise<void> {
    const handle = this.handles.get(name);
    this.handles.delete(name);
    await handle?.close();
  }

  async close(): Promise<void> {
    await (this.next ?? this.running)?.catch(() => undefined);
    for (const name of [...this.handles.keys()]) await this.drop(name);
  }
}

/** Files that are waited for together. */
const atOnce = 64;

/** Waits until all files in a folder, and their names, are on the disk. */
export async function syncFolder(folder: string): Promise<void> {
  const entries = await readdir(folder, { withFileTypes: true });
  const files = entries.filter((entry) => entry.isFile());
  for (let start = 0; start < files.length; start += atOnce)
    await Promise.all(
      files.slice(start, start + atOnce).map((file) => syncPath(join(folder, file.name), 'r+')),
    );
  for (const entry of entries) if (entry.isDirectory()) await syncFolder(join(folder, entry.name));
  await syncPath(folder, 'r');
}

async function syncPath(path: string, flags: string): Promise<void> {
  let handle: FileHandle;
  try {
    handle = await open(path, flags);
  } catch (error) {
    // Removed by the database in the meantime.
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return;
    throw error;
  }
  try {
    await handle.sync();
  } finally {
    await handle.close();
  }
}
