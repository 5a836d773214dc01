import { sayAt } from '../../finding';
import type { Cable } from '../../line/cable';
import { entryKey, goesThrough, type Closure } from '../closure';
import type { ClosurePlan } from '../trays/closurePlan';
import type { HolderName, PlanFinding } from '../words';
import { liveIn, openedUnits, type Holder } from './openedUnits';

/**
 * What is cut or endangered beside the fibers that the order takes, where a cable goes through: a tube, a ribbon or a tube with ribbons in it is
 * cut whole, and by a window only a ribbon of which some fibers are taken is split.
 */
export function openedFindings(
  closure: Closure,
  cables: ReadonlyMap<string, Cable>,
  plan: Pick<ClosurePlan, 'splices' | 'unplaced' | 'ends'>,
): PlanFinding[] {
  const findings: PlanFinding[] = [];
  closure.entries.forEach((entry, index) => {
    const cable = cables.get(entry.cableId);
    if (!cable || !goesThrough(entry.manner)) return;
    const key = entryKey(entry, index);
    const say = sayAt(findings, { kind: 'cable', key });
    for (const { holder, used, cutToo, splitFrom } of openedUnits(plan, cable, entry.manner).opened) {
      const live = liveIn(cable, cutToo);
      const about = { holder: nameOf(holder, key), used, fibers: holder.fibers };
      if (live.length > 0) say('live-cut-too', { ...about, live });
      else if (cutToo.length > 0) say('partly-cut', about, 'warning');
      const beside = liveIn(cable, splitFrom);
      if (beside.length > 0) say('live-split', { holder: about.holder, live: beside }, 'warning');
    }
  });
  return findings;
}

/** As the order calls it. */
export function nameOf({ kind, number }: Holder, key: string): HolderName {
  return kind === 'bundle' ? { key, kind: 'cable', number: null } : { key, kind, number };
}
