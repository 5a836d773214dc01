import {
  compareFacts,
  isSpliceFact,
  spliceIdOf,
  type Fact,
  type SealCheck,
  type SealPoint,
  type WholePoint,
} from '../facts';
import { fiberOf } from '../line/fiberType';
import { metalOf, type Cable } from '../line/cable';
import { fiberUnits } from '../line/fiberNumber';
import type { Site } from '../line/project';
import { goesThrough, type Closure } from '../plan/closure';
import { isOpened } from '../plan/opened/openedUnits';
import type { ClosurePlan } from '../plan/trays/closurePlan';
import type { SealState } from './sealState';
import { pointKey } from './sealState';
import { howSealed, openingsOf, tighteningOrder, type Opening } from './seals';

/** In the order in which the hands come to them; the flash test lies between "close" and "after". */
export type SealChapter = 'look' | 'tighten' | 'close' | 'after';

/** Something to look at in this closure, and what was answered. */
export interface SealPointAt {
  readonly key: string;
  readonly chapter: SealChapter;
  readonly point: SealPoint;
  /** Of the opening, for what is tightened. */
  readonly opening?: Opening;
  /** Sleeves on a tray. */
  readonly sleeves?: { readonly singles: number; readonly ribbons: number };
  readonly cableIds?: readonly string[];
  /** The answer that counts; null without one. */
  readonly check: SealCheck | null;
  /** It was answered, and something was done there afterwards: look again. */
  readonly stale: boolean;
}

/** A closure with all that is needed to know what is in it. */
export interface SealedThing {
  readonly closure: Closure;
  readonly plan: ClosurePlan;
  readonly cables: ReadonlyMap<string, Cable>;
  /** mm, by cable, where somebody measured. */
  readonly diameters: ReadonlyMap<string, number>;
  readonly facts: readonly Fact[];
}

/** The same with the place where it is: the words ask for it. */
export interface SealedAt extends SealedThing {
  readonly site: Pick<Site, 'name' | 'placement'>;
}

/** Fewer trays than this are strapped at the sides first (common practice). */
export const fewTrays = 6;

/** Everything to look at in a closure, made from what is really in it, in the order of work. Common practice; the maker's instruction comes first. */
export function sealPoints(thing: SealedThing, state: SealState): SealPointAt[] {
  const { closure, plan, cables } = thing;
  const how = howSealed(closure);
  const openings = openingsOf(closure, cables, thing.diameters);
  const points: SealPointAt[] = [];
  const worked = lastWork(thing);
  const add = (
    chapter: SealChapter,
    point: SealPoint,
    more: Partial<Pick<SealPointAt, 'opening' | 'sleeves' | 'cableIds'>> = {},
  ) => {
    const key = pointKey(point);
    const check = state.checks.get(key) ?? null;
    const last = point.what === 'tray' ? worked.get(point.tray) : undefined;
    const stale = check !== null && last !== undefined && compareFacts(check, last) < 0;
    points.push({ key, chapter, point, check, stale, ...more });
  };
  const whole = (chapter: SealChapter, point: WholePoint, cableIds?: readonly string[]) =>
    add(chapter, { what: 'whole', point }, cableIds ? { cableIds } : {});

  const here = closure.entries.flatMap((entry) => {
    const cable = cables.get(entry.cableId);
    return cable ? [{ entry, cable }] : [];
  });
  const opened = here.filter(({ cable }) => isOpened(plan, closure, cable));
  const used = plan.trays.filter(({ splices }) => splices.length > 0);
  for (const { tray, splices } of used) {
    const ribbons = splices.filter(({ kind }) => kind !== 'single').length;
    add('look', { what: 'tray', tray }, { sleeves: { singles: splices.length - ribbons, ribbons } });
  }
  if (used.length > 0 && closure.kind !== 'rack' && closure.kind !== 'drop') whole('look', 'straps');
  const withTubes = opened.filter(({ cable }) => cable.construction.kind !== 'pigtails');
  if (withTubes.length > 0)
    whole(
      'look',
      'tubes',
      withTubes.map(({ cable }) => cable.id),
    );
  const ribbons = opened.filter(({ cable }) => fiberUnits(cable.construction)[0]!.kind === 'ribbon');
  if (closure.kind === 'dome' && ribbons.length > 0)
    whole(
      'look',
      'transport-tubes',
      ribbons.map(({ cable }) => cable.id),
    );
  if (withTubes.length > 0 && closure.kind !== 'rack')
    whole(
      'look',
      'strength-members',
      withTubes.map(({ cable }) => cable.id),
    );
  const metal = opened.filter(({ cable }) => Object.values(metalOf(cable.construction)).some(Boolean));
  if (metal.length > 0)
    whole(
      'look',
      'ground',
      metal.map(({ cable }) => cable.id),
    );
  const drops = here.filter(({ cable }) => cable.construction.kind === 'drop');
  if (closure.kind === 'dome' && drops.length > 1)
    whole(
      'look',
      'bobbin',
      drops.map(({ cable }) => cable.id),
    );
  for (const { entry, cable } of opened)
    if (goesThrough(entry.manner)) add('look', { what: 'coil', cableId: cable.id });
  if (closure.kind !== 'rack') {
    // Pigtails go through no wall.
    const seated = new Set(openings.flatMap(({ guests }) => guests.map(({ seat }) => seat.cable.id)));
    for (const cableId of seated) add('look', { what: 'seal', cableId });
    for (const port of closure.ports ?? []) {
      const count = openings.filter((one) => one.port === port.name && one.guests.length === 0).length;
      if (count > 0) add('look', { what: 'plugs', port: port.name, count: Math.min(96, count) });
    }
    whole('look', 'gasket');
  }
  if (how)
    for (const opening of tighteningOrder(openings, how))
      add('tighten', { what: 'tightened', seal: opening.seal }, { opening });
  if (closure.kind === 'dome') {
    whole('close', 'bolts');
    whole('close', 'dome');
    whole('close', 'lip');
    whole('close', 'latch');
  } else whole('close', 'cover');
  if (closure.kind === 'dome') whole('after', 'collar');
  if (closure.kind !== 'rack') {
    whole('after', 'mounted');
    whole('after', 'slack-stored');
  }
  whole('after', 'tag');
  // Two ports of one name would make the same point twice.
  return [...new Map(points.map((one) => [one.key, one])).values()];
}

/** The last thing that was done to a splice of each tray. */
function lastWork({ plan, facts }: SealedThing): Map<number, Fact> {
  const trayOf = new Map(plan.splices.map(({ id, tray }) => [id, tray]));
  const last = new Map<number, Fact>();
  for (const fact of facts) {
    if (fact.kind !== 'attempt' || !isSpliceFact(fact)) continue;
    const tray = trayOf.get(spliceIdOf(fact));
    if (tray === undefined) continue;
    const before = last.get(tray);
    if (!before || compareFacts(before, fact) < 0) last.set(tray, fact);
  }
  return last;
}

/** The tightest coil that a cable's fiber bears, as a diameter, mm. */
export function tightestCoil(cable: Cable): number {
  return 2 * fiberOf(cable).type.bendRadius;
}

/** Whether a point stands: it was answered with yes, and nothing was done there since. */
export function pointHolds({ check, stale }: Pick<SealPointAt, 'check' | 'stale'>): boolean {
  return check?.body.answer === 'yes' && !stale;
}

/** What is to be tightened next, or null; and whether those that are tightened were taken in another order. */
export function tighteningStands(points: readonly SealPointAt[]): {
  readonly next: SealPointAt | null;
  readonly outOfOrder: boolean;
} {
  const list = points.filter(({ chapter }) => chapter === 'tighten');
  const next = list.find((one) => !pointHolds(one)) ?? null;
  const done = list.flatMap((one) => (pointHolds(one) ? [one.check!] : []));
  const behind = next ? list.slice(list.indexOf(next) + 1).some(pointHolds) : false;
  const outOfOrder =
    behind || done.some((check, index) => index > 0 && compareFacts(done[index - 1]!, check) > 0);
  return { next, outOfOrder };
}
