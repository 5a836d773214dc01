import type { Finding } from '../finding';
import type { Cable } from '../line/cable';
import { fiberCount } from '../line/fiberNumber';
import { entryKey, goesThrough, type Closure, type Entry } from './closure';

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

/** How a cable most likely meets a closure at a site: it goes through, or ends there, a small one as a drop. */
export function usualManner(cable: Cable, siteId: string): Entry['manner'] {
  const at = cable.siteIds.indexOf(siteId);
  if (at > 0 && at < cable.siteIds.length - 1) return 'express';
  return cable.construction.kind === 'drop' || fiberCount(cable.construction) <= 4 ? 'drop' : 'cut';
}
