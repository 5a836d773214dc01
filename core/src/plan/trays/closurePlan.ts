import { sayAt } from '../../finding';
import type { Cable } from '../../line/cable';
import { fiberCount, unitOf } from '../../line/fiberNumber';
import { openedFindings } from '../opened/openedFindings';
import { entryFindings } from '../order/entries';
import { entryKey, type Closure, type Tray } from '../closure';
import type { FiberEnd } from '../fiberEnd';
import { expandOrder, type PlannedEnd, type PlannedSplice } from '../order/order';
import { leastChange } from './leastChange';
import { portFindings } from '../models/ports';
import { unitByFiber } from './bind';
import { layOutTrays, type PlacedSplice, type Placement } from './trayLayout';
import type { HolderName, PlanFinding, TrayReason } from '../words';

export interface PlannedTray {
  readonly tray: number;
  /** Slots for sleeves of the kind that lies on it. */
  readonly slots: number;
  /** In slot order. */
  readonly splices: readonly PlacedSplice[];
  /** Position along the cord of its first splice: how many lie on the trays before it. */
  readonly first: number;
  /** Fibers on each side of all its splices. */
  readonly fibers: number;
}

/** What a closure's order means: every splice with its tray and slot. Derived, never stored. */
export interface ClosurePlan {
  readonly closureId: string;
  readonly trays: readonly PlannedTray[];
  /** All that have a slot, tray by tray, slot by slot. */
  readonly splices: readonly PlacedSplice[];
  /** Where a splice stands in `splices`, by its id. */
  readonly positionOf: ReadonlyMap<string, number>;
  /** Fibers on each side of all of them. */
  readonly fibers: number;
  readonly unplaced: readonly PlannedSplice[];
  /** Fiber ends that no other is joined to: they wear a connector, and lie on no tray. */
  readonly ends: readonly PlannedEnd[];
  readonly findings: readonly PlanFinding[];
  /** Why everything is on its tray, in the order in which it was decided. */
  readonly reasons: readonly TrayReason[];
}

/**
 * Expands a closure's order, lays it out on its trays, and tells what is wrong with either.
 * @param lineNumber what a person calls the order line of an index from 0, where that is not its place: the row of a text, say
 */
export function planClosure(
  closure: Closure,
  cables: ReadonlyMap<string, Cable>,
  lineNumber?: (index: number) => number,
): ClosurePlan {
  const steps = planClosureInSteps(closure, cables, lineNumber);
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value;
  }
}

/** The same in a few steps of like length, for a thread that has something else to do between them. */
export function* planClosureInSteps(
  closure: Closure,
  cables: ReadonlyMap<string, Cable>,
  lineNumber: (index: number) => number = (index) => index + 1,
): Generator<undefined, ClosurePlan> {
  const { splices: ordered, ends, findings } = expandOrder(closure, cables, lineNumber);
  yield;
  const splices = byNumber(ordered, closure);
  const { spareSlots = 0, pins = [] } = closure;
  const layout = layOutTrays(splices, closure.trays, cables, { spareSlots, pins });
  const { placed, unplaced } = layout;
  yield;

  const positionOf = new Map<string, number>();
  const fibersOn = closure.trays.map(() => 0);
  const rows = closure.trays.map((): PlacedSplice[] => []);
  for (let position = 0; position < placed.length; position += 1) {
    const splice = placed[position]!;
    positionOf.set(splice.id, position);
    rows[splice.tray - 1]!.push(splice);
    fibersOn[splice.tray - 1]! += splice.left.length;
  }
  const fibers = fibersOn.reduce((sum, count) => sum + count, 0);
  let first = 0;
  const trays = rows.map((row, index) => {
    const tray = {
      tray: index + 1,
      slots: slotsOf(closure.trays[index]!, row),
      splices: row,
      first,
      fibers: fibersOn[index]!,
    };
    first += row.length;
    return tray;
  });

  yield;

  const names = new Names(closure, cables);
  findings.push(
    ...entryFindings(closure, cables),
    ...portFindings(closure, cables),
    ...openedFindings(closure, cables, { splices: placed, unplaced, ends }),
  );
  for (const { pin, because } of layout.brokenPins)
    sayAt(findings, { kind: 'tray', tray: pin.tray })(
      'pin',
      {
        holder: names.unit(pin.cableId, pin.unit),
        tray: pin.tray,
        trays: closure.trays.length,
        because,
      },
      'warning',
    );
  for (const split of splitUnits(placed, cables, names))
    sayAt(findings, { kind: 'tray', tray: split.trays[0]! })('unit-split', split, 'warning');
  if (unplaced.length > 0)
    sayAt(findings, { kind: 'trays' })('over-capacity', {
      unplaced: unplaced.length,
      splices: splices.length,
      change: leastChange(closure, splices, unplaced, cables),
    });
  return {
    closureId: closure.id,
    trays,
    splices: placed,
    positionOf,
    fibers,
    unplaced,
    ends,
    findings,
    reasons: layout.placements.map((placement) => reasonOf(placement, splices, closure.trays, names)),
  };
}

/**
 * Splices in the order of the left side's cables and numbers, and so of their colors, whatever order the lines were written in: that is how
 * they lie in the holders (common practice).
 */
function byNumber(splices: PlannedSplice[], closure: Closure): PlannedSplice[] {
  const place = new Map(closure.entries.map((entry, index) => [entry.cableId, index]));
  const sides = { end: 0, low: 0, high: 1 };
  const keyOf = ({ left }: PlannedSplice) => {
    const { cableId, side, fiber } = left[0]!;
    return (2 * place.get(cableId)! + sides[side]) * 100_000 + fiber;
  };
  const keys = Float64Array.from(splices, keyOf);
  // Nearly every order is written by the numbers already.
  if (keys.every((key, index) => index === 0 || keys[index - 1]! <= key)) return splices;
  return splices
    .map((splice, index) => ({ splice, key: keys[index]! }))
    .sort((a, b) => a.key - b.key)
    .map(({ splice }) => splice);
}

/** Tubes or ribbons of the left side on a tray, in order, each once: what a technician looks for when opening the tray. */
export function unitsOnTray(
  tray: PlannedTray,
  cables: ReadonlyMap<string, Cable>,
): readonly { readonly cableId: string; readonly unit: number }[] {
  const units = new Map<string, { cableId: string; unit: number }>();
  for (const splice of tray.splices) {
    const end = splice.left[0]!;
    const { unit } = unitOf(cables.get(end.cableId)!.construction, end.fiber);
    units.set(`${end.cableId}.${unit}`, { cableId: end.cableId, unit });
  }
  return [...units.values()];
}

function slotsOf(tray: Tray, row: readonly PlacedSplice[]): number {
  const ribbons = row[0] ? row[0].kind === 'ribbon' : tray.singleSlots === 0;
  return ribbons ? (tray.ribbonSlots ?? 0) : tray.singleSlots;
}

/** By which letter and number the order calls tubes and ribbons. */
class Names {
  private readonly keys: ReadonlyMap<string, string>;

  constructor(
    closure: Closure,
    private readonly cables: ReadonlyMap<string, Cable>,
  ) {
    this.keys = new Map(closure.entries.map((entry, index) => [entry.cableId, entryKey(entry, index)]));
  }

  /** `unit` counts tubes where ribbons lie in tubes. */
  unit(cableId: string, unit: number): HolderName {
    const key = this.keys.get(cableId) ?? '?';
    switch (this.cables.get(cableId)?.construction.kind) {
      case 'central-ribbon':
        return { key, kind: 'ribbon', number: unit };
      case 'drop':
      case 'pigtails':
        return { key, kind: 'cable', number: null };
      default:
        return { key, kind: 'tube', number: unit };
    }
  }

  holder(end: FiberEnd): HolderName {
    const { kind, unit, tube } = unitOf(this.cables.get(end.cableId)!.construction, end.fiber);
    return kind === 'bundle'
      ? { key: this.keys.get(end.cableId) ?? '?', kind: 'fiber', number: end.fiber }
      : this.unit(end.cableId, tube ?? unit);
  }
}

function reasonOf(
  { first, count, tray, because, passedOver }: Placement,
  splices: readonly PlannedSplice[],
  trays: readonly Tray[],
  names: Names,
): TrayReason {
  const { kind, left } = splices[first]!;
  return {
    tray,
    holder: names.holder(left[0]!),
    kind,
    count,
    because,
    passedOver,
    eitherKind: passedOver !== null && Boolean(trays[passedOver.tray - 1]!.ribbonSlots),
  };
}

/** Tubes or ribbons of either side that ended up on more than one tray. */
function splitUnits(
  placed: readonly PlacedSplice[],
  cables: ReadonlyMap<string, Cable>,
  names: Names,
): { holder: HolderName; trays: number[] }[] {
  // By cable and unit, the one tray it is on, or all of them once there are more. Most units have one, so nothing is made for them.
  const seen = new Map<string, { unitOf: Int32Array; trays: Int32Array }>();
  const split = new Map<string, { cableId: string; unit: number; trays: Set<number> }>();
  for (const { left, right, tray } of placed)
    for (const { cableId, fiber } of left.length === 1 ? [left[0]!, right[0]!] : [...left, ...right]) {
      let cable = seen.get(cableId);
      if (!cable) {
        const units = unitByFiber(cables.get(cableId)!.construction);
        seen.set(cableId, (cable = { unitOf: units, trays: new Int32Array(units.length + 1) }));
      }
      const unit = cable.unitOf[fiber]!;
      if (unit === 0) continue;
      const first = cable.trays[unit]!;
      if (first === 0) cable.trays[unit] = tray;
      else if (first !== tray) {
        const key = `${cableId} ${unit}`;
        const known = split.get(key);
        if (known) known.trays.add(tray);
        else split.set(key, { cableId, unit, trays: new Set([first, tray]) });
      }
    }
  return [...split.values()].map(({ cableId, unit, trays }) => ({
    holder: names.unit(cableId, unit),
    trays: [...trays].sort((a, b) => a - b),
  }));
}

/** Fibers of an entry that no line of the order takes: they go through, or stay dark. As ranges, both ends included. */
export function unassigned(
  plan: ClosurePlan,
  cable: Cable,
): { readonly from: number; readonly to: number }[] {
  const taken = new Uint8Array(fiberCount(cable.construction) + 2);
  for (const list of [plan.splices, plan.unplaced])
    for (const { left, right } of list)
      for (const ends of [left, right])
        for (const end of ends) if (end.cableId === cable.id) taken[end.fiber] = 1;
  for (const end of plan.ends) if (end.cableId === cable.id) taken[end.fiber] = 1;
  const ranges: { from: number; to: number }[] = [];
  for (let number = 1; number < taken.length - 1; number += 1) {
    if (taken[number]) continue;
    const last = ranges.at(-1);
    if (last && last.to === number - 1) last.to = number;
    else ranges.push({ from: number, to: number });
  }
  return ranges;
}
