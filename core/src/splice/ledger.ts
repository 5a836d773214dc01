import type { Limits } from '../limits/limits';
import type { ClosurePlan } from '../plan/closurePlan';
import type { PlacedSplice } from '../plan/trayLayout';
import { compareFacts, type Fact } from './fact';
import { spliceHistory, type SpliceHistory } from './history';
import type { Reading } from './reading';
import { rollUp, sumTallies, tally, type RollUp, type Tally } from './rollUp';
import { judgeSplice, type Verdict } from './verdict';

/** A planned splice with everything that happened to it and what that means. */
export interface SpliceState {
  readonly splice: PlacedSplice;
  readonly facts: readonly Fact[];
  readonly history: SpliceHistory;
  readonly verdict: Verdict;
  /** Losses of the attempt that counts, one per fiber, dB; empty without one. */
  readonly losses: readonly number[];
}

export interface TrayState {
  readonly tray: number;
  readonly slots: number;
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
  readonly unplanned: ReadonlyMap<string, readonly Fact[]>;
}

/** Builds the ledger from all facts of a closure, in any order; a fact that is given twice counts once. */
export function buildLedger(plan: ClosurePlan, facts: Iterable<Fact>, limits: Limits): ClosureLedger {
  // By place in the plan rather than by splice: one look-up a fact, and no table of thousands of lists.
  const byPlace = plan.trays.map((tray) => new Array<Fact[] | undefined>(tray.splices.length));
  const strays = new Map<string, Fact[]>();
  for (const fact of facts) {
    const place = plan.placeOf.get(fact.spliceId);
    const known = place ? byPlace[place.trayIndex]![place.index] : strays.get(fact.spliceId);
    if (known) known.push(fact);
    else if (place) byPlace[place.trayIndex]![place.index] = [fact];
    else strays.set(fact.spliceId, [fact]);
  }

  const trays = plan.trays.map(({ tray, slots, splices }, trayIndex) =>
    trayState(
      tray,
      slots,
      splices.map((splice, index) =>
        spliceState(splice, inOrder(byPlace[trayIndex]![index] ?? none), limits),
      ),
      limits,
    ),
  );
  const unplanned = new Map<string, readonly Fact[]>();
  for (const [id, own] of strays) unplanned.set(id, inOrder(own));

  const total = sumTallies(trays.map((tray) => tray.tally));
  const sortedLosses = sortedLossesOf(
    total.read,
    trays.map((tray) => tray.splices),
  );
  return {
    plan,
    limits,
    trays,
    sortedLosses,
    unplanned,
    rollUp: rollUp(total, sortedLosses, limits.closureMean),
  };
}

/** The ledger after one more fact of its closure. A fact that is already in it changes nothing. */
export function addFact(ledger: ClosureLedger, fact: Fact): ClosureLedger {
  const place = ledger.plan.placeOf.get(fact.spliceId);
  if (!place) {
    const own = ledger.unplanned.get(fact.spliceId) ?? none;
    if (own.some((known) => known.id === fact.id)) return ledger;
    return {
      ...ledger,
      unplanned: new Map(ledger.unplanned).set(fact.spliceId, inOrder([...own, fact])),
    };
  }

  const tray = ledger.trays[place.trayIndex]!;
  const before = tray.splices[place.index]!;
  if (before.facts.some((known) => known.id === fact.id)) return ledger;
  const after = spliceState(before.splice, inOrder([...before.facts, fact]), ledger.limits);
  const nextTray = trayState(tray.tray, tray.slots, tray.splices.with(place.index, after), ledger.limits);
  const trays = ledger.trays.with(place.trayIndex, nextTray);
  const sortedLosses = exchange(ledger.sortedLosses, before.losses, after.losses);
  return {
    ...ledger,
    trays,
    sortedLosses,
    rollUp: rollUp(sumTallies(trays.map((state) => state.tally)), sortedLosses, ledger.limits.closureMean),
  };
}

/** The ledger under other limits: every verdict is made anew. */
export function rejudge(ledger: ClosureLedger, limits: Limits): ClosureLedger {
  return buildLedger(ledger.plan, allFacts(ledger), limits);
}

/** Every fact in the ledger, planned splices first. */
export function* allFacts(ledger: ClosureLedger): Generator<Fact> {
  for (const tray of ledger.trays) for (const state of tray.splices) yield* state.facts;
  for (const own of ledger.unplanned.values()) yield* own;
}

/** The planned splice of this id, or null. */
export function findSplice(ledger: ClosureLedger, id: string): SpliceState | null {
  const place = ledger.plan.placeOf.get(id);
  return place ? ledger.trays[place.trayIndex]!.splices[place.index]! : null;
}

const none: readonly Fact[] = [];

/** Sorted, each id once. */
function inOrder(facts: readonly Fact[]): readonly Fact[] {
  if (facts.length < 2) return facts;
  const sorted = [...facts].sort(compareFacts);
  const seen = new Set<string>();
  return sorted.filter((fact) => !seen.has(fact.id) && seen.add(fact.id));
}

function spliceState(splice: PlacedSplice, facts: readonly Fact[], limits: Limits): SpliceState {
  const history = spliceHistory(facts);
  return {
    splice,
    facts,
    history,
    verdict: judgeSplice(history, splice.kind, limits),
    losses: history.last ? lossesOf(history.last.readings) : noLosses,
  };
}

const noLosses: readonly number[] = [];

function lossesOf(readings: readonly Reading[]): readonly number[] {
  const only = readings.length === 1 ? readings[0]!.loss : null;
  return only === null ? readings.map(({ loss }) => loss).filter((loss) => loss !== null) : [only];
}

function trayState(tray: number, slots: number, splices: readonly SpliceState[], limits: Limits): TrayState {
  const total = tally(splices);
  return {
    tray,
    slots,
    splices,
    tally: total,
    rollUp: rollUp(total, sortedLossesOf(total.read, [splices]), limits.trayMean),
  };
}

/** The `count` losses of these splices, upward. Sized beforehand and filled in place: this runs over thousands. */
function sortedLossesOf(count: number, trays: readonly (readonly SpliceState[])[]): Float64Array {
  const losses = new Float64Array(count);
  let at = 0;
  for (const splices of trays)
    for (const state of splices) for (const loss of state.losses) losses[at++] = loss;
  return losses.sort();
}

/** A sorted copy without `removed`, which are in it, and with `added`. */
function exchange(sorted: Float64Array, removed: readonly number[], added: readonly number[]): Float64Array {
  let next = sorted;
  for (const loss of removed) {
    const at = firstNotBelow(next, loss);
    const shorter = new Float64Array(next.length - 1);
    shorter.set(next.subarray(0, at));
    shorter.set(next.subarray(at + 1), at);
    next = shorter;
  }
  for (const loss of added) {
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
