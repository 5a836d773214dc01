import type { Cable } from '../../line/cable';
import { fiberOf } from '../../line/fiberType';
import { routeMeters, siteOf, type Site } from '../../line/project';

/** How far it is to a site along the fiber, m. */
export interface FiberDistance {
  readonly meters: number;
  /** What it may be off by, either way. */
  readonly uncertainty: number;
}

/** Cable that is stored for each end of a stretch that lies in a closure, m, where no numbers of its sheath are known: 0 to 30 (common practice). */
const usualSlack = 15;
/** Where a cable's excess is not known (from memory: 0 to 4 % over the constructions), and how well one that is given holds. */
const usualExcess = 0.02;
const excessUnknown = 0.02;
const excessGiven = 0.005;
/** How well two numbers on a sheath are read, m. */
const sheathRead = 1;

/** Fiber between two neighboring sites of a cable. */
function stretchOf(
  cable: Cable,
  from: Site,
  to: Site,
  sites: readonly Site[],
  marks: ReadonlyMap<string, number>,
): FiberDistance | null {
  const excess = cable.excess ?? usualExcess;
  const share = cable.excess === undefined ? excessUnknown : excessGiven;
  const [first, last] = [marks.get(from.id), marks.get(to.id)];
  if (first !== undefined && last !== undefined) {
    const sheath = Math.abs(last - first);
    return { meters: sheath * (1 + excess), uncertainty: sheath * share + sheathRead };
  }
  const route = routeMeters(sites, from, to);
  if (!Number.isFinite(route)) return null;
  const ends = [from, to].filter(({ kind }) => kind === 'closure' || kind === 'terminal').length;
  return {
    meters: (route + ends * usualSlack) * (1 + excess),
    uncertainty: route * share + ends * usualSlack * (1 + excess),
  };
}

/**
 * How far each site is from one of them along the fiber: the sheath by its numbers where they are known, else the route and what is usually stored; longer by the cables' excess. Where several
 * cables lie between two sites the shortest and the longest of them bound it. Sites that no cable leads to are not in it.
 * @param marks numbers on the sheaths, m, by cable and site
 * @param named cables that are meant; where none of them lies between two sites, all do
 */
export function fiberDistances(
  from: string,
  sites: readonly Site[],
  cables: readonly Cable[],
  marks: ReadonlyMap<string, ReadonlyMap<string, number>>,
  named: ReadonlySet<string> = new Set(),
): ReadonlyMap<string, FiberDistance> {
  const none = new Map<string, number>();
  const between = new Map<string, Map<string, { cable: Cable; stretch: FiberDistance }[]>>();
  const join = (a: string, b: string, one: { cable: Cable; stretch: FiberDistance }) => {
    const ways = between.get(a) ?? new Map<string, { cable: Cable; stretch: FiberDistance }[]>();
    between.set(a, ways);
    ways.set(b, [...(ways.get(b) ?? []), one]);
  };
  for (const cable of cables)
    cable.siteIds.slice(1).forEach((id, index) => {
      const before = cable.siteIds[index]!;
      const stretch = stretchOf(
        cable,
        siteOf(sites, before),
        siteOf(sites, id),
        sites,
        marks.get(cable.id) ?? none,
      );
      if (!stretch) return;
      join(before, id, { cable, stretch });
      join(id, before, { cable, stretch });
    });
  const found = new Map<string, FiberDistance>([[from, { meters: 0, uncertainty: 0 }]]);
  // Nearest first (Dijkstra 1959).
  const done = new Set<string>();
  for (;;) {
    let at: string | null = null;
    for (const [id, { meters }] of found)
      if (!done.has(id) && (at === null || meters < found.get(at)!.meters)) at = id;
    if (at === null) return found;
    done.add(at);
    const so = found.get(at)!;
    for (const [id, ways] of between.get(at) ?? []) {
      const meant = ways.filter(({ cable }) => named.has(cable.id));
      const step = boundsOf((meant.length > 0 ? meant : ways).map(({ stretch }) => stretch));
      const next = { meters: so.meters + step.meters, uncertainty: so.uncertainty + step.uncertainty };
      const known = found.get(id);
      if (!known || next.meters < known.meters) found.set(id, next);
    }
  }
}

/** One distance that holds them all. */
function boundsOf(list: readonly FiberDistance[]): FiberDistance {
  const low = Math.min(...list.map(({ meters, uncertainty }) => meters - uncertainty));
  const high = Math.max(...list.map(({ meters, uncertainty }) => meters + uncertainty));
  return { meters: (low + high) / 2, uncertainty: (high - low) / 2 };
}

/** What a reflectometer's distance may be off by itself, m (from memory: 1 m, its sampling, and 0.01 % of the distance). */
export const readingError = (meters: number): number => 2 + meters * 1e-4;

/** The mean group index of these cables' fibers: distances are shown for the one that was set. */
export function indexOf(cables: readonly Cable[]): number {
  return cables.length === 0
    ? 1.4677
    : cables.reduce((sum, cable) => sum + (cable.groupIndex ?? fiberOf(cable).type.index), 0) / cables.length;
}
