import { sayAt } from '../../finding';
import type { Cable } from '../../line/cable';
import { fiberCount, fiberUnits } from '../../line/fiberNumber';
import { entryKey, goesThrough, type Closure, type Entry } from '../closure';
import type { PlannedSplice } from './order';
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

/**
 * Tubes of an express cable of which the order splices only some fibers: such a tube is cut through, so the others are cut with it. With a
 * window they would stay whole.
 */
export function partlyCutFindings(
  closure: Closure,
  cables: ReadonlyMap<string, Cable>,
  splices: readonly PlannedSplice[],
): PlanFinding[] {
  const findings: PlanFinding[] = [];
  closure.entries.forEach((entry, index) => {
    const cable = cables.get(entry.cableId);
    const units = cable ? fiberUnits(cable.construction) : [];
    if (!cable || entry.manner !== 'express' || units[0]!.kind !== 'tube') return;
    const cut = new Uint8Array(fiberCount(cable.construction) + 1);
    for (const { left, right } of splices)
      for (const ends of [left, right])
        for (const end of ends) if (end.fiber < cut.length && end.cableId === cable.id) cut[end.fiber] = 1;
    const key = entryKey(entry, index);
    const say = sayAt(findings, { kind: 'cable', key });
    for (const { unit, first, fibers } of units) {
      const used = cut.subarray(first, first + fibers).reduce((sum, one) => sum + one, 0);
      if (used === 0 || used === fibers) continue;
      say('tube-partly-cut', { key, unit, used, fibers }, 'warning');
    }
  });
  return findings;
}

/** How a cable most likely meets a closure at a site: it goes through, or ends there, a small one as a drop. */
export function usualManner(cable: Cable, siteId: string): Entry['manner'] {
  const at = cable.siteIds.indexOf(siteId);
  if (at > 0 && at < cable.siteIds.length - 1) return 'express';
  return cable.construction.kind === 'drop' || fiberCount(cable.construction) <= 4 ? 'drop' : 'cut';
}
