import type { Finding } from '../finding';
import type { Cable } from '../line/cable';
import { siteOf, type Site, type Units } from '../line/project';
import { formatChainage } from '../units/length';

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
  readonly findings: readonly Finding[];
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
  units: Units,
): SheathSpan[] {
  const read = cable.siteIds.filter((id) => marks.has(id));
  const rising = Math.sign(marks.get(read.at(-1)!)! - marks.get(read[0]!)!);
  return read.slice(1).map((id, index) => {
    const from = siteOf(sites, read[index]!);
    const to = siteOf(sites, id);
    const step = marks.get(to.id)! - marks.get(from.id)!;
    const sheath = Math.abs(step);
    const route = distance(from, to);
    const findings: Finding[] = [];
    const say = (code: string, severity: Finding['severity'], message: string) =>
      void findings.push({ code, severity, where: `${cable.label}, ${from.name} to ${to.name}`, message });
    const far = (meters: number) => formatChainage(meters, units);
    if (step !== 0 && Math.sign(step) !== rising)
      say(
        'turned',
        'error',
        `The numbers run up on one side of ${from.name} and down on the other. Read them again.`,
      );
    const likely = (length: number) => length >= route * 0.99 - 5 && length <= route * 1.1 + storedAtMost;
    if (!likely(sheath)) {
      if (likely(sheath * metersPerFoot))
        say(
          'unit',
          'error',
          `${far(sheath)} of cable on ${far(route)} of route: the numbers on the sheath are probably feet. Enter them in meters, or switch the project to inches.`,
        );
      else if (likely(sheath / metersPerFoot))
        say(
          'unit',
          'error',
          `${far(sheath)} of cable on ${far(route)} of route: the numbers on the sheath are probably meters. Enter them as feet.`,
        );
      else if (sheath < route)
        say(
          'short',
          'error',
          `The sheath numbers give ${far(sheath)} of cable, and the plan has ${far(route)} of route. Read the numbers again, or correct the distance of the sites.`,
        );
      else
        say(
          'long',
          'warning',
          `The sheath numbers give ${far(sheath)} of cable on ${far(route)} of route, ${far(sheath - route)} more. Is so much stored at the sites?`,
        );
    }
    return { from, to, sheath, fiber: sheath * (1 + (cable.excess ?? 0)), route, findings };
  });
}

function distance(from: Site, to: Site): number {
  if (from.branchFrom === to.branchFrom) return Math.abs(to.chainage - from.chainage);
  // One of them lies on a branch that leaves at the other.
  return from.branchFrom === to.id ? from.chainage : to.chainage;
}
