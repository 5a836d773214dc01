import type { Fact, UnknownFact } from '@cordel/core';
import type { StoredEdit } from './editList';

export type AnyFact = Fact | UnknownFact;

/** A record made on this device that the server has not confirmed, as it is kept. */
export interface StoredEntry {
  readonly id: string;
  /** "" where it cannot be read. */
  readonly projectId: string;
  /** The record as it was written, by whichever version of Cordel. */
  readonly raw: unknown;
  /** Why it does not count and is not sent: it waits for the person. null: it is on its way. */
  readonly refused: string | null;
}

/** How far this device has read the server's list of a project's facts. */
export interface Reach {
  readonly projectId: string;
  /** Everything up to this number of the server's is here. */
  readonly cursor: number;
  /** The end of the list was reached once, so that what is here is a whole state of the project, if an old one. */
  readonly whole: boolean;
  /** When the end was reached last, ms since 1970. */
  readonly at: number;
  /** The server's numbering that `cursor` is of; undefined where it was not said. */
  readonly numbering?: string | undefined;
  /** Everything that belongs to the project was brought here, its documents too; null: perhaps not. */
  readonly along: Along | null;
}

/** What was brought here, and how long that took. */
export interface Along {
  /** ms since 1970. */
  readonly at: number;
  readonly facts: number;
  /** As text. */
  readonly bytes: number;
  readonly ms: number;
}

/** The server's number of a fact, and the fact as it came. */
export interface NumberedFact {
  readonly seq: number;
  readonly raw: unknown;
}

/** A document of the server's as it was last seen here: a project's definition, the gear. */
export interface Snapshot {
  /** Which one: the key of the query that asks for it. */
  readonly key: string;
  readonly data: unknown;
  /** `snapshotShape` of the version that kept it. */
  readonly shape: number;
  /** When the server gave it out, or took it, ms since 1970. */
  readonly at: number;
}

/** As a picture was taken here; or as the server gave it out, in one of its sizes. */
export type PictureSize = 'own' | 'whole' | 'small';

/** The picture of a photo, by the id of the fact that says that it was taken. */
export interface StoredPicture {
  readonly id: string;
  readonly size: PictureSize;
  readonly projectId: string;
  readonly bytes: ArrayBuffer;
}

/** The disk refused: nothing of what was asked is kept. `why` is what the person can do something about. */
export class NotKept extends Error {
  constructor(
    readonly why: 'full' | 'none' | 'newer' | 'failed',
    cause?: unknown,
  ) {
    super(`Not kept: ${why}`, { cause });
  }
}

/**
 * The disk of this device. What a promise resolved for is kept, also if the browser dies right after; each call is all or nothing. Several tabs work on the same
 * one. Rejects with `NotKept`.
 */
export interface Store {
  /** In order of entering. */
  entries(): Promise<StoredEntry[]>;
  /** Those whose id is there already stay as they are. */
  add(entries: readonly StoredEntry[]): Promise<void>;
  /**
   * One that was just made, by the shortest way.
   * @param picture that it tells of: both are kept, or neither
   */
  addNew(entry: StoredEntry, picture?: ArrayBuffer): Promise<void>;
  /** Refuses entries, or puts them on their way again with null. */
  refuse(reasons: ReadonlyMap<string, string | null>): Promise<void>;
  drop(ids: readonly string[]): Promise<void>;
  /**
   * The server has these entries: they are facts of the project now. Where they follow what was read already, they need not be fetched. Resolves with
   * the cursor after it; null, and nothing is changed, where the numbers are of another numbering than what was read.
   */
  accept(
    projectId: string,
    receipts: readonly { readonly id: string; readonly seq: number }[],
  ): Promise<number | null>;
  /** A page of the server's list. An entry among them was accepted, and the answer that told so was lost. */
  takePage(
    projectId: string,
    facts: readonly NumberedFact[],
    reach: Pick<Reach, 'cursor' | 'whole' | 'at' | 'numbering'>,
  ): Promise<void>;
  /**
   * The server's whole list in another numbering, in place of what was read in the one before. Facts that were read, and are not in it, are entries again: the
   * server lost them.
   */
  renumber(
    projectId: string,
    facts: readonly NumberedFact[],
    reach: Pick<Reach, 'cursor' | 'at' | 'numbering'>,
  ): Promise<void>;
  reach(projectId: string): Promise<Reach>;
  reaches(): Promise<Reach[]>;
  noteAlong(projectId: string, along: Along): Promise<void>;
  /** How much of a project's facts is here. */
  sizeOf(projectId: string): Promise<Pick<Along, 'facts' | 'bytes'>>;
  /** Takes everything that was read of a project away, and its pictures. What was recorded here and is not confirmed stays. */
  forget(projectId: string): Promise<void>;
  /** Which of these ids are those of facts that the server has, as far as is known here. */
  accepted(ids: readonly string[]): Promise<ReadonlySet<string>>;
  /** Edits of documents, of every scope; within one in order. As they were written, by whichever version of Cordel. */
  edits(): Promise<StoredEdit[]>;
  /** Puts the edits of a scope that `work` makes of those that are there in their place. */
  changeEdits(scope: string, work: (there: readonly StoredEdit[]) => readonly StoredEdit[]): Promise<void>;
  /** A closure's facts with numbers from `after` on, in their order. */
  factsOf(projectId: string, closureId: string, after: number): Promise<NumberedFact[]>;
  /** All facts of a project that were read, in the server's order. */
  allFacts(projectId: string): Promise<readonly unknown[]>;
  /** Pictures taken here that the server has not confirmed. */
  unsentPictures(): Promise<readonly Pick<StoredPicture, 'id' | 'projectId'>[]>;
  /** The server has it. It stays here, to be looked at, as long as there is room. */
  pictureSent(id: string): Promise<void>;
  picture(id: string, size: PictureSize): Promise<ArrayBuffer | undefined>;
  /** Keeps what the server gave out. */
  keepPicture(picture: StoredPicture): Promise<void>;
  /** The person gave these up. */
  dropPictures(ids: readonly string[]): Promise<void>;
  snapshot(key: string): Promise<Snapshot | undefined>;
  keepSnapshot(snapshot: Snapshot): Promise<void>;
  dropSnapshot(key: string): Promise<void>;
}

/** The cursor after receipts: numbers that follow it without a gap move it. */
export function reached(cursor: number, numbers: readonly number[]): number {
  const has = new Set(numbers);
  let end = cursor;
  while (has.has(end + 1)) end += 1;
  return end;
}

export const nothingReached = (projectId: string): Reach => ({
  projectId,
  cursor: 0,
  whole: false,
  at: 0,
  along: null,
});
