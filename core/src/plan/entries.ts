import type { Finding } from '../finding';
import type { Cable } from '../line/cable';
import { fiberCount, fiberUnits } from '../line/fiberNumber';
import { entryKey, goesThrough, type Closure, type Entry } from './closure';
import type { PlannedSplice } from './order';

/** What is wrong with how the cables meet the closure, before a single fiber is assigned. */
export function entryFindings(closure: Closure, cables: ReadonlyMap<string, Cable>): Finding[] {
  const findings: Finding[] = [];
  const keys = new Set<string>();
  const entered = new Set<string>();
  closure.entries.forEach((entry, index) => {
    const key = entryKey(entry, index);
    const say = (code: string, message: string) =>
      void findings.push({ code, severity: 'error', where: `cable ${key}`, message });
    if (keys.has(key))
      say('key-twice', `Two cables are called ${key} here. Give one of them another letter.`);
    keys.add(key);
    const cable = cables.get(entry.cableId);
    if (!cable) {
      say('no-cable', 'A cable comes in here that the project does not have. Take it out.');
      return;
    }
    if (entered.has(cable.id)) say('cable-twice', `${cable.label} comes in twice. Take one of them out.`);
    entered.add(cable.id);

    const at = cable.siteIds.indexOf(closure.siteId);
    if (at < 0) {
      say(
        'not-at-site',
        `${cable.label} does not run to this site. Change the sites it runs through, or take it out here.`,
      );
      return;
    }
    const passes = at > 0 && at < cable.siteIds.length - 1;
    if (passes && !goesThrough(entry.manner))
      say(
        'manner',
        `${cable.label} runs on behind this site, so it cannot come in as “${entry.manner}”. Let it in as express or window, or end the cable here.`,
      );
    if (!passes && goesThrough(entry.manner))
      say(
        'manner',
        `${cable.label} ends at this site, so it cannot come in as “${entry.manner}”. Let it in as cut, branch or drop.`,
      );
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
): Finding[] {
  const findings: Finding[] = [];
  closure.entries.forEach((entry, index) => {
    const cable = cables.get(entry.cableId);
    const units = cable ? fiberUnits(cable.construction) : [];
    if (!cable || entry.manner !== 'express' || units[0]!.kind !== 'tube') return;
    const cut = new Uint8Array(fiberCount(cable.construction) + 1);
    for (const { left, right } of splices)
      for (const ends of [left, right])
        for (const end of ends) if (end.fiber < cut.length && end.cableId === cable.id) cut[end.fiber] = 1;
    const key = entryKey(entry, index);
    for (const { unit, first, fibers } of units) {
      const used = cut.subarray(first, first + fibers).reduce((sum, one) => sum + one, 0);
      if (used === 0 || used === fibers) continue;
      findings.push({
        code: 'tube-partly-cut',
        severity: 'warning',
        where: `cable ${key}`,
        message: `Only ${used} of the ${fibers} fibers of tube ${unit} of ${key} are spliced, and an express cable's tube is cut whole. Let the cable in by a window, or splice them all.`,
      });
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
