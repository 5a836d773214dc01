import type { Mark, SpliceState, WorkOrder } from '@cordel/core';
import type { BeforeArc } from '@cordel/core/gear';
import type { useBench } from './useBench';

/** What the parts of the bench hand to each other. */

/** What is known before the machine shows its loss; it goes on record with the next reading. */
export interface Details {
  /** What the machine showed before the arc, by fiber; empty places were not looked at. */
  readonly before: readonly (BeforeArc | undefined)[];
  readonly note: string;
  readonly proofTestFailed: boolean;
  readonly sleeveForgotten: boolean;
  /** Somebody said that the sleeve is on. */
  readonly sleeveConfirmed: boolean;
}

export interface LastEntry {
  readonly text: string;
  readonly mark: Mark;
  /** The splice at which a whole try was just judged. */
  readonly spliceId?: string;
  /** The attempt that can still be taken back, or the last fiber of a ribbon that is not recorded yet (`attemptId` null); or null. */
  readonly takeBack: { readonly spliceId: string; readonly attemptId: string | null } | null;
}

export interface BenchWays {
  /** Moves to another splice. */
  readonly go: (state: SpliceState) => void;
  readonly order: WorkOrder;
  /** Splices at which somebody else stands. */
  readonly taken: ReadonlySet<string>;
  /** A whole try is on record: what asked for it can be put away. */
  readonly onRecorded: () => void;
  /** The device could not keep it after all: what asked for it is there again. */
  readonly onTakenBack: () => void;
}

/** What can be done at the splice one stands on, and what is known of it. */
export type Bench = ReturnType<typeof useBench>;
