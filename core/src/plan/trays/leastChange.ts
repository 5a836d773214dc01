import type { Cable } from '../../line/cable';
import type { Closure, Tray } from '../closure';
import type { PlannedSplice } from '../order/order';
import { layOutTrays } from './trayLayout';

/** More trays than a closure ever has. */
const mostTrays = 1000;

/** What would make everything fit: fewer spare slots, no pins, trays that take ribbons, larger ones, or so many more like the last one. */
export type LeastChange =
  | { readonly kind: 'no-spare-slots' | 'no-pins' | 'ribbon-trays' | 'more-slots' }
  | { readonly kind: 'more-trays'; readonly trays: number; readonly slots: number };

/**
 * What would make everything fit, the smallest change first: fewer spare slots, no pins, or so many more trays like the last
 * one. Whatever it says has been tried, and splits nothing that a tray could hold whole.
 * @param unplaced the splices that found no slot; at least one
 */
export function leastChange(
  closure: Closure,
  splices: readonly PlannedSplice[],
  unplaced: readonly PlannedSplice[],
  cables: ReadonlyMap<string, Cable>,
): LeastChange {
  const { trays, spareSlots = 0, pins = [] } = closure;
  const allFit = (onto: readonly Tray[], wishes: { spareSlots: number; pins: typeof pins }) => {
    const layout = layOutTrays(splices, onto, cables, wishes);
    return layout.unplaced.length === 0 && layout.placements.every(({ because }) => because !== 'split');
  };
  if (spareSlots > 0 && allFit(trays, { spareSlots: 0, pins })) return { kind: 'no-spare-slots' };
  if (pins.length > 0 && allFit(trays, { spareSlots, pins: [] })) return { kind: 'no-pins' };

  const like = trays.at(-1)!;
  const { kind } = unplaced[0]!;
  const slots = kind === 'ribbon' ? (like.ribbonSlots ?? 0) : like.singleSlots;
  if (slots <= spareSlots) return { kind: kind === 'ribbon' ? 'ribbon-trays' : 'more-slots' };
  const fits = (more: number) =>
    allFit([...trays, ...Array.from({ length: more }, () => like)], { spareSlots, pins });
  // So many at least, since not even splitting found them room; doubled until it fits, then halved between.
  let tooFew = Math.ceil(unplaced.length / (slots - spareSlots)) - 1;
  let enough = tooFew + 1;
  while (enough <= mostTrays && !fits(enough)) {
    tooFew = enough;
    enough *= 2;
  }
  if (enough > mostTrays) return { kind: 'more-slots' };
  while (enough - tooFew > 1) {
    const middle = (enough + tooFew) >> 1;
    if (fits(middle)) enough = middle;
    else tooFew = middle;
  }
  return { kind: 'more-trays', trays: enough, slots };
}
