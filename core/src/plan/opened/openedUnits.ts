import type { Cable } from '../../line/cable';
import { colorAt, schemeOf } from '../../line/colorCode';
import { fiberUnits, unitOf } from '../../line/fiberNumber';
import { goesThrough, type Closure, type Entry } from '../closure';
import type { FiberEnd } from '../fiberEnd';
import type { PlannedSplice } from '../order/order';
import type { ClosurePlan } from '../trays/closurePlan';

/** What fibers are taken out of a cable with: a tube, also one with ribbons in it, a ribbon of a central tube, or a bundle that nothing holds. */
export interface Holder {
  readonly kind: 'tube' | 'ribbon' | 'bundle';
  /** Number of the tube or ribbon; 1 for a bundle. */
  readonly number: number;
  /** Two-letter color code. */
  readonly code: string;
  readonly first: number;
  readonly fibers: number;
  /** Fibers per binder group, or null. */
  readonly groupSize: number | null;
  /** Whether ribbons lie in it. */
  readonly ribbons: boolean;
}

/**
 * How a holder is opened: at the cable's end; where the cable goes through, so that the stub comes from the low or the high side of the route
 * or from both; or by a window, the rest of its fibers staying whole.
 */
export type Opening = 'end' | 'low' | 'high' | 'both' | 'window';

/** Fibers from–to of a cable, both included. */
export interface FiberSpan {
  readonly from: number;
  readonly to: number;
}

export interface OpenedUnit {
  readonly holder: Holder;
  readonly how: Opening;
  /** Sides whose ends the order takes; a window may have one or both. */
  readonly sides: readonly ('low' | 'high' | 'end')[];
  /** Fibers of it that the order takes here. */
  readonly used: number;
  /** How many of them are spliced to nothing and wear a connector. */
  readonly inConnectors: number;
  /** The same, by their numbers. */
  readonly taken: readonly FiberSpan[];
  /** Fibers of it that are cut with them though the order does not take them: a holder is cut whole, except by a window. */
  readonly cutToo: readonly FiberSpan[];
  /** Fibers that stay whole in a window, in a ribbon out of which the order takes others: it has to be split. */
  readonly splitFrom: readonly FiberSpan[];
  /** Loose fibers of it are made into ribbons here. */
  readonly ribbonized: boolean;
  /** Trays that its splices lie on, upward; empty when none has a slot. */
  readonly trays: readonly number[];
}

/** Tubes and ribbons of a cable in numbering order. */
export function holdersOf(cable: Cable): readonly Holder[] {
  const scheme = schemeOf(cable);
  const holders: Holder[] = [];
  for (const unit of fiberUnits(cable.construction)) {
    const last = holders.at(-1);
    if (unit.tube !== null && last?.number === unit.tube) {
      holders[holders.length - 1] = { ...last, fibers: last.fibers + unit.fibers };
      continue;
    }
    const number = unit.tube ?? unit.unit;
    holders.push({
      kind: unit.tube === null ? unit.kind : 'tube',
      number,
      code: colorAt(scheme, number).code,
      first: unit.first,
      fibers: unit.fibers,
      groupSize: unit.groupSize,
      ribbons: unit.kind === 'ribbon',
    });
  }
  return holders;
}

/** The tubes or ribbons of a cable that the plan opens in a closure, and those that it leaves whole. */
export function openedUnits(
  plan: Pick<ClosurePlan, 'splices' | 'unplaced' | 'ends'>,
  cable: Cable,
  manner: Entry['manner'],
): { readonly opened: readonly OpenedUnit[]; readonly whole: readonly Holder[] } {
  const holders = holdersOf(cable);
  const byFiber: number[] = [];
  holders.forEach(({ first, fibers }, index) => {
    for (let fiber = first; fiber < first + fibers; fiber += 1) byFiber[fiber] = index;
  });
  const found = holders.map(() => ({
    fibers: new Set<number>(),
    sides: new Set<'low' | 'high' | 'end'>(),
    ribbonized: false,
    inConnectors: 0,
    trays: new Set<number>(),
  }));
  const unitWith = (end: FiberEnd) =>
    end.cableId === cable.id ? found[byFiber[end.fiber] ?? -1] : undefined;
  const take = (kind: 'single' | 'ribbon', ends: readonly FiberEnd[], tray: number | null) => {
    for (const end of ends) {
      const own = unitWith(end);
      if (!own) continue;
      own.fibers.add(end.fiber);
      own.sides.add(end.side);
      if (kind === 'ribbon') own.ribbonized = true;
      if (tray !== null) own.trays.add(tray);
    }
  };
  for (const { kind, left, right, tray } of plan.splices) {
    take(kind, left, tray);
    take(kind, right, tray);
  }
  for (const { kind, left, right } of plan.unplaced) {
    take(kind, left, null);
    take(kind, right, null);
  }
  for (const end of plan.ends) {
    take('single', [end], null);
    const own = unitWith(end);
    if (own) own.inConnectors += 1;
  }

  const opened: OpenedUnit[] = [];
  const whole: Holder[] = [];
  holders.forEach((holder, index) => {
    const { fibers, sides, trays, ribbonized, inConnectors } = found[index]!;
    if (fibers.size === 0) {
      whole.push(holder);
      return;
    }
    const how = openingOf(sides, manner === 'window' && fibers.size < holder.fibers);
    const rest = (first: number, count: number) => spansOf(first, count, (fiber) => !fibers.has(fiber));
    opened.push({
      holder,
      how,
      sides: [...sides].sort(),
      used: fibers.size,
      inConnectors,
      // Where ribbons lie in it, they are ribbons already.
      ribbonized: ribbonized && !holder.ribbons,
      taken: spansOf(holder.first, holder.fibers, (fiber) => fibers.has(fiber)),
      cutToo: how === 'end' || how === 'window' ? [] : rest(holder.first, holder.fibers),
      splitFrom:
        how === 'window' ? ribbonsTouched(cable, fibers).flatMap((one) => rest(one.first, one.fibers)) : [],
      trays: [...trays].sort((a, b) => a - b),
    });
  });
  return { opened, whole };
}

function openingOf(sides: ReadonlySet<'low' | 'high' | 'end'>, window: boolean): Opening {
  if (sides.has('end')) return 'end';
  if (window) return 'window';
  if (sides.size === 2) return 'both';
  return sides.has('low') ? 'low' : 'high';
}

function ribbonsTouched(cable: Cable, fibers: ReadonlySet<number>) {
  const touched = new Set([...fibers].map((fiber) => unitOf(cable.construction, fiber)));
  return [...touched].filter(({ kind }) => kind === 'ribbon');
}

/** Runs of the numbers first … first + count - 1 of which something holds. */
function spansOf(first: number, count: number, holds: (number: number) => boolean): FiberSpan[] {
  const spans: { from: number; to: number }[] = [];
  for (let number = first; number < first + count; number += 1) {
    if (!holds(number)) continue;
    const last = spans.at(-1);
    if (last?.to === number - 1) last.to = number;
    else spans.push({ from: number, to: number });
  }
  return spans;
}

/** What of these fibers carries somebody's traffic. */
export function liveIn(cable: Cable, spans: readonly FiberSpan[]): NonNullable<Cable['live']> {
  return spans.flatMap(({ from, to }) =>
    (cable.live ?? []).flatMap((live) =>
      live.from <= to && live.to >= from
        ? [{ from: Math.max(live.from, from), to: Math.min(live.to, to), circuit: live.circuit }]
        : [],
    ),
  );
}

/** Whether a splice carries what somebody waits for: a circuit that the order names, or traffic in one of its fibers. */
export function carriesCircuit(
  { left, right, circuit }: Pick<PlannedSplice, 'left' | 'right' | 'circuit'>,
  cables: ReadonlyMap<string, Cable>,
): boolean {
  return (
    circuit !== null ||
    [...left, ...right].some(({ cableId, fiber }) => {
      const cable = cables.get(cableId);
      return cable !== undefined && liveIn(cable, [{ from: fiber, to: fiber }]).length > 0;
    })
  );
}

/** Everything that is cut where this unit is opened; nothing where the cable ends: there its fibers were never joined. */
export function cutIn({ how, holder, taken }: OpenedUnit): readonly FiberSpan[] {
  if (how === 'end') return [];
  return how === 'window' ? taken : [{ from: holder.first, to: holder.first + holder.fibers - 1 }];
}

/** Whether the closure has something to cut in this cable. */
export function isOpened(
  plan: ClosurePlan,
  closure: Closure,
  cable: Pick<Cable, 'id' | 'construction'>,
): boolean {
  const entry = closure.entries.find((one) => one.cableId === cable.id);
  if (!entry) return false;
  const isOf = (end: FiberEnd) => end.cableId === cable.id;
  const taken = () =>
    [...plan.splices, ...plan.unplaced].some(({ left, right }) => left.some(isOf) || right.some(isOf)) ||
    // A connector that came with it is only looked at.
    plan.ends.some((end) => isOf(end) && end.connector !== 'own');
  if (cable.construction.kind === 'pigtails' || goesThrough(entry.manner)) return taken();
  // A cable that ends in the closure is opened in any case: its dark tubes are stored in it.
  return true;
}

/** Whether all that the order takes of a cable here ends in connectors, and nothing of it is spliced. */
export function endsInConnectors(
  plan: Pick<ClosurePlan, 'splices' | 'unplaced' | 'ends'>,
  cableId: string,
): boolean {
  const isOf = (end: FiberEnd) => end.cableId === cableId;
  return (
    plan.ends.some(isOf) &&
    ![...plan.splices, ...plan.unplaced].some(({ left, right }) => left.some(isOf) || right.some(isOf))
  );
}

/** "1 BL to 4 BR, 7 RD": numbers that follow each other as one range. */
export function holderWords(holders: readonly Holder[]): string {
  const ranges: [Holder, Holder][] = [];
  for (const holder of holders) {
    const last = ranges.at(-1);
    if (last && last[1].number === holder.number - 1) last[1] = holder;
    else ranges.push([holder, holder]);
  }
  const one = (holder: Holder) => `${holder.number} ${holder.code}`;
  return ranges
    .map(([from, to]) => {
      if (from === to) return one(from);
      return to.number === from.number + 1 ? `${one(from)}, ${one(to)}` : `${one(from)} to ${one(to)}`;
    })
    .join(', ');
}

/** "Tube 1 BL", "Ribbons 1 BL to 4 BR"; "Fibers" where nothing holds them. */
export function holdersNamed(holders: readonly Holder[]): string {
  const [first] = holders;
  if (!first || first.kind === 'bundle') return 'Fibers';
  const word = first.kind === 'tube' ? 'Tube' : 'Ribbon';
  return `${word}${holders.length === 1 ? '' : 's'} ${holderWords(holders)}`;
}
