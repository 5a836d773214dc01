import type { Fact } from '@cordel/core';
import { Listeners } from './listeners';
import type { Pictures } from './pictures';
import { closureIn, readEntry, type Entry } from './read';
import { NotKept, type AnyFact, type Store } from './store';
import type { Receipt, Surroundings } from './surroundings';
import type { Views } from './views';

export type Trouble = NotKept['why'] | 'cleared';

/**
 * What was recorded on this device and is not confirmed: on its way to the server, or refused. The disk, which other tabs work on too, alone is true; this is what
 * the tab knows of it.
 */
export class Log {
  private store!: Store;
  private list: readonly Entry[] = [];
  private read = false;
  /** Counts changes of the list, for those who read the disk meanwhile. */
  private writes = 0;
  private why: Trouble | null = null;
  private readonly listeners = new Listeners();
  readonly subscribe = this.listeners.subscribe;
  /** What this device kept is known. */
  readonly ready: Promise<void>;

  constructor(
    private readonly around: Surroundings,
    private readonly views: Views,
    private readonly pictures: Pictures,
  ) {
    this.ready = this.begin();
  }

  private async begin(): Promise<void> {
    const { store, trouble } = await this.around.disk;
    this.store = store;
    this.why = trouble;
    try {
      const older = this.around.older.entries();
      if (older.length > 0) {
        await store.add(older);
        this.around.older.moved();
      }
      await this.refresh();
    } catch (error) {
      // What an older version left stays where it is; whoever records something now is told.
      this.why = whyOf(error);
    }
    this.read = true;
    this.changed(this.list);
  }

  /** Until then nobody knows whether anything waits here. */
  readonly known = (): boolean => this.read;

  /** In order of entering. */
  readonly entries = (): readonly Entry[] => this.list;

  /** Those that are on their way; the others were refused. */
  waiting(): readonly Entry[] {
    return this.list.filter((entry) => entry.refused === null);
  }

  /** Facts on their way that are about a closure. */
  waitingAt(closureId: string): readonly unknown[] {
    return this.waiting()
      .filter((entry) => closureIn(entry.raw) === closureId)
      .map((entry) => entry.fact);
  }

  /** What is wrong with keeping: why the last record could not be kept, or that the browser threw away what was; null where nothing is. */
  readonly notKept = (): Trouble | null => this.why;

  /** See `Engine.append`. */
  async append(
    projectId: string,
    fact: Fact,
    shown: (facts: readonly Fact[]) => void,
    takenBack?: () => void,
    picture?: ArrayBuffer,
  ): Promise<boolean> {
    const entry = { id: fact.id, projectId, raw: fact, refused: null };
    const view = () => this.views.get(closureIn(fact));
    const show = () => {
      view()?.add([fact]);
      shown(view()?.known?.facts ?? [fact]);
    };
    // The disk gets its work first, so that it writes while the screen is drawn.
    const early = takenBack !== undefined && this.read;
    const writing = this.read
      ? this.store.addNew(entry, picture)
      : this.ready.then(() => this.store.addNew(entry, picture));
    if (early) this.around.together(show);
    try {
      await writing;
    } catch (error) {
      this.around.together(() => {
        this.why = whyOf(error);
        if (early) {
          view()?.leaveOut(new Set([fact.id]));
          takenBack();
        }
        this.changed(this.list);
      });
      return false;
    }
    this.around.together(() => {
      this.why = null;
      this.writes += 1;
      // Who read the disk meanwhile has found it there.
      if (!this.list.some(({ id }) => id === fact.id)) this.changed([...this.list, { ...entry, fact }]);
      else this.changed(this.list);
      // A closure that was read from the disk meanwhile knew nothing of it.
      if (early) view()?.add([fact]);
      else show();
    });
    this.around.tell({ entries: true });
    return true;
  }

  /**
   * Takes records that somebody hands over from another device, to be sent from here too; those that are here already are left out. Resolves with how many were
   * new. Rejects with `NotKept`, and nothing is taken.
   */
  async take(projectId: string, facts: readonly AnyFact[]): Promise<number> {
    await this.ready;
    const known = new Set([
      ...(await this.store.accepted(facts.map((fact) => fact.id))),
      ...this.list.map((entry) => entry.id),
    ]);
    const fresh = facts.filter((fact) => !known.has(fact.id));
    await this.store.add(fresh.map((fact) => ({ id: fact.id, projectId, raw: fact, refused: null })));
    await this.refresh();
    this.around.tell({ entries: true });
    return fresh.length;
  }

  /** The person gives these up. What is on its way cannot be given up: nobody knows whether the server has it. */
  async drop(ids: readonly string[]): Promise<void> {
    const chosen = new Set(ids);
    const entries = this.list.filter((entry) => chosen.has(entry.id) && entry.refused !== null);
    const dropped = entries.map((entry) => entry.id);
    await this.store.drop(dropped);
    await this.pictures.drop(dropped);
    await this.refresh();
    this.around.tell({ entries: true });
  }

  /** Refused ones are on their way again. */
  async putBack(ids: readonly string[]): Promise<void> {
    const chosen = new Set(ids);
    const entries = this.list.filter((entry) => chosen.has(entry.id) && entry.fact !== null);
    await this.store.refuse(new Map(entries.map((entry) => [entry.id, null])));
    await this.refresh();
    this.around.tell({ entries: true });
  }

  /** Takes the entries as they are on the disk now, whoever changed them, and has the closures that are looked at follow. */
  async refresh(): Promise<void> {
    const counted = (list: readonly Entry[]) =>
      new Map(list.filter((entry) => entry.refused === null).map((entry) => [entry.id, entry] as const));
    let next: readonly Entry[];
    let is: ReadonlyMap<string, Entry>;
    let gone: readonly Entry[];
    let accepted: ReadonlySet<string>;
    let writes;
    do {
      ({ writes } = this);
      const before = new Map(this.list.map((entry) => [entry.id, entry]));
      next = (await this.store.entries()).map((stored) => {
        const entry = readEntry(stored);
        const known = before.get(entry.id);
        return known?.refused === entry.refused ? known : entry;
      });
      is = counted(next);
      gone = [...counted(this.list).values()].filter((entry) => !is.has(entry.id));
      accepted = await this.store.accepted(gone.map((entry) => entry.id));
    } while (writes !== this.writes);
    if (next.length === this.list.length && next.every((entry, index) => entry === this.list[index])) return;
    this.writes += 1;
    // Facts of the project now, perhaps.
    for (const { projectId } of gone) this.views.noteChange(projectId);
    this.changed(next);
    // Those that the server has now count as before; the others were refused or given up.
    this.views.leaveOut(gone.filter((entry) => !accepted.has(entry.id)));
    for (const { projectId, fact } of is.values()) this.views.add(projectId, [fact]);
  }

  /**
   * The server answered. Resolves with the cursor of the project after it; null where none was accepted; "renumbered", and nothing is changed, where its numbers are
   * of another numbering than what was read here.
   */
  async settle(projectId: string, { accepted, refused }: Receipt): Promise<number | null | 'renumbered'> {
    const cursor = accepted.length > 0 ? await this.accept(projectId, accepted) : null;
    if (cursor === 'renumbered') return cursor;
    const reasons = new Map(refused.map(({ id, message }) => [id, message]));
    if (reasons.size > 0) await this.store.refuse(reasons);
    const taken = new Set(accepted.map((one) => one.id));
    const out = this.list.filter((entry) => reasons.has(entry.id));
    this.around.together(() => {
      this.writes += 1;
      this.views.noteChange(projectId);
      this.changed(
        this.list
          .filter((entry) => !taken.has(entry.id))
          .map((entry) => (reasons.has(entry.id) ? { ...entry, refused: reasons.get(entry.id)! } : entry)),
      );
      this.views.leaveOut(out);
    });
    this.around.tell({ entries: true });
    // A tab that never heard of them as entries finds them among the facts.
    if (accepted.length > 0) this.around.tell({ project: projectId });
    return cursor;
  }

  private async accept(
    projectId: string,
    accepted: Receipt['accepted'],
  ): Promise<number | null | 'renumbered'> {
    try {
      return (await this.store.accept(projectId, accepted)) ?? 'renumbered';
    } catch (error) {
      if (!(error instanceof NotKept)) throw error;
      // No room to keep them as facts. The server has them, so they come back with what is read from it.
      await this.store.drop(accepted.map((one) => one.id));
      return null;
    }
  }

  /** These came from the server: own ones among them are on their way no longer. */
  confirmed(ids: ReadonlySet<string>): void {
    if (!this.list.some((entry) => ids.has(entry.id))) return;
    this.writes += 1;
    this.changed(this.list.filter((entry) => !ids.has(entry.id)));
  }

  /** Everything that is known here is put on the disk once more. */
  async keepAgain(): Promise<void> {
    this.why = 'cleared';
    this.changed(this.list);
    await this.store.add(
      this.list.map(({ id, projectId, raw, refused }) => ({ id, projectId, raw, refused })),
    );
  }

  private changed(list: readonly Entry[]): void {
    this.list = list;
    this.listeners.tell();
  }
}

const whyOf = (error: unknown): NotKept['why'] => (error instanceof NotKept ? error.why : 'failed');
