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
}

/** What a closure's order means: every splice with its tray and slot. Derived, never stored. */
export interface ClosurePlan {
  readonly closureId: string;
  readonly trays: readonly PlannedTray[];
  /** Where a splice is: index into `trays` and into that tray's `splices`. */
  readonly placeOf: ReadonlyMap<string, { readonly trayIndex: number; readonly index: number }>;
  readonly spliceCount: number;
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

  const trays = closure.trays.map((tray, index) => ({
    tray: index + 1,
    slots: tray.singleSlots,
    splices: [] as PlacedSplice[],
  }));
  const placeOf = new Map<string, { trayIndex: number; index: number }>();
  for (const splice of placed) {
    const row = trays[splice.tray - 1]!.splices;
    placeOf.set(splice.id, { trayIndex: splice.tray - 1, index: row.length });
    row.push(splice);
  }

  if (unplaced.length > 0)
    findings.push({
      code: 'over-capacity',
      severity: 'error',
      where: 'trays',
      message: `${unplaced.length} of ${splices.length} splices have no slot. Add a tray, or use trays with more slots.`,
    });
  return { closureId: closure.id, trays, placeOf, spliceCount: placed.length, unplaced, findings };
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
