import type { Cable } from '../../line/cable';
import type { Closure } from '../../plan/closure';
import type { ClosurePlan } from '../../plan/trays/closurePlan';
import type { PlannedSplice } from '../../plan/order/order';
import { cutSheet, type CutSheet } from './cutSheet';

// A plan is replaced, never changed in place, so its sheets stay true as long as it is there.
const sheets = new WeakMap<ClosurePlan, Map<string, CutSheet>>();

/**
 * How often a splice may still be done again before the slack of one of its sides is used up: the cut sheets' redos, less one for every try after
 * the first. null where no side has a cut sheet with slack to count (pigtails, lengths that cannot be right). Never below 0.
 * @param tries attempts that were made
 * @param secondRing the cables are opened without a knife; see `CutSheetWishes`
 */
export function redosLeft(
  closure: Closure,
  plan: ClosurePlan,
  cables: ReadonlyMap<string, Cable>,
  splice: Pick<PlannedSplice, 'left' | 'right'>,
  tries: number,
  secondRing = false,
): number | null {
  let known = sheets.get(plan);
  if (!known) sheets.set(plan, (known = new Map<string, CutSheet>()));
  let fewest: number | null = null;
  for (const [end] of [splice.left, splice.right]) {
    const { cableId, fiber } = end!;
    const key = `${cableId} ${secondRing}`;
    let sheet = known.get(key);
    if (!sheet) {
      const cable = cables.get(cableId);
      if (!cable) continue;
      known.set(key, (sheet = cutSheet(closure, plan, cable, { units: 'mm', secondRing })));
    }
    const own = sheet.units.find(
      ({ unit: { holder } }) => fiber >= holder.first && fiber < holder.first + holder.fibers,
    );
    if (own) fewest = Math.min(fewest ?? Infinity, own.slack.redos);
  }
  return fewest === null ? null : Math.max(0, fewest - Math.max(0, tries - 1));
}
