import {
  compareFacts,
  spliceIdOf,
  type Fact,
  type LightCheck,
  type Measurement,
  type Tick,
} from '../../facts';
import type { Closure } from '../../plan/closure';
import { fiberEndKey, runsOf, spliceId, type FiberEnd } from '../../plan/fiberEnd';

type Without<T, K extends string> = T extends unknown ? Omit<T, K> : never;
type TickPlace = Without<Tick['subject'], 'closureId'>;
type TickWhat = Without<Tick['body'], 'state' | 'note' | 'answer' | 'mm'>;

/** Something that can be ticked at a closure: where it belongs and what it is. `key` tells it from all others at the closure. */
export interface TickTarget {
  readonly key: string;
  readonly place: TickPlace;
  readonly what: TickWhat;
}

/** A length that can be measured at a cable. */
export interface MeasureTarget {
  readonly key: string;
  readonly cableId: string;
  readonly of: Measurement['body']['of'];
}

function target(place: TickPlace, what: TickWhat): TickTarget {
  return { key: keyOf(place, what), place, what };
}

function keyOf(place: TickPlace, what: TickWhat): string {
  const name =
    what.what === 'item'
      ? what.item
      : what.what === 'caution'
        ? what.caution
        : what.what === 'mark'
          ? what.mark
          : what.what === 'step'
            ? what.step
            : what.what === 'holder'
              ? `${what.tray}.${what.holder}`
              : '';
  return `${what.what} ${placeKey(place)} ${name}`;
}

function placeKey(place: TickPlace): string {
  switch (place.on) {
    case 'closure':
      return '';
    case 'cable':
      return place.cableId;
    case 'end':
      return fiberEndKey(place);
    case 'splice':
      return spliceIdOf({ subject: place as Extract<Tick['subject'], { on: 'splice' }> });
  }
}

const onClosure = { on: 'closure' } as const;
const measure = (cableId: string, of: MeasureTarget['of']): MeasureTarget => ({
  key: `${of} ${cableId}`,
  cableId,
  of,
});

/** Whatever can be ticked or measured at a closure. */
export const tickTargets = {
  /** Something to bring: a part of the kit or a tool. */
  item: (item: string) => target(onClosure, { what: 'item', item }),
  caution: (caution: string) => target(onClosure, { what: 'caution', caution }),
  mark: (cableId: string, mark: string) => target({ on: 'cable', cableId }, { what: 'mark', mark }),
  step: (cableId: string, step: string) => target({ on: 'cable', cableId }, { what: 'step', step }),
  /** A step of one fiber: of a drop, a pigtail, a connector. */
  stepAt: ({ cableId, fiber, side }: FiberEnd, step: string) =>
    target({ on: 'end', cableId, fiber, side }, { what: 'step', step }),
  /** How a ribbon lies in its holders, checked before it is spliced. */
  polarity: ({
    left,
    right,
  }: {
    readonly left: readonly FiberEnd[];
    readonly right: readonly FiberEnd[];
  }) => ({
    key: `polarity ${spliceId(left, right)} `,
    place: { on: 'splice', left: runsOf(left), right: runsOf(right) } as TickPlace,
    what: { what: 'polarity' } as TickWhat,
  }),
  /** Loose fibers were made into a ribbon, known by its first end. */
  ribbonized: ({ cableId, fiber, side }: FiberEnd) =>
    target({ on: 'end', cableId, fiber, side }, { what: 'ribbonized' }),
  /** The closure is closed and tested. */
  sealed: target(onClosure, { what: 'sealed' }),
  /** Across the cable, mm. */
  diameter: (cableId: string) => measure(cableId, 'diameter'),
  /** m, printed on the sheath where it is cut, or at the center of its slack. */
  sheathNumber: (cableId: string) => measure(cableId, 'sheath-number'),
};

/** What counts of a closure's ticks, measurements and light checks: the last of each target, by its key. */
export interface PrepareState {
  readonly ticks: ReadonlyMap<string, Tick>;
  readonly values: ReadonlyMap<string, Measurement>;
  /** Light checks, by the key of the fiber end. */
  readonly lights: ReadonlyMap<string, LightCheck>;
}

export function prepareState(facts: Iterable<Fact>): PrepareState {
  const ticks = new Map<string, Tick>();
  const values = new Map<string, Measurement>();
  const lights = new Map<string, LightCheck>();
  for (const fact of facts) {
    if (fact.kind === 'tick') keepLast(ticks, keyOf(fact.subject, fact.body), fact);
    else if (fact.kind === 'measurement')
      keepLast(values, measure(fact.subject.cableId, fact.body.of).key, fact);
    else if (fact.kind === 'light-check') keepLast(lights, fiberEndKey(fact.subject), fact);
  }
  return { ticks, values, lights };
}

function keepLast<F extends Tick | Measurement | LightCheck>(
  known: Map<string, F>,
  key: string,
  fact: F,
): void {
  const before = known.get(key);
  if (!before || compareFacts(before, fact) < 0) known.set(key, fact);
}

/** The last tick of a target, or null. */
export function tickOf(state: PrepareState, { key }: TickTarget): Tick | null {
  return state.ticks.get(key) ?? null;
}

/** Whether something is ticked as done. */
export function isDone(state: PrepareState, of: TickTarget): boolean {
  return tickOf(state, of)?.body.state === 'done';
}

/** The value that counts, in the unit of the target, or null when it was not measured, or taken back. */
export function measured(state: PrepareState, { key }: MeasureTarget): number | null {
  const body = state.values.get(key)?.body;
  if (!body) return null;
  return body.of === 'diameter' ? body.mm : body.m;
}

/** Diameters that were measured of a closure's cables, mm, by cable. */
export function measuredDiameters(
  { entries }: Pick<Closure, 'entries'>,
  state: PrepareState,
): Map<string, number> {
  return new Map(
    entries.flatMap(({ cableId }) => {
      const value = measured(state, tickTargets.diameter(cableId));
      return value === null ? [] : [[cableId, value] as const];
    }),
  );
}
