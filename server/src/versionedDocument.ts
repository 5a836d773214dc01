import { and, eq } from 'drizzle-orm';
import type { Queries } from './database/database';
import { notFound, refuse } from './problem';
import { tombstone } from './schema';

/** Something that is edited in place, under a version that counts up with every edit. */
export interface Versioned {
  readonly id: string;
  readonly version: number;
}

/** How a kind of document is kept. All of it runs in the transaction of whoever asks. */
export interface DocumentKind<T extends Versioned> {
  /** "piece of gear", for the person. */
  readonly what: string;
  /** What of it is edited, where that is not all of it: "these settings". */
  readonly these?: string;
  /** Where it is noted that one was deleted; null for what goes only with its project. */
  readonly buried: 'closure' | 'model' | 'gear' | null;
  /** The stored one, locked; null where there is none. */
  load(db: Queries, id: string): Promise<T | null>;
  /** Stores one that is new, or over the one that was there. */
  store(db: Queries, document: T, before: T | null): Promise<void>;
  remove(db: Queries, id: string): Promise<void>;
}

/**
 * Stores an edit of the version that it was made from, as the next one. 409 with the newer copy where somebody was quicker; 409 where it was deleted
 * meanwhile; 404 where there is none and it is not a new one.
 * @returns as stored
 */
export async function putDocument<T extends Versioned>(
  db: Queries,
  kind: DocumentKind<T>,
  document: T,
  { mayBeNew = false }: { mayBeNew?: boolean } = {},
): Promise<T> {
  const before = await kind.load(db, document.id);
  if (!before) {
    if ((await graveOf(db, kind, document.id)) !== null)
      return refuse({
        title: 'Deleted meanwhile',
        status: 409,
        detail: `Somebody deleted this ${kind.what} while you changed it. Copy what you need; it can be added anew.`,
      });
    if (!mayBeNew || document.version !== 1) return notFound(kind.what);
    await kind.store(db, document, null);
    return document;
  }
  if (before.version !== document.version) return changedMeanwhile(kind.these ?? `this ${kind.what}`, before);
  const saved = { ...document, version: before.version + 1 };
  await kind.store(db, saved, before);
  return saved;
}

/**
 * 409 with the newer copy.
 * @param what "this closure", "these settings"
 */
export function changedMeanwhile(what: string, current: unknown): never {
  return refuse({
    title: 'Changed meanwhile',
    status: 409,
    detail: `Somebody changed ${what} while you did. Look at the newer one and decide.`,
    current,
  });
}

/** Deletes the version that the person saw. 404 where there is none, 409 where it was changed since. */
export async function deleteDocument<T extends Versioned>(
  db: Queries,
  kind: DocumentKind<T>,
  id: string,
  version: number,
): Promise<void> {
  const before = await kind.load(db, id);
  if (!before) return notFound(kind.what);
  if (before.version !== version) return changedMeanwhile(kind.these ?? `this ${kind.what}`, before);
  await kind.remove(db, id);
  if (kind.buried)
    await db
      .insert(tombstone)
      .values({ kind: kind.buried, id, version })
      .onConflictDoUpdate({ target: [tombstone.kind, tombstone.id], set: { version } });
}

/**
 * Takes a document from a file: as a new one, as the next version of the one that is there, or not at all where that says the same. What was deleted comes back,
 * since a person asked for it. A version never goes back.
 * @returns whether anything changed
 */
export async function importDocument<T extends Versioned>(
  db: Queries,
  kind: DocumentKind<T>,
  document: T,
): Promise<boolean> {
  const before = await kind.load(db, document.id);
  const grave = before ? null : await graveOf(db, kind, document.id);
  if (before && sameBut(before, document)) return false;
  const version = before ? before.version + 1 : grave !== null ? grave + 1 : 1;
  await kind.store(db, { ...document, version }, before);
  if (grave !== null && kind.buried)
    await db.delete(tombstone).where(and(eq(tombstone.kind, kind.buried), eq(tombstone.id, document.id)));
  return true;
}

/** The version in which one was deleted, or null. */
export async function graveOf<T extends Versioned>(
  db: Queries,
  { buried }: Pick<DocumentKind<T>, 'buried'>,
  id: string,
): Promise<number | null> {
  if (!buried) return null;
  const [row] = await db
    .select({ version: tombstone.version })
    .from(tombstone)
    .where(and(eq(tombstone.kind, buried), eq(tombstone.id, id)));
  return row?.version ?? null;
}

/** Whether two documents say the same in whatever version; both come out of the same schema, so their fields are in the same order. */
function sameBut<T extends Versioned>(a: T, b: T): boolean {
  return JSON.stringify({ ...a, version: 0 }) === JSON.stringify({ ...b, version: 0 });
}
