import { openDB, type DBSchema, type IDBPDatabase, type IDBPTransaction, type StoreNames } from 'idb';
import type { StoredEdit } from './editList';
import { closureIn } from './read';
import {
  NotKept,
  nothingReached,
  reached,
  type Along,
  type NumberedFact,
  type PictureSize,
  type Reach,
  type Snapshot,
  type Store,
  type StoredEntry,
  type StoredPicture,
} from './store';

interface StoredFact extends NumberedFact {
  readonly projectId: string;
  /** "" where it is about no closure. */
  readonly closureId: string;
}

interface Tables extends DBSchema {
  entry: {
    key: number;
    value: StoredEntry & { /** Order of entering. */ n?: number };
    indexes: { id: string };
  };
  fact: {
    key: [string, number];
    value: StoredFact;
    indexes: { closure: [string, string, number]; id: string };
  };
  reach: { key: string; value: Reach };
  snapshot: { key: string; value: Snapshot };
  edit: {
    key: string;
    value: StoredEdit & { /** Place in its scope. */ n: number };
    indexes: { scope: string };
  };
  picture: {
    key: [id: string, size: PictureSize];
    value: StoredPicture & {
      /** Its project, only where it is: those are listed without their bytes. */ unsent?: string;
    };
    indexes: { unsent: string; project: string };
  };
}

const databaseVersion = 3;

type Database = IDBPDatabase<Tables>;
type Change<Names extends StoreNames<Tables>[]> = IDBPTransaction<Tables, Names, 'readwrite'>;

/** This device's IndexedDB. Opened anew where the browser closed it. */
export class IndexedStore implements Store {
  private database: Promise<Database> | null = null;
  /** The same once it is open, so that a write begins in the moment it is asked for. */
  private opened: Database | null = null;

  /** @param onLost the browser threw everything away while it was open */
  constructor(
    private readonly onLost: () => void,
    private readonly name = 'cordel',
  ) {}

  /** Rejects with `NotKept` where this browser has none. */
  async check(): Promise<void> {
    await this.read((database) => database.count('reach'));
  }

  entries(): Promise<StoredEntry[]> {
    return this.read((database) => database.getAll('entry'));
  }

  add(entries: readonly StoredEntry[]): Promise<void> {
    return this.change(['entry'], async (change) => {
      const table = change.objectStore('entry');
      const there = await Promise.all(entries.map(({ id }) => table.index('id').getKey(id)));
      await Promise.all(
        entries.filter((_, index) => there[index] === undefined).map((entry) => table.add(entry)),
      );
    });
  }

  async addNew(entry: StoredEntry, picture?: ArrayBuffer): Promise<void> {
    if (picture) return this.addWithPicture(entry, picture);
    try {
      await this.change(
        ['entry'],
        async (change) => {
          const added = change.objectStore('entry').add(entry);
          // Else the browser asks the page, which is drawing, whether anything comes after it.
          change.commit();
          await added;
        },
        this.opened,
      );
    } catch (error) {
      // It is there: the browser closed the database when it was written, and before it said so.
      if (!(error instanceof NotKept) || nameOf(error.cause) !== 'ConstraintError') throw error;
    }
  }

  private async addWithPicture(entry: StoredEntry, bytes: ArrayBuffer): Promise<void> {
    const { id, projectId } = entry;
    const add = () =>
      this.change(['entry', 'picture'], async (change) => {
        await change.objectStore('picture').put({ id, size: 'own', projectId, bytes, unsent: projectId });
        if ((await change.objectStore('entry').index('id').getKey(id)) === undefined)
          await change.objectStore('entry').add(entry);
      });
    try {
      await add();
    } catch (error) {
      if (!(error instanceof NotKept) || error.why !== 'full') throw error;
      // Those that the server has can be fetched again.
      await this.change(['picture'], (change) => deleteSent(change.store.openCursor()));
      await add();
    }
  }

  refuse(reasons: ReadonlyMap<string, string | null>): Promise<void> {
    return this.change(['entry'], async (change) => {
      const table = change.objectStore('entry');
      for (const [id, refused] of reasons) {
        const entry = await table.index('id').get(id);
        if (entry) await table.put({ ...entry, refused });
      }
    });
  }

  drop(ids: readonly string[]): Promise<void> {
    return this.change(['entry'], async (change) => {
      const table = change.objectStore('entry');
      for (const id of ids) {
        const key = await table.index('id').getKey(id);
        if (key !== undefined) await table.delete(key);
      }
    });
  }

  accept(
    projectId: string,
    receipts: readonly { readonly id: string; readonly seq: number }[],
  ): Promise<number | null> {
    return this.change(['entry', 'fact', 'reach'], async (change) => {
      const entries = change.objectStore('entry');
      const facts = change.objectStore('fact');
      const reaches = change.objectStore('reach');
      const before = (await reaches.get(projectId)) ?? nothingReached(projectId);
      const waiting = await Promise.all(
        receipts.map(async ({ id, seq }) => ({ seq, entry: await entries.index('id').get(id) })),
      );
      // What was read up to there has other facts under these numbers.
      if (waiting.some(({ seq, entry }) => entry && seq <= before.cursor)) return null;
      await Promise.all(
        waiting.map(async ({ seq, entry }) => {
          // Another tab was told before.
          if (!entry) return;
          await facts.put({ projectId, seq, raw: entry.raw, closureId: closureIn(entry.raw) });
          await entries.delete(entry.n!);
        }),
      );
      const cursor = reached(
        before.cursor,
        receipts.map((one) => one.seq),
      );
      if (cursor !== before.cursor) await reaches.put({ ...before, cursor });
      return cursor;
    });
  }

  takePage(
    projectId: string,
    facts: readonly NumberedFact[],
    reach: Pick<Reach, 'cursor' | 'whole' | 'at' | 'numbering'>,
  ): Promise<void> {
    return this.change(['entry', 'fact', 'reach'], async (change) => {
      const entries = change.objectStore('entry');
      const own = new Map((await entries.getAll()).map((entry) => [entry.id, entry.n!]));
      const table = change.objectStore('fact');
      await Promise.all(
        facts.map(async ({ seq, raw }) => {
          await table.put({ projectId, seq, raw, closureId: closureIn(raw) });
          const n = own.get((raw as { id: string }).id);
          if (n !== undefined) await entries.delete(n);
        }),
      );
      const reaches = change.objectStore('reach');
      const before = (await reaches.get(projectId)) ?? nothingReached(projectId);
      // Another tab may have come further.
      await reaches.put({
        ...before,
        cursor: Math.max(before.cursor, reach.cursor),
        whole: before.whole || reach.whole,
        at: Math.max(before.at, reach.at),
        numbering: reach.numbering ?? before.numbering,
      });
    });
  }

  renumber(
    projectId: string,
    facts: readonly NumberedFact[],
    { cursor, at, numbering }: Pick<Reach, 'cursor' | 'at' | 'numbering'>,
  ): Promise<void> {
    return this.change(['entry', 'fact', 'reach', 'picture'], async (change) => {
      const entries = change.objectStore('entry');
      const table = change.objectStore('fact');
      const pictures = change.objectStore('picture');
      const there = new Set(facts.map(({ raw }) => (raw as { id: string }).id));
      const waiting = new Map((await entries.getAll()).map((entry) => [entry.id, entry.n!]));
      for (const { raw } of await table.getAll(ofProject(projectId))) {
        const { id } = raw as { id: string };
        if (there.has(id) || waiting.has(id)) continue;
        await entries.add({ id, projectId, raw, refused: null });
        // What it lost it lost with its picture.
        const picture = await pictures.get([id, 'own']);
        if (picture) await pictures.put({ ...picture, unsent: projectId });
      }
      await table.delete(ofProject(projectId));
      for (const { seq, raw } of facts) {
        const n = waiting.get((raw as { id: string }).id);
        if (n !== undefined) await entries.delete(n);
        await table.put({ projectId, seq, raw, closureId: closureIn(raw) });
      }
      const reaches = change.objectStore('reach');
      const before = (await reaches.get(projectId)) ?? nothingReached(projectId);
      await reaches.put({ ...before, cursor, at, numbering, whole: true });
    });
  }

  async reach(projectId: string): Promise<Reach> {
    return (await this.read((database) => database.get('reach', projectId))) ?? nothingReached(projectId);
  }

  reaches(): Promise<Reach[]> {
    return this.read((database) => database.getAll('reach'));
  }

  noteAlong(projectId: string, along: Along): Promise<void> {
    return this.change(['reach'], async (change) => {
      const before = await change.store.get(projectId);
      await change.store.put({ ...(before ?? nothingReached(projectId)), along });
    });
  }

  async sizeOf(projectId: string): Promise<Pick<Along, 'facts' | 'bytes'>> {
    const facts = await this.allFacts(projectId);
    return {
      facts: facts.length,
      bytes: facts.reduce<number>((sum, raw) => sum + JSON.stringify(raw).length, 0),
    };
  }

  forget(projectId: string): Promise<void> {
    return this.change(['fact', 'reach', 'picture'], async (change) => {
      await change.objectStore('fact').delete(ofProject(projectId));
      await change.objectStore('reach').delete(projectId);
      await deleteSent(change.objectStore('picture').index('project').openCursor(projectId));
    });
  }

  accepted(ids: readonly string[]): Promise<ReadonlySet<string>> {
    return this.read(async (database) => {
      const index = database.transaction('fact').store.index('id');
      const keys = await Promise.all(ids.map((id) => index.getKey(id)));
      return new Set(ids.filter((_, at) => keys[at] !== undefined));
    });
  }

  async edits(): Promise<StoredEdit[]> {
    return inOrder(await this.read((database) => database.getAll('edit')));
  }

  changeEdits(scope: string, work: (there: readonly StoredEdit[]) => readonly StoredEdit[]): Promise<void> {
    return this.change(['edit'], async (change) => {
      const table = change.objectStore('edit');
      const there = inOrder(await table.index('scope').getAll(scope));
      const next = work(there);
      const stays = new Set(next.map((edit) => edit.id));
      await Promise.all([
        ...there.filter((edit) => !stays.has(edit.id)).map((edit) => table.delete(edit.id)),
        ...next.map((edit, n) => table.put({ ...edit, n })),
      ]);
    });
  }

  factsOf(projectId: string, closureId: string, after: number): Promise<NumberedFact[]> {
    const range = IDBKeyRange.bound([projectId, closureId, after], [projectId, closureId, Infinity], true);
    return this.read((database) => database.getAllFromIndex('fact', 'closure', range));
  }

  async allFacts(projectId: string): Promise<readonly unknown[]> {
    const facts = await this.read((database) => database.getAll('fact', ofProject(projectId)));
    return facts.map((fact) => fact.raw);
  }

  unsentPictures(): Promise<readonly Pick<StoredPicture, 'id' | 'projectId'>[]> {
    return this.read(async (database) => {
      const found: Pick<StoredPicture, 'id' | 'projectId'>[] = [];
      let at = await database.transaction('picture').store.index('unsent').openKeyCursor();
      for (; at; at = await at.continue()) found.push({ id: at.primaryKey[0], projectId: at.key });
      return found;
    });
  }

  pictureSent(id: string): Promise<void> {
    return this.change(['picture'], async (change) => {
      const picture = await change.store.get([id, 'own']);
      if (!picture?.unsent) return;
      delete picture.unsent;
      await change.store.put(picture);
    });
  }

  async picture(id: string, size: PictureSize): Promise<ArrayBuffer | undefined> {
    return (await this.read((database) => database.get('picture', [id, size])))?.bytes;
  }

  keepPicture(picture: StoredPicture): Promise<void> {
    return this.change(['picture'], async (change) => void (await change.store.put(picture)));
  }

  dropPictures(ids: readonly string[]): Promise<void> {
    return this.change(['picture'], async (change) => {
      for (const id of ids) for (const size of sizes) await change.store.delete([id, size]);
    });
  }

  snapshot(key: string): Promise<Snapshot | undefined> {
    return this.read((database) => database.get('snapshot', key));
  }

  keepSnapshot(snapshot: Snapshot): Promise<void> {
    return this.change(
      ['snapshot'],
      async (change) => void (await change.objectStore('snapshot').put(snapshot)),
    );
  }

  dropSnapshot(key: string): Promise<void> {
    return this.change(['snapshot'], (change) => change.objectStore('snapshot').delete(key));
  }

  private async read<T>(work: (database: Database) => Promise<T>): Promise<T> {
    return this.tried(async () => work(await this.open()));
  }

  /**
   * All of `work` in one transaction, which is on the disk when this resolves.
   * @param at the open database, for what has to begin in this very moment
   */
  private change<const Names extends StoreNames<Tables>[], T>(
    tables: Names,
    work: (change: Change<Names>) => Promise<T>,
    at: Database | null = null,
  ): Promise<T> {
    return this.tried(async () => {
      const change = (at !== null && at === this.opened ? at : await this.open()).transaction(
        tables,
        'readwrite',
        {
          durability: 'strict',
        },
      );
      let result: T;
      try {
        result = await work(change);
      } catch (error) {
        // What made it fail is told, not that it was cut short.
        change.done.catch(() => undefined);
        try {
          change.abort();
        } catch {
          // It ended by itself.
        }
        throw error;
      }
      await change.done;
      return result;
    });
  }

  /** Once more where the browser had closed the database in between, as it does on a phone that was asleep. */
  private async tried<T>(work: () => Promise<T>): Promise<T> {
    try {
      return await work();
    } catch (error) {
      if (nameOf(error) !== 'InvalidStateError') throw notKept(error);
      this.closed();
    }
    try {
      return await work();
    } catch (error) {
      throw notKept(error);
    }
  }

  private open(): Promise<Database> {
    this.database ??= openDB<Tables>(this.name, databaseVersion, {
      upgrade(database, before, _, transaction) {
        if (before < 3) {
          const pictures = database.createObjectStore('picture', { keyPath: ['id', 'size'] });
          pictures.createIndex('unsent', 'unsent');
          pictures.createIndex('project', 'projectId');
        }
        if (before < 2) database.createObjectStore('edit', { keyPath: 'id' }).createIndex('scope', 'scope');
        if (before >= 1) return;
        database.createObjectStore('entry', { keyPath: 'n', autoIncrement: true }).createIndex('id', 'id', {
          unique: true,
        });
        database
          .createObjectStore('fact', { keyPath: ['projectId', 'seq'] })
          .createIndex('closure', ['projectId', 'closureId', 'seq']);
        transaction.objectStore('fact').createIndex('id', 'raw.id');
        database.createObjectStore('reach', { keyPath: 'projectId' });
        database.createObjectStore('snapshot', { keyPath: 'key' });
      },
      // A newer Cordel in another tab wants to change the tables: it must not wait for this one.
      blocking: (_, __, event) => (event.target as IDBDatabase).close(),
      terminated: () => {
        this.closed();
        this.onLost();
      },
    }).then(
      (database) => (this.opened = database),
      (error: unknown) => {
        this.closed();
        throw error;
      },
    );
    return this.database;
  }

  private closed(): void {
    this.database = null;
    this.opened = null;
  }
}

const inOrder = <T extends { readonly n: number }>(edits: readonly T[]) =>
  [...edits].sort((a, b) => a.n - b.n);

const sizes: readonly PictureSize[] = ['own', 'whole', 'small'];

/** Deletes the pictures that the server has, of those that a cursor goes over. */
async function deleteSent<C extends PictureCursor>(opened: Promise<C | null>): Promise<void> {
  for (let at: PictureCursor | null = await opened; at; at = await at.continue())
    if (!at.value.unsent) await at.delete();
}
interface PictureCursor {
  readonly value: { readonly unsent?: string };
  delete(): Promise<void>;
  continue(): Promise<PictureCursor | null>;
}

const ofProject = (projectId: string) => IDBKeyRange.bound([projectId, 0], [projectId, Infinity]);

function notKept(error: unknown): NotKept {
  const name = nameOf(error);
  const why =
    name === 'QuotaExceededError'
      ? 'full'
      : name === 'VersionError'
        ? 'newer'
        : // Where the browser keeps nothing: private windows of some, or a person's own setting.
          typeof indexedDB === 'undefined' || name === 'SecurityError' || name === 'InvalidStateError'
          ? 'none'
          : 'failed';
  return new NotKept(why, error);
}

function nameOf(error: unknown): string {
  return String((error as { name?: unknown } | null)?.name);
}
