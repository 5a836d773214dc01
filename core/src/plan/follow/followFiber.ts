import type { Cable } from '../../line/cable';
import { fiberCount } from '../../line/fiberNumber';
import { routeMeters, type Site } from '../../line/project';
import type { Closure } from '../closure';
import type { ClosurePlan } from '../trays/closurePlan';
import type { FiberEnd, FiberSide } from '../fiberEnd';
import type { PlannedEnd, PlannedSplice } from '../order/order';

/** A place on a fiber's way, from one end of the light's path to the other. */
export type WayStep =
  /** A length of one cable between two sites. */
  | {
      readonly kind: 'length';
      readonly cableId: string;
      readonly fiber: number;
      readonly fromSiteId: string;
      readonly toSiteId: string;
      /** Along the route, m. */
      readonly meters: number;
    }
  /** Joined to another fiber in a closure; `from` and `to` in the direction of the way. */
  | {
      readonly kind: 'splice';
      readonly siteId: string;
      readonly closureId: string;
      readonly splice: PlannedSplice;
      /** null where it found no slot. */
      readonly place: { readonly tray: number; readonly slot: number } | null;
      /** Which fiber of the splice, from 0. */
      readonly index: number;
      readonly from: FiberEnd;
      readonly to: FiberEnd;
    }
  /** Goes through a closure without being cut. */
  | { readonly kind: 'through'; readonly siteId: string; readonly closureId: string }
  /** Ends here, in a connector. */
  | {
      readonly kind: 'connector';
      readonly siteId: string;
      readonly closureId: string;
      readonly end: PlannedEnd;
    }
  | {
      readonly kind: 'stop';
      readonly siteId: string;
      readonly closureId: string | null;
      /** The cable ends at a site without a closure; the end is not in the plan; the fiber is cut and only its other face is joined; it comes back to where it was. */
      readonly because: 'no-closure' | 'not-planned' | 'cut' | 'loop';
    };

/** What following needs to know: the route, and every closure with its plan. */
export interface Route {
  readonly sites: readonly Site[];
  readonly cables: ReadonlyMap<string, Cable>;
  readonly closures: readonly { readonly closure: Closure; readonly plan: ClosurePlan }[];
}

/**
 * The way of the light through a fiber, from where it stops on one side to where it stops on the other: lengths of cable, splices,
 * closures it goes through. Throws RangeError when the cable has no such fiber.
 * @param span which part of the cable, by the index of the site at its start; 0 for the first. A fiber that is cut on the way has several
 */
export function followFiber(route: Route, cableId: string, fiber: number, span = 0): WayStep[] {
  const cable = route.cables.get(cableId);
  if (!cable || !Number.isInteger(fiber) || fiber < 1 || fiber > fiberCount(cable.construction))
    throw new RangeError(`There is no fiber ${fiber} in that cable`);
  const walker = new Walker(route);
  const last = Math.max(0, cable.siteIds.length - 2);
  const at = Math.min(Math.max(0, span), last);
  const start = { cable, fiber };
  const up = walker.walk({ ...start, at, step: 1 });
  // The other half is walked the other way and turned round; the length one stands on is in the first half only.
  const down = walker.walk({ ...start, at: at + 1, step: -1 }).slice(1);
  return [...down.reverse().map(turned), ...up];
}

function turned(step: WayStep): WayStep {
  if (step.kind === 'splice') return { ...step, from: step.to, to: step.from };
  if (step.kind === 'length') return { ...step, fromSiteId: step.toSiteId, toSiteId: step.fromSiteId };
  return step;
}

interface Place {
  readonly cable: Cable;
  readonly fiber: number;
  /** Index in the cable's sites that one stands at, and the direction one goes in. */
  readonly at: number;
  readonly step: 1 | -1;
}

class Walker {
  private readonly closureAt = new Map<string, { closure: Closure; plan: ClosurePlan }>();
  private readonly sites = new Map<string, Site>();

  constructor(private readonly route: Route) {
    for (const one of route.closures) this.closureAt.set(one.closure.siteId, one);
    for (const site of route.sites) this.sites.set(site.id, site);
  }

  walk(start: Place): WayStep[] {
    const steps: WayStep[] = [];
    const seen = new Set<string>();
    for (let place: Place | null = start; place;) {
      const { cable, fiber, at, step }: Place = place;
      const fromSiteId = cable.siteIds[at]!;
      const siteId: string | undefined = cable.siteIds[at + step];
      if (siteId === undefined) {
        // A cable whose far end is not on the route yet.
        steps.push({ kind: 'stop', siteId: fromSiteId, closureId: null, because: 'no-closure' });
        break;
      }
      steps.push({
        kind: 'length',
        cableId: cable.id,
        fiber,
        fromSiteId,
        toSiteId: siteId,
        meters: this.meters(fromSiteId, siteId),
      });
      place = this.arrive(steps, seen, { cable, fiber, at: at + step, step });
    }
    return steps;
  }

  /** Adds what is at the site where a fiber arrives; returns where it goes on, or null where it stops. */
  private arrive(steps: WayStep[], seen: Set<string>, { cable, fiber, at, step }: Place): Place | null {
    const siteId = cable.siteIds[at]!;
    const goesOn = at + step >= 0 && at + step < cable.siteIds.length;
    const here = this.closureAt.get(siteId);
    const stop = (because: Extract<WayStep, { kind: 'stop' }>['because']) => {
      steps.push({ kind: 'stop', siteId, closureId: here?.closure.id ?? null, because });
      return null;
    };
    if (!here) {
      if (!goesOn) return stop('no-closure');
      return { cable, fiber, at, step };
    }
    const { closure, plan } = here;
    const through = at > 0 && at < cable.siteIds.length - 1;
    const side: FiberSide = through ? (step === 1 ? 'low' : 'high') : 'end';
    const found = findEnd(plan, cable.id, fiber, side);
    if (!found) {
      const endOn = (at: FiberSide) =>
        plan.ends.find((end) => end.fiber === fiber && end.cableId === cable.id && end.side === at);
      const end = endOn(side);
      if (end) {
        steps.push({ kind: 'connector', siteId, closureId: closure.id, end });
        return null;
      }
      if (!goesOn) return stop('not-planned');
      const otherSide = side === 'low' ? 'high' : 'low';
      if (findEnd(plan, cable.id, fiber, otherSide) || endOn(otherSide)) return stop('cut');
      steps.push({ kind: 'through', siteId, closureId: closure.id });
      return { cable, fiber, at, step };
    }
    const { splice, place, index, onLeft } = found;
    const from = (onLeft ? splice.left : splice.right)[index]!;
    const to = (onLeft ? splice.right : splice.left)[index]!;
    const key = `${closure.id} ${splice.id} ${index}`;
    if (seen.has(key)) return stop('loop');
    seen.add(key);
    steps.push({ kind: 'splice', siteId, closureId: closure.id, splice, place, index, from, to });

    const next = this.route.cables.get(to.cableId)!;
    const nextAt = next.siteIds.indexOf(siteId);
    if (nextAt < 0) return stop('no-closure');
    const nextStep = to.side === 'high' ? 1 : to.side === 'low' ? -1 : nextAt === 0 ? 1 : -1;
    return { cable: next, fiber: to.fiber, at: nextAt, step: nextStep };
  }

  private meters(a: string, b: string): number {
    const [from, to] = [this.sites.get(a), this.sites.get(b)];
    if (!from || !to) return 0;
    return routeMeters(this.route.sites, from, to) || 0;
  }
}

interface FoundEnd {
  readonly splice: PlannedSplice;
  readonly place: { readonly tray: number; readonly slot: number } | null;
  readonly onLeft: boolean;
  readonly index: number;
}

/** Where a fiber end is spliced in a plan, or null. Looked for one by one: a closure is passed once or twice, which costs less than an index. */
function findEnd(plan: ClosurePlan, cableId: string, fiber: number, side: FiberSide): FoundEnd | null {
  // The number first: nearly every other end differs in it.
  const isIt = (end: FiberEnd) => end.fiber === fiber && end.cableId === cableId && end.side === side;
  const indexIn = (splice: PlannedSplice): Pick<FoundEnd, 'onLeft' | 'index'> | null => {
    for (let index = 0; index < splice.left.length; index += 1) {
      if (isIt(splice.left[index]!)) return { onLeft: true, index };
      if (isIt(splice.right[index]!)) return { onLeft: false, index };
    }
    return null;
  };
  for (const splice of plan.splices) {
    const found = indexIn(splice);
    if (found) return { splice, place: { tray: splice.tray, slot: splice.slot }, ...found };
  }
  for (const splice of plan.unplaced) {
    const found = indexIn(splice);
    if (found) return { splice, place: null, ...found };
  }
  return null;
}
