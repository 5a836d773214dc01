import type { ProjectDefinition } from '@cordel/core';
import {
  lineOf,
  mergeDocuments,
  sameDocument,
  sameTarget,
  settingsOf,
  type DocumentEdit,
  type FieldConflict,
  type Side,
} from '@cordel/core/edits';

/** An edit of a document made on this device that the server has not confirmed, as it is kept. */
export type StoredEdit = DocumentEdit & {
  readonly id: string;
  /** The project, or "" for what all projects share. Edits of one scope are sent in order. */
  readonly scope: string;
  /** Counts what was done to it, so that an answer of the server is known to be of this one. */
  readonly rev: number;
  /** When it was made, ms since 1970. */
  readonly at: number;
  /** Why it is not sent: it waits for the person. null: it is on its way. */
  readonly refused: string | null;
  /** What was sent since `base`, in whatever state: the server may have it, where the answer was lost. */
  readonly sent: readonly NonNullable<DocumentEdit['mine']>[];
  /** What somebody else stored meanwhile, where the person has to decide; null: nothing. */
  readonly theirs: DocumentEdit['mine'];
  /** `theirs` came by a file of another device, and is on no server yet. */
  readonly handed?: boolean;
};

/** It is on its way, or will be when those before it are: nobody has to decide anything. */
export const onItsWay = ({ refused, theirs }: StoredEdit): boolean => refused === null && theirs === null;

/**
 * All edits of a scope, in order, after one more. Where it follows an edit of the same document at the end of the list, the two are one; where both together change
 * nothing, there is none.
 */
export function added(
  list: readonly StoredEdit[],
  edit: DocumentEdit,
  { id, scope, at, sent = [] }: Pick<StoredEdit, 'id' | 'scope' | 'at'> & Partial<Pick<StoredEdit, 'sent'>>,
): StoredEdit[] {
  const last = list.findLast((one) => sameTarget(one, edit));
  const mine = last ? onTopOf(last, edit) : edit.mine;
  // One that waits for the person is mended by being saved anew.
  if (last && (last === list.at(-1) || !onItsWay(last))) {
    const next = { ...last, mine, at, rev: last.rev + 1, refused: null } as StoredEdit;
    // What was sent may be stored: then this is what takes it back.
    const nothing = next.theirs === null && next.sent.length === 0 && sameDocument(next.base, next.mine);
    return list.flatMap((one) => (one === last ? (nothing ? [] : [next]) : [one]));
  }
  // What waits before it is what the server will have when this one comes.
  const base = last ? last.mine : edit.base;
  if (sameDocument(base, mine) && sent.length === 0) return [...list];
  return [
    ...list,
    { ...edit, base, mine, id, scope, at, rev: 0, refused: null, theirs: null, sent } as StoredEdit,
  ];
}

/** What an edit makes of one that waits before it: that may have become another while the form was open, by what others changed. */
function onTopOf(last: StoredEdit, edit: DocumentEdit): DocumentEdit['mine'] {
  if (edit.kind === 'project' || !edit.mine || !last.mine || sameDocument(edit.base, last.mine))
    return edit.mine;
  return mergeDocuments(edit.kind, { ...edit, theirs: last.mine } as never, () => 'mine').merged;
}

/**
 * The server has an edit. What was changed since it was sent stays, made from what the server has now.
 * @param stored as the server has it; null where it was deleted
 */
export function settled(
  list: readonly StoredEdit[],
  sent: StoredEdit,
  stored: DocumentEdit['mine'],
): StoredEdit[] {
  return list.flatMap((one): StoredEdit[] => {
    if (one.id === sent.id && one.rev === sent.rev) return [];
    return sameTarget(one, sent) ? [{ ...one, base: stored, sent: [] } as StoredEdit] : [one];
  });
}

/** An edit is being sent: whatever becomes of the answer, the server may have it from now on. */
export function sending(list: readonly StoredEdit[], edit: StoredEdit): StoredEdit[] {
  return list.map((one) =>
    one.id === edit.id && edit.mine && !one.sent.some((before) => sameDocument(before, edit.mine))
      ? ({ ...one, sent: [...one.sent, edit.mine] } as StoredEdit)
      : one,
  );
}

/** The server will not take an edit. */
export function refusedBy(list: readonly StoredEdit[], sent: StoredEdit, message: string): StoredEdit[] {
  return list.map((one) => (one.id === sent.id && one.rev === sent.rev ? { ...one, refused: message } : one));
}

/**
 * Somebody else stored something else first. What does not touch is brought together and goes on its way; else the person decides. All edits of the document are one
 * from here on.
 */
export function overtaken(
  list: readonly StoredEdit[],
  sent: StoredEdit,
  theirs: NonNullable<DocumentEdit['mine']>,
): StoredEdit[] {
  const chain = list.filter((one) => sameTarget(one, sent));
  const [first, last] = [chain[0], chain.at(-1)];
  if (!first || !last) return [...list];
  const others = list.filter((one) => one === last || !chain.includes(one));
  const { id, mine, at, rev } = last;
  const all = chain.flatMap((one) => one.sent);
  const one = { ...first, id, mine, at, rev: rev + 1, sent: all } as StoredEdit;
  const { merged, conflicts } = brought({ ...one, theirs } as StoredEdit);
  const next =
    conflicts.length > 0
      ? ({ ...one, theirs, refused: null } as StoredEdit)
      : sameDocument(merged, theirs)
        ? null
        : ({ ...one, base: theirs, mine: merged, theirs: null, refused: null, sent: [] } as StoredEdit);
  return others.flatMap((other) => (other === last ? (next ?? []) : [other]));
}

/**
 * Somebody hands over an edit of a document, made on another device, that no server has. It goes on its way from here too; with one that waits here it is brought
 * together, and what both changed is decided by the person.
 */
export function handedOver(
  list: readonly StoredEdit[],
  edit: DocumentEdit,
  about: Pick<StoredEdit, 'id' | 'scope' | 'at'>,
): StoredEdit[] {
  const last = list.findLast((one) => sameTarget(one, edit));
  if (!last) return added(list, edit, about);
  // What is deleted there and changed here stays; the other device sends its own, and then it is decided.
  const theirs = edit.mine;
  if (!theirs || last.kind === 'project' || sameDocument(last.mine, theirs)) return [...list];
  const { merged, conflicts } = brought({ ...last, theirs } as StoredEdit);
  const rev = last.rev + 1;
  const next = conflicts.length > 0 ? { ...last, theirs, handed: true, rev } : { ...last, mine: merged, rev };
  return list.map((one) => (one === last ? (next as StoredEdit) : one));
}

/** What there is to decide. */
export const conflictsOf = (edit: StoredEdit): readonly FieldConflict[] =>
  edit.theirs ? brought(edit).conflicts : [];

/** The person decided: what is chosen goes on its way. Nothing does, where that is what somebody else stored. */
export function decided(
  list: readonly StoredEdit[],
  id: string,
  choose: (conflict: FieldConflict) => Side,
): StoredEdit[] {
  return list.flatMap((one): StoredEdit[] => {
    if (one.id !== id || !one.theirs) return [one];
    const { merged } = brought(one, choose);
    const next = { ...one, mine: merged, theirs: null, rev: one.rev + 1 };
    if (one.handed) return [{ ...next, handed: false } as StoredEdit];
    if (sameDocument(merged, one.theirs)) return [];
    return [{ ...next, base: one.theirs, sent: [] } as StoredEdit];
  });
}

/** The person gives up what was changed of a document. */
export function droppedFrom(list: readonly StoredEdit[], id: string): StoredEdit[] {
  const dropped = list.find((one) => one.id === id);
  return list.filter(
    (one) => one.id !== id && !(dropped && dropped.kind !== undefined && sameTarget(one, dropped)),
  );
}

/** Refused ones are on their way again. */
export function putBack(list: readonly StoredEdit[], ids: ReadonlySet<string>): StoredEdit[] {
  return list.map((one) => (ids.has(one.id) ? { ...one, refused: null } : one));
}

function brought(edit: StoredEdit, choose?: (conflict: FieldConflict) => Side) {
  // A project that is made is nobody else's.
  if (edit.kind === 'project' || !edit.theirs) return { merged: edit.mine, conflicts: [] };
  return mergeDocuments(edit.kind, edit as never, choose);
}

const versionOf = (document: DocumentEdit['mine']) =>
  document && 'version' in document ? document.version : 0;

/**
 * A project that is made here is on the server already: somebody handed it there from another device. What differs there is edited from now on, and decided by the
 * person, since nothing is known of what both began from.
 */
export function parted(
  list: readonly StoredEdit[],
  sent: StoredEdit,
  theirs: ProjectDefinition,
  newId: () => string,
): StoredEdit[] {
  const made = list.find((one) => one.id === sent.id);
  const mine = made?.mine as ProjectDefinition | undefined;
  if (!made || !mine) return [...list];
  const edit = (change: Pick<StoredEdit, 'kind' | 'documentId' | 'mine' | 'theirs'>): StoredEdit[] => {
    const part = {
      ...made,
      ...change,
      base: null,
      id: newId(),
      rev: 0,
      refused: null,
      sent: [],
    } as StoredEdit;
    // An older copy of what is there is nobody’s change; nor is another order of the same sites.
    const asThere =
      part.theirs !== null &&
      (versionOf(part.mine) < versionOf(part.theirs) || conflictsOf(part).length === 0);
    return asThere ? [] : [part];
  };
  const { id } = mine.project;
  const parts = [
    ...edit({ kind: 'settings', documentId: id, mine: settingsOf(mine), theirs: settingsOf(theirs) }),
    ...edit({ kind: 'line', documentId: id, mine: lineOf(mine), theirs: lineOf(theirs) }),
    ...mine.closures.flatMap((closure) => {
      const other = theirs.closures.find((one) => one.id === closure.id) ?? null;
      return edit({ kind: 'closure', documentId: closure.id, mine: closure, theirs: other });
    }),
  ];
  return list.flatMap((one) => (one === made ? parts : [one]));
}
