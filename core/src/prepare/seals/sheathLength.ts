import { sayAt } from '../../finding';
import type { Cable } from '../../line/cable';
import { routeMeters, siteOf, type Site } from '../../line/project';
import type { PrepareFinding } from '../words';

/** Cable between two sites by the numbers printed on its sheath. m. */
export interface SheathSpan {
  readonly from: Site;
  readonly to: Site;
  /** Sheath between the two numbers. */
  readonly sheath: number;
  /** Fiber in it: longer than the sheath by the cable's excess. */
  readonly fiber: number;
  /** Distance along the route by the plan. */
  readonly route: number;
  readonly findings: readonly PrepareFinding[];
}

const metersPerFoot = 0.3048;
/** Cable that is stored at sites, beyond the route, before it is asked about (common practice). m */
const storedAtMost = 60;

/**
 * Lengths of cable and fiber between the sites at which a number was read, along the cable.
 * @param marks m, printed on the sheath, by site
 */
export function sheathSpans(
  cable: Cable,
  sites: readonly Site[],
  marks: ReadonlyMap<string, number>,
): SheathSpan[] {
  const read = cable.siteIds.filter((id) => marks.has(id));
  const rising = Math.sign(marks.get(read.at(-1)!)! - marks.get(read[0]!)!);
  return read.slice(1).map((id, index) => {
    const from = siteOf(sites, read[index]!);
    const to = siteOf(sites, id);
    const step = marks.get(to.id)! - marks.get(from.id)!;
    const sheath = Math.abs(step);
    const route = routeMeters(sites, from, to);
    const findings: PrepareFinding[] = [];
    const say = sayAt(findings, { kind: 'span', label: cable.label, from: from.name, to: to.name });
    if (step !== 0 && Math.sign(step) !== rising) say('turned', { site: from.name });
    const likely = (length: number) => length >= route * 0.99 - 5 && length <= route * 1.1 + storedAtMost;
    if (!likely(sheath)) {
      if (likely(sheath * metersPerFoot)) say('sheath-unit', { sheath, route, probably: 'feet' });
      else if (likely(sheath / metersPerFoot)) say('sheath-unit', { sheath, route, probably: 'meters' });
      else if (sheath < route) say('sheath-short', { sheath, route });
      else say('sheath-long', { sheath, route }, 'warning');
    }
    return { from, to, sheath, fiber: sheath * (1 + (cable.excess ?? 0)), route, findings };
  });
}
