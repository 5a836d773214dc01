import { sayAt } from '../../finding';
import type { Cable } from '../../line/cable';
import { fiberCount } from '../../line/fiberNumber';
import { entryKey, goesThrough, type Closure, type Entry } from '../closure';
import type { PlanFinding } from '../words';

/** What is wrong with how the cables meet the closure, before a single fiber is assigned. */
export function entryFindings(closure: Closure, cables: ReadonlyMap<string, Cable>): PlanFinding[] {
  const findings: PlanFinding[] = [];
  const keys = new Set<string>();
  const entered = new Set<string>();
  closure.entries.forEach((entry, index) => {
    const key = entryKey(entry, index);
    const say = sayAt(findings, { kind: 'cable', key });
    if (keys.has(key)) say('key-twice', { key });
    keys.add(key);
    const cable = cables.get(entry.cableId);
    if (!cable) {
      say('no-cable', {});
      return;
    }
    const { label } = cable;
    if (entered.has(cable.id)) say('cable-twice', { label });
    entered.add(cable.id);

    const at = cable.siteIds.indexOf(closure.siteId);
    if (at < 0) {
      say('not-at-site', { label });
      return;
    }
    const passes = at > 0 && at < cable.siteIds.length - 1;
    if (passes !== goesThrough(entry.manner)) say('manner', { label, manner: entry.manner, passes });
  });
  return findings;
}

/** How a cable most likely meets a closure at a site: it goes through, or ends there, a small one as a drop. */
export function usualManner(cable: Cable, siteId: string): Entry['manner'] {
  const at = cable.siteIds.indexOf(siteId);
  if (at > 0 && at < cable.siteIds.length - 1) return 'express';
  return cable.construction.kind === 'drop' || fiberCount(cable.construction) <= 4 ? 'drop' : 'cut';
}
