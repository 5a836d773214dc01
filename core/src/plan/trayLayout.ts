import type { Tray } from './closure';
import type { PlannedSplice } from './order';

export interface PlacedSplice extends PlannedSplice {
  /** 1 … from the bottom up. */
  readonly tray: number;
  /** 1 … in the tray. */
  readonly slot: number;
}

/**
 * Puts splices into trays in their order. Splices of one unit (`unitKey`: the same tube or ribbon) stay together: a unit that
 * does not fit into what is left of a tray starts the next one, unless it is larger than a whole tray and has to be split.
 * Returns what found a slot and what did not.
 */
export function layOutTrays(
  splices: readonly PlannedSplice[],
  trays: readonly Tray[],
  unitKey: (splice: PlannedSplice) => string,
): { placed: PlacedSplice[]; unplaced: PlannedSplice[] } {
  const placed: PlacedSplice[] = [];
  const unplaced: PlannedSplice[] = [];
  let tray = 0;
  let used = 0;

  for (let start = 0; start < splices.length;) {
    const key = unitKey(splices[start]!);
    let end = start + 1;
    while (end < splices.length && unitKey(splices[end]!) === key) end += 1;

    const size = end - start;
    const freeHere = (trays[tray]?.singleSlots ?? 0) - used;
    const next = trays[tray + 1];
    if (size > freeHere && used > 0 && next && size <= next.singleSlots) {
      tray += 1;
      used = 0;
    }
    for (const splice of splices.slice(start, end)) {
      while (tray < trays.length && used >= trays[tray]!.singleSlots) {
        tray += 1;
        used = 0;
      }
      if (tray >= trays.length) {
        unplaced.push(splice);
      } else {
        used += 1;
        // Written out, not spread: objects made alike in one piece are what judging thousands of them reads twice as fast.
        const { id, kind, left, right, circuit } = splice;
        placed.push({ id, kind, left, right, circuit, tray: tray + 1, slot: used });
      }
    }
    start = end;
  }
  return { placed, unplaced };
}
