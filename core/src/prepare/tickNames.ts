import type { Measurement, PrepareFact, Tick } from './fact';
import type { Fact } from '../fact';
import { compareFacts } from '../factBase';
import { fiberEndKey, type FiberEnd } from '../plan/fiberEnd';

/** Stable names of what can be ticked or measured at a closure. */
export const tickNames = {
  /** Something to bring: a part of the kit or a tool. */
  item: (item: string) => `item ${item}`,
  caution: (caution: string) => `caution ${caution}`,
  mark: (cableId: string, markId: string) => `mark ${cableId} ${markId}`,
  step: (cableId: string, stepId: string) => `step ${cableId} ${stepId}`,
  /** How the ribbons of a holder lie, checked before the first of them is spliced. */
  polarity: (tray: number, holder: number) => `polarity ${tray}.${holder}`,
  /** Loose fibers were made into a ribbon, known by its first end. */
  ribbonized: (first: FiberEnd) => `ribbonized ${fiberEndKey(first)}`,
  /** The closure is closed and tested. */
  sealed: 'sealed',
  /** mm, measured by hand on the cable. */
  diameter: (cableId: string) => `diameter ${cableId}`,
  /** m, printed on the sheath where it is cut, or at the center of its slack. */
  sheathMark: (cableId: string) => `sheath-mark ${cableId}`,
};

/** What counts of a closure's ticks and measurements: the last of each name. */
export interface PrepareState {
  readonly ticks: ReadonlyMap<string, Tick>;
  readonly values: ReadonlyMap<string, Measurement>;
}

export function prepareState(facts: Iterable<Fact>): PrepareState {
  const ticks = new Map<string, Tick>();
  const values = new Map<string, Measurement>();
  for (const fact of facts) {
    if (fact.kind === 'tick') keepLast(ticks, fact);
    else if (fact.kind === 'measurement') keepLast(values, fact);
  }
  return { ticks, values };
}

function keepLast<F extends PrepareFact>(known: Map<string, F>, fact: F): void {
  const before = known.get(fact.about);
  if (!before || compareFacts(before, fact) < 0) known.set(fact.about, fact);
}

/** Whether something is ticked as done. */
export function isDone(state: PrepareState, about: string): boolean {
  return state.ticks.get(about)?.state === 'done';
}

/** The value that counts, or null when it was not measured, or taken back. */
export function measured(state: PrepareState, about: string): number | null {
  return state.values.get(about)?.value ?? null;
}
