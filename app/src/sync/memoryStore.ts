import type { StoredEdit } from './editList';
import { closureIn } from './read';
import type { NotKept } from './store';
import {
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

/**
 * In place of the disk where the browser has none: what the server has can be looked at, and nothing can be recorded. For tests with a disk of
 * their own too.
 */
export class MemoryStore implements Store {
  private readonly kept = new Map<string, StoredEntry>();
  private readonly facts = new Map<string, Map<number, unknown>>();
  private readonly reached = new Map<string, Reach>();
  private readonly snapshots = new Map<string, Snapshot>();
  private readonly pictures = new Map<string, StoredPicture>();
  private readonly unsent = new Set<string>();
  private readonly edited = new Map<string, readonly StoredEdit[]>();

  /** @param refuses why it does not take what is recorded here; null: it does */
  constructor(public refuses: NotKept | null = null) {}

  entries = () => Promise.resolve([...this.kept.values()]);

  async add(entries: readonly StoredEntry[]): Promise<void> {
    if (this.refuses) throw this.refuses;
    for (const entry of entries) if (!this.kept.has(entry.id)) this.kept.set(entry.id, entry);
  }

  async addNew(entry: StoredEntry, picture?: ArrayBuffer): Promise<void> {
    await this.add([entry]);
    if (picture) {
      const { id, projectId } = entry;
      await this.keepPicture({ id, projectId, size: 'own', bytes: picture });
      this.unsent.add(id);
    }
  }

  async refuse(reasons: ReadonlyMap<string, string | null>): Promise<void> {
    for (const [id, refused] of reasons) {
      const entry = this.kept.get(id);
      if (entry) this.kept.set(id, { ...entry, refused });
    }
  }

  async drop(ids: readonly string[]): Promise<void> {
    ids.forEach((id) => this.kept.delete(id));
  }

  async accept(
    projectId: string,
    receipts: readonly { readonly id: string; readonly seq: number }[],
  ): Promise<number | null> {
    const before = await this.reach(projectId);
    if (receipts.some(({ id, seq }) => this.kept.has(id) && seq <= before.cursor)) return null;
    for (const { id, seq } of receipts) {
      const entry = this.kept.get(id);
      if (entry) this.put(projectId, seq, entry.raw);
    }
    const cursor = reached(
      before.cursor,
      receipts.map((one) => one.seq),
    );
    this.reached.set(projectId, { ...before, cursor });
    return cursor;
  }

  async takePage(
    projectId: string,
    facts: readonly NumberedFact[],
    reach: Pick<Reach, 'cursor' | 'whole' | 'at' | 'numbering'>,
  ): Promise<void> {
    const before = await this.reach(projectId);
    facts.forEach(({ seq, raw }) => this.put(projectId, seq, raw));
    this.reached.set(projectId, {
      ...before,
      cursor: Math.max(before.cursor, reach.cursor),
      whole: before.whole || reach.whole,
      at: Math.max(before.at, reach.at),
      numbering: reach.numbering ?? before.numbering,
    });
  }

  async renumber(
    projectId: string,
    facts: readonly NumberedFact[],
    { cursor, at, numbering }: Pick<Reach, 'cursor' | 'at' | 'numbering'>,
  ): Promise<void> {
    const there = new Set(facts.map(({ raw }) => (raw as { id: string }).id));
    for (const raw of this.facts.get(projectId)?.values() ?? []) {
      const { id } = raw as { id: string };
      if (there.has(id)) continue;
      this.kept.set(id, { id, projectId, raw, refused: null });
      if (this.pictures.has(`${id} own`)) this.unsent.add(id);
    }
    this.facts.delete(projectId);
    facts.forEach(({ seq, raw }) => this.put(projectId, seq, raw));
    this.reached.set(projectId, { ...(await this.reach(projectId)), cursor, at, numbering, whole: true });
  }

  reach = (projectId: string) => Promise.resolve(this.reached.get(projectId) ?? nothingReached(projectId));
  reaches = () => Promise.resolve([...this.reached.values()]);

  async noteAlong(projectId: string, along: Along): Promise<void> {
    this.reached.set(projectId, { ...(await this.reach(projectId)), along });
  }

  async sizeOf(projectId: string): Promise<Pick<Along, 'facts' | 'bytes'>> {
    const facts = [...(this.facts.get(projectId)?.values() ?? [])];
    return { facts: facts.length, bytes: JSON.stringify(facts).length };
  }

  async forget(projectId: string): Promise<void> {
    this.facts.delete(projectId);
    this.reached.delete(projectId);
    for (const [key, one] of this.pictures)
      if (one.projectId === projectId && !(one.size === 'own' && this.unsent.has(one.id)))
        this.pictures.delete(key);
  }

  async accepted(ids: readonly string[]): Promise<ReadonlySet<string>> {
    const there = [...this.facts.values()].flatMap((facts) => [...facts.values()] as { id: string }[]);
    return new Set(there.map((raw) => raw.id).filter((id) => ids.includes(id)));
  }

  async factsOf(projectId: string, closureId: string, after: number): Promise<NumberedFact[]> {
    return [...(this.facts.get(projectId) ?? [])]
      .filter(([seq, raw]) => seq > after && closureIn(raw) === closureId)
      .sort(([a], [b]) => a - b)
      .map(([seq, raw]) => ({ seq, raw }));
  }

  async allFacts(projectId: string): Promise<readonly unknown[]> {
    return [...(this.facts.get(projectId) ?? [])].sort(([a], [b]) => a - b).map(([, raw]) => raw);
  }

  edits = () => Promise.resolve([...this.edited.values()].flat());

  async changeEdits(
    scope: string,
    work: (there: readonly StoredEdit[]) => readonly StoredEdit[],
  ): Promise<void> {
    const there = this.edited.get(scope) ?? [];
    const next = work(there);
    if (this.refuses && next.length > there.length) throw this.refuses;
    this.edited.set(scope, next);
  }

  async unsentPictures(): Promise<readonly Pick<StoredPicture, 'id' | 'projectId'>[]> {
    return [...this.pictures.values()].filter(({ id, size }) => size === 'own' && this.unsent.has(id));
  }

  async pictureSent(id: string): Promise<void> {
    this.unsent.delete(id);
  }

  picture = (id: string, size: PictureSize) => Promise.resolve(this.pictures.get(`${id} ${size}`)?.bytes);

  async keepPicture(picture: StoredPicture): Promise<void> {
    this.pictures.set(`${picture.id} ${picture.size}`, picture);
  }

  async dropPictures(ids: readonly string[]): Promise<void> {
    for (const [key, { id }] of this.pictures) if (ids.includes(id)) this.pictures.delete(key);
  }

  snapshot = (key: string) => Promise.resolve(this.snapshots.get(key));

  async keepSnapshot(snapshot: Snapshot): Promise<void> {
    this.snapshots.set(snapshot.key, snapshot);
  }

  async dropSnapshot(key: string): Promise<void> {
    this.snapshots.delete(key);
  }

  private put(projectId: string, seq: number, raw: unknown): void {
    let facts = this.facts.get(projectId);
    if (!facts) this.facts.set(projectId, (facts = new Map()));
    facts.set(seq, raw);
    this.kept.delete((raw as { id: string }).id);
  }
}
