import { isSpliceFact, spliceIdOf, type Fact, type SpliceFact } from '../../facts';
import type { Limits } from '../../limits/limits';
import type { ClosurePlan, PlannedTray } from '../../plan/trays/closurePlan';
import type { PlacedSplice } from '../../plan/trays/trayLayout';
import { spliceHistory, spliceOrder } from './history';
import { measuredLosses } from './measured';
import { asPlanned } from './orientation';
import type { Reading } from './reading';
import { rollUp, sumTallies, tally, type RollUp, type Tally } from './rollUp';
import { judgeAttempt, judgeSplice, type Verdict } from './verdict';

/**
 * A planned splice with everything that happened to it and what that means. Kept lean, since a closure has thousands: what only one
 * splice at a time is asked for, its history, is read from the facts with `spliceHistory`.
 */
export interface SpliceState {
  readonly splice: PlacedSplice;
  /** In the order of `spliceOrder`, with readings as the plan names the sides. */
  readonly facts: readonly SpliceFact[];
  readonly verdict: Verdict;
  /** Of the attempt that is in the tray, one per fiber; empty without one. */
  readonly readings: readonly Reading[];
  /** dB, one per fiber of that attempt where it was measured, else null; empty where nothing was. Never mixed with what the machine estimated. */
  readonly measured: readonly (number | null)[];
}

export interface TrayState {
  readonly tray: number;
  readonly planned: PlannedTray;
  readonly splices: readonly SpliceState[];
  readonly tally: Tally;
  readonly rollUp: RollUp;
}

/**
 * The closure's book: plan, facts and limits brought together. Immutable; `addFact` gives the next one and shares all that did not
 * change, and the result is the same, to the last digit, as building anew from all facts.
 */
export interface ClosureLedger {
  readonly plan: ClosurePlan;
  readonly limits: Limits;
  readonly trays: readonly TrayState[];
  readonly rollUp: RollUp;
  /** All readings of the closure, upward, dB. */
  readonly sortedLosses: Float64Array;
  /** Facts of splices that are not, or no longer, in the plan, by splice. Kept and shown, never dropped. */
  readonly unplanned: ReadonlyMap<string, readonly SpliceFact[]>;
}

/** Builds the ledger from all facts of a closure, in any order; a fact that is given twice counts once, one that is of no splice not at all. */
export function buildLedger(plan: ClosurePlan, facts: Iterable<Fact>, limits: Limits): ClosureLedger {
  const { planned, strays } = sortByPlace(plan, facts);
  // Every tray's losses are sorted in its own stretch of one array, and then the whole.
  const losses = new Float64Array(plan.fibers);
  let read = 0;
  const trays = plan.trays.map((tray) => {
    const states = judgeTray(tray, planned, limits);
    const state = trayState(tray, states, limits, losses.subarray(read));
    read += state.tally.read;
    return state;
  });
  const unplanned = new Map<string, readonly SpliceFact[]>();
  for (const [id, own] of strays) unplanned.set(id, spliceOrder(own));

  const total = sumTallies(trays.map((tray) => tray.tally));
  const sortedLosses = losses.slice(0, read).sort();
  return {
    plan,
    limits,
    trays,
    sortedLosses,
    unplanned,
    rollUp: rollUp(total, sortedLosses, limits.closureMean, limits.measured),
  };
}

/** The ledger after one more fact of its closure. A fact that is already in it changes nothing. */
export function addFact(ledger: ClosureLedger, fact: Fact): ClosureLedger {
  if (!isSpliceFact(fact)) return ledger;
  const id = spliceIdOf(fact);
  const found = locate(ledger, id);
  if (!found) {
    const own = ledger.unplanned.get(id) ?? none;
    if (own.some((known) => known.id === fact.id)) return ledger;
    return {
      ...ledger,
      unplanned: new Map(ledger.unplanned).set(id, spliceOrder([...own, fact])),
    };
  }

  const { tray, index } = found;
  const before = tray.splices[index]!;
  if (before.facts.some((known) => known.id === fact.id)) return ledger;
  const after = spliceState(before.splice, [...before.facts, fact], ledger.limits);
  const states = tray.splices.with(index, after);
  const room = new Float64Array(tray.planned.fibers);
  const nextTray = trayState(tray.planned, states, ledger.limits, room);
  const trays = ledger.trays.with(tray.planned.tray - 1, nextTray);
  const sortedLosses = exchange(ledger.sortedLosses, before.readings, after.readings);
  return {
    ...ledger,
    trays,
    sortedLosses,
    rollUp: rollUp(
      sumTallies(trays.map((state) => state.tally)),
      sortedLosses,
      ledger.limits.closureMean,
      ledger.limits.measured,
    ),
  };
}

/** The ledger under other limits: every verdict is made anew. */
export function rejudge(ledger: ClosureLedger, limits: Limits): ClosureLedger {
  return buildLedger(ledger.plan, allFacts(ledger), limits);
}

/** Every fact in the ledger, planned splices first. */
export function* allFacts(ledger: ClosureLedger): Generator<SpliceFact> {
  for (const tray of ledger.trays) for (const state of tray.splices) yield* state.facts;
  for (const own of ledger.unplanned.values()) yield* own;
}

/** The planned splice of this id, or null. */
export function findSplice(ledger: ClosureLedger, id: string): SpliceState | null {
  const found = locate(ledger, id);
  return found ? found.tray.splices[found.index]! : null;
}

function locate(ledger: ClosureLedger, id: string): { tray: TrayState; index: number } | null {
  const position = ledger.plan.positionOf.get(id);
  if (position === undefined) return null;
  const tray = ledger.trays[ledger.plan.splices[position]!.tray - 1]!;
  return { tray, index: position - tray.planned.first };
}

const none: readonly SpliceFact[] = [];

/**
 * The facts of every planned splice, by its position along the cord, and those of other splices by splice. By position rather than
 * by splice: one look-up a fact, and no table of thousands of lists.
 */
function sortByPlace(
  plan: ClosurePlan,
  facts: Iterable<Fact>,
): { planned: (readonly SpliceFact[])[]; strays: Map<string, SpliceFact[]> } {
  const planned = plan.splices.map(() => none);
  const strays = new Map<string, SpliceFact[]>();
  for (const fact of facts) {
    if (!isSpliceFact(fact)) continue;
    const id = spliceIdOf(fact);
    const position = plan.positionOf.get(id);
    if (position !== undefined) {
      const known = planned[position]!;
      planned[position] = known === none ? [fact] : [...known, fact];
    } else {
      const known = strays.get(id);
      if (known) known.push(fact);
      else strays.set(id, [fact]);
    }
  }
  return { planned, strays };
}

function judgeTray(
  tray: PlannedTray,
  facts: readonly (readonly SpliceFact[])[],
  limits: Limits,
): readonly SpliceState[] {
  return tray.splices.map((splice, index) => spliceState(splice, facts[tray.first + index]!, limits));
}

/** @param made in any order */
function spliceState(splice: PlacedSplice, made: readonly SpliceFact[], limits: Limits): SpliceState {
  const ordered = spliceOrder(made);
  // Nearly always nothing has to be turned round, and then no list is made anew.
  const facts = ordered.every((fact) => asPlanned(fact, splice) === fact)
    ? ordered
    : ordered.map((fact) => asPlanned(fact, splice));
  const first = facts[0];
  // By far the most splices were tried once and that is all. They are judged as they stand, without writing out a history.
  if (first?.kind === 'attempt' && facts.length === 1)
    return {
      splice,
      facts,
      verdict: judgeAttempt(first.body, 1, null, splice.kind, limits),
      readings: first.body.readings,
      measured: noneMeasured,
    };
  const history = spliceHistory(facts);
  return {
    splice,
    facts,
    verdict: judgeSplice(history, splice.kind, limits),
    readings: history.last?.readings ?? noReadings,
    measured: history.measured.length > 0 ? measuredLosses(history.measured) : noneMeasured,
  };
}

const noReadings: readonly Reading[] = [];
const noneMeasured: readonly (number | null)[] = [];

/** @param room holds at least as many numbers as the tray has fibers; its losses are written to the start of it, upward */
function trayState(
  planned: PlannedTray,
  splices: readonly SpliceState[],
  limits: Limits,
  room: Float64Array,
): TrayState {
  let read = 0;
  for (const { readings } of splices) for (const { loss } of readings) if (loss !== null) room[read++] = loss;
  const total = tally(splices);
  const sortedLosses = room.subarray(0, read).sort();
  return {
    tray: planned.tray,
    planned,
    splices,
    tally: total,
    rollUp: rollUp(total, sortedLosses, limits.trayMean, limits.measured),
  };
}

/** A sorted copy without the losses of `removed`, which are in it, and with those of `added`. */
function exchange(
  sorted: Float64Array,
  removed: readonly Reading[],
  added: readonly Reading[],
): Float64Array {
  let next = sorted;
  for (const { loss } of removed) {
    if (loss === null) continue;
    const at = firstNotBelow(next, loss);
    const shorter = new Float64Array(next.length - 1);
    shorter.set(next.subarray(0, at));
    shorter.set(next.subarray(at + 1), at);
    next = shorter;
  }
  for (const { loss } of added) {
    if (loss === null) continue;
    const at = firstNotBelow(next, loss);
    const longer = new Float64Array(next.length + 1);
    longer.set(next.subarray(0, at));
    longer[at] = loss;
    longer.set(next.subarray(at), at + 1);
    next = longer;
  }
  return next;
}

/** Index of the first value that is not below `value`, by halving. */
function firstNotBelow(sorted: Float64Array, value: number): number {
  let low = 0;
  let high = sorted.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (sorted[middle]! < value) low = middle + 1;
    else high = middle;
  }
  return low;
}
