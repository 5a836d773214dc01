import type { Finding } from '../finding';
import type { Cable } from '../line/cable';
import { unitOf } from '../line/fiberNumber';
import type { Closure } from './closure';
import { expandOrder, type PlannedSplice } from './order';
import { layOutTrays, type PlacedSplice } from './trayLayout';

export interface PlannedTray {
  readonly tray: number;
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
  readonly findings: readonly Finding[];
}

/** Expands a closure's order and lays it out on its trays. */
export function planClosure(closure: Closure, cables: ReadonlyMap<string, Cable>): ClosurePlan {
  const { splices, findings } = expandOrder(closure, cables);
  const { placed, unplaced } = layOutTrays(splices, closure.trays, (splice) => {
    const end = splice.left[0]!;
    return `${end.cableId}.${unitOf(cables.get(end.cableId)!.construction, end.fiber).unit}`;
  });

  const positionOf = new Map<string, number>();
  const fibersOn = closure.trays.map(() => 0);
  const rows = closure.trays.map((): PlacedSplice[] => []);
  for (const [position, splice] of placed.entries()) {
    positionOf.set(splice.id, position);
    rows[splice.tray - 1]!.push(splice);
    fibersOn[splice.tray - 1]! += splice.left.length;
  }
  const fibers = fibersOn.reduce((sum, count) => sum + count, 0);
  let first = 0;
  const trays = rows.map((row, index) => {
    const tray = {
      tray: index + 1,
      slots: closure.trays[index]!.singleSlots,
      splices: row,
      first,
      fibers: fibersOn[index]!,
    };
    first += row.length;
    return tray;
  });

  if (unplaced.length > 0)
    findings.push({
      code: 'over-capacity',
      severity: 'error',
      where: 'trays',
      message: `${unplaced.length} of ${splices.length} splices have no slot. Add a tray, or use trays with more slots.`,
    });
  return { closureId: closure.id, trays, splices: placed, positionOf, fibers, unplaced, findings };
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
