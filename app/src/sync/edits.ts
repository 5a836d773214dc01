import {
  readEdit,
  sameDocument,
  sameTarget,
  type DocumentEdit,
  type FieldConflict,
  type Side,
} from '@cordel/core/edits';
import { v7 } from 'uuid';
import {
  added,
  decided,
  droppedFrom,
  handedOver,
  onItsWay,
  overtaken,
  parted,
  putBack,
  refusedBy,
  sending,
  settled,
  type StoredEdit,
} from './editList';
import { Listeners } from './listeners';
import type { Store } from './store';
import type { Surroundings } from './surroundings';

const unreadable =
  'This version of Cordel cannot read this change, so it was not sent. Export it before it is dropped.';
const none: readonly StoredEdit[] = [];

/**
 * Edits of documents that were made on this device and are not confirmed: on their way to the server, refused by it, or overtaken by somebody else, so that the
 * person decides. The disk, which other tabs work on too, alone is true; this is what the tab knows of it.
 */
export class Edits {
  private store!: Store;
  private list: readonly StoredEdit[] = none;
  private readonly scopes = new Map<string, readonly StoredEdit[]>();
  private readonly listeners = new Listeners();
  readonly subscribe = this.listeners.subscribe;
  /** What this device kept is known. */
  readonly ready: Promise<void>;
  private read = false;

  constructor(private readonly around: Surroundings) {
    this.ready = this.begin();
  }

  private async begin(): Promise<void> {
    ({ store: this.store } = await this.around.disk);
    // Where the disk cannot be read, whoever saves something is told.
    await this.refresh().catch(() => undefined);
    this.read = true;
    this.listeners.tell();
  }

  /** Until then nobody knows what is shown of a document. */
  readonly known = (): boolean => this.read;

  /** Of every scope, those too that this Cordel cannot read. */
  readonly all = (): readonly StoredEdit[] => this.list;

  /** Those of a project, or with "" of what all projects share, that can be read: in order, and the same list as long as nothing changes. */
  readonly of = (scope: string): readonly StoredEdit[] => this.scopes.get(scope) ?? none;

  /** Whether the server cannot know what a record is about: it waits until the project, or its closure, is there. */
  holds(projectId: string, closureId: string): boolean {
    return this.of(projectId).some(
      (edit) =>
        edit.kind === 'project' ||
        (edit.kind === 'closure' &&
          edit.base === null &&
          edit.mine !== null &&
          edit.documentId === closureId),
    );
  }

  /** Whether a project was made here and is nowhere else yet. */
  readonly unborn = (projectId: string): boolean =>
    this.of(projectId).some((edit) => edit.kind === 'project');

  /**
   * Keeps an edit on the disk of this device, to be sent. Rejects with `NotKept` where it cannot, and nothing is changed.
   * @param tried it was sent, and it is not known what became of it
   */
  async keep(scope: string, edit: DocumentEdit, tried: boolean): Promise<void> {
    await this.ready;
    const sent = tried && edit.mine ? [edit.mine] : [];
    await this.change(scope, (there) => added(there, edit, { id: v7(), scope, at: this.around.now(), sent }));
  }

  /** Takes edits that somebody hands over from another device, in order: see `handedOver`. Rejects with `NotKept`, and nothing is changed. */
  async take(scope: string, edits: readonly DocumentEdit[]): Promise<void> {
    await this.ready;
    const at = this.around.now();
    await this.change(scope, (there) =>
      edits.reduce<readonly StoredEdit[]>(
        (list, edit) => handedOver(list, edit, { id: v7(), scope, at }),
        there,
      ),
    );
  }

  /** The person decided about what was overtaken. */
  decide(id: string, choose: (conflict: FieldConflict) => Side): Promise<void> {
    return this.changeOf(id, (there) => decided(there, id, choose));
  }

  /** The person gives up what was changed of a document. What was recorded in a project that is given up cannot be sent any more. */
  drop(id: string): Promise<void> {
    return this.changeOf(id, (there) => droppedFrom(there, id));
  }

  /** Refused ones are on their way again. */
  async putBack(ids: readonly string[]): Promise<void> {
    const chosen = new Set(ids);
    for (const scope of new Set(this.list.map((edit) => edit.scope)))
      await this.change(scope, (there) => putBack(there, chosen));
  }

  /** Scopes with something on its way. */
  waitingScopes(): readonly string[] {
    return [...this.scopes].filter(([, list]) => list.some(onItsWay)).map(([scope]) => scope);
  }

  /**
   * Sends what is on its way in a scope, in order, and once more as long as one gets further: one may need what stands behind it. Rejects where the server cannot be
   * reached, or not store.
   */
  async send(scope: string): Promise<void> {
    const refusals = new Map<string, { edit: StoredEdit; message: string }>();
    for (let moved = true; moved;) {
      moved = false;
      refusals.clear();
      for (const edit of this.sendable(scope)) {
        if (!(await this.noteSending(scope, edit))) {
          moved = true;
          continue;
        }
        const answer = await this.around.sendEdit(scope, edit);
        if ('refused' in answer) {
          refusals.set(edit.id, { edit, message: answer.refused });
          continue;
        }
        moved = true;
        // Its answer was lost the last time, or somebody else made the same of it.
        if ('theirs' in answer && edit.kind !== 'project' && sameDocument(edit.mine, answer.theirs))
          await this.settle(scope, edit, answer.theirs);
        else if ('stored' in answer) await this.settle(scope, edit, answer.stored);
        else await this.overtake(scope, edit, answer.theirs);
      }
    }
    // What stands behind something that waits for the person may be refused for want of it.
    const first = this.of(scope).findIndex((edit) => !onItsWay(edit));
    const final = [...refusals.values()].filter(
      ({ edit }) => first < 0 || this.of(scope).findIndex((one) => one.id === edit.id) < first,
    );
    if (final.length > 0)
      await this.change(scope, (there) =>
        final.reduce((list, { edit, message }) => refusedBy(list, edit, message), there as StoredEdit[]),
      );
  }

  /** false where the edit became another meanwhile, or was taken back: then that is not to be sent. */
  private async noteSending(scope: string, edit: StoredEdit): Promise<boolean> {
    let still = false;
    await this.store.changeEdits(scope, (there) => {
      still = there.some((one) => one.id === edit.id && one.rev === edit.rev);
      return still ? sending(there, edit) : there;
    });
    await this.refresh();
    return still;
  }

  /** The first of each document: the others follow when it is there. */
  private sendable(scope: string): readonly StoredEdit[] {
    const list = this.of(scope);
    return list.filter((edit) => onItsWay(edit) && list.find((one) => sameTarget(one, edit)) === edit);
  }

  private async settle(scope: string, edit: StoredEdit, stored: DocumentEdit['mine']): Promise<void> {
    this.around.onStored(scope, edit, stored);
    await this.change(scope, (there) => settled(there, edit, stored));
  }

  private async overtake(
    scope: string,
    edit: StoredEdit,
    theirs: NonNullable<DocumentEdit['mine']>,
  ): Promise<void> {
    // What it was made from is out of date.
    this.around.onStored(scope, edit, theirs);
    await this.change(scope, (there) =>
      edit.kind === 'project' ? parted(there, edit, theirs as never, v7) : overtaken(there, edit, theirs),
    );
  }

  /** Everything that is known here is put on the disk once more. */
  async keepAgain(): Promise<void> {
    for (const [scope, list] of this.scopes)
      await this.store.changeEdits(scope, (there) => [
        ...list.filter((edit) => !there.some((one) => one.id === edit.id)),
        ...there,
      ]);
  }

  private async changeOf(id: string, work: (there: readonly StoredEdit[]) => readonly StoredEdit[]) {
    const edit = this.list.find((one) => one.id === id);
    if (edit) await this.change(edit.scope, work);
  }

  private async change(
    scope: string,
    work: (there: readonly StoredEdit[]) => readonly StoredEdit[],
  ): Promise<void> {
    await this.store.changeEdits(scope, work);
    await this.refresh();
    this.around.tell({ edits: true });
  }

  /** Takes the edits as they are on the disk now, whoever changed them. */
  async refresh(): Promise<void> {
    const before = new Map(this.list.map((edit) => [edit.id, edit]));
    const next = (await this.store.edits()).map((stored) => {
      const known = before.get(stored.id);
      return known && sameState(known, stored) ? known : readStored(stored);
    });
    if (next.length === this.list.length && next.every((edit, index) => edit === this.list[index])) return;
    this.list = next;
    for (const scope of new Set([...this.scopes.keys(), ...next.map((edit) => edit.scope)])) {
      const list = next.filter((edit) => edit.scope === scope && edit.mine !== undefined);
      const same =
        this.of(scope).length === list.length && list.every((one, index) => one === this.of(scope)[index]);
      if (!same) this.scopes.set(scope, list);
    }
    this.around.together(() => this.listeners.tell());
  }
}

/** Nothing was done to it: then what is shown of it stays the same object. */
const sameState = (known: StoredEdit, stored: StoredEdit) =>
  known.rev === stored.rev &&
  known.sent.length === stored.sent.length &&
  (known.refused === stored.refused || known.mine === undefined) &&
  // Another base is of another version.
  versionOf(known.base) === versionOf(stored.base) &&
  (known.theirs === null) === (stored.theirs === null);

const versionOf = (document: DocumentEdit['mine']) =>
  document && 'version' in document ? document.version : document === null ? -1 : 0;

function readStored(stored: StoredEdit): StoredEdit {
  const read = readEdit(stored);
  // Neither sent nor lost: it waits for the person.
  if (!read) return { ...stored, mine: undefined, refused: unreadable } as unknown as StoredEdit;
  return { ...stored, ...read } as StoredEdit;
}
