import type { Cable } from '../../line/cable';
import type { Units } from '../../line/project';
import type { Closure } from '../../plan/closure';
import type { ClosurePlan } from '../../plan/trays/closurePlan';
import { unitOf } from '../../line/fiberNumber';
import { formatTape } from '../../units/tapeLength';
import {
  connectorChapter,
  dropChapter,
  pigtailChapter,
  ribbonizingChapter,
  type Ending,
  type RibbonizingSchool,
} from './chaptersMore';
import { openChapter, ribbonChapter, tubeChapter, type SheathSchool, type StepContext } from './chaptersOpen';
import { fitChapter, type FitSeat, type RodSchool } from './fitting';
import type { WipeSchool } from './wipe';
import { cutSheet } from '../cut/cutSheet';
import { endsInConnectors, isOpened } from '../../plan/opened/openedUnits';
import type { Chapter } from './step';
import type { ScorerMotion, TubeSchool } from '../cut/tubeTool';

/** Ways of working that people differ in, each remembered. */
export interface Schools {
  readonly tube: TubeSchool;
  readonly wipe: WipeSchool;
  readonly ribbonizing: RibbonizingSchool;
  readonly sheath: SheathSchool;
  /** A second ring cut near the end, so that the ripcords stand free, where the closure does not ask for it anyway. */
  readonly secondRing: boolean;
  readonly scorer: ScorerMotion;
  readonly rod: RodSchool;
}

export const usualSchools: Schools = {
  tube: 'scorer',
  wipe: 'dry',
  ribbonizing: 'pads',
  sheath: 'ripcord-first',
  secondRing: false,
  scorer: 'round',
  rod: 'marked',
};

/**
 * The guided steps for a cable at a closure, put together for its construction, the way it enters, the plan and the schools. Empty when nothing
 * of it is opened here.
 */
export function stepsFor(
  closure: Closure,
  plan: ClosurePlan,
  cable: Cable,
  wishes: {
    readonly units: Units;
    readonly schools: Schools;
    /** Its port and parts; null where they are not known. */
    readonly seat: FitSeat | null;
    readonly ending?: Ending;
    readonly toward?: { readonly low: string; readonly high: string };
  },
): Chapter[] {
  if (!isOpened(plan, closure, cable)) return [];
  const { units, schools, seat, ending = 'splice', toward } = wishes;
  const sheet = cutSheet(closure, plan, cable, {
    units,
    school: schools.tube,
    secondRing: schools.secondRing,
    ...(toward ? { toward } : {}),
  });
  const context: StepContext = {
    cable,
    sheet,
    tape: (length) => formatTape(length, units),
    schools,
    closureKind: closure.kind,
    seat,
  };
  const chapters: Chapter[] = [];
  const { kind } = cable.construction;
  if (kind === 'drop') chapters.push(dropChapter(context), fitChapter(context));
  else if (kind === 'pigtails') chapters.push(pigtailChapter(context));
  else {
    chapters.push(openChapter(context), fitChapter(context));
    if (sheet.units.length > 0)
      chapters.push(kind === 'stranded-tubes' ? tubeChapter(context) : ribbonChapter(context));
  }
  const sizes = ribbonizedSizes(plan, cable);
  if (sizes.length > 0) chapters.push(ribbonizingChapter(context, schools.ribbonizing, sizes));
  // What ends in connectors by the order has their steps for each fiber: `connectorSteps`.
  if ((kind === 'drop' || kind === 'pigtails') && ending !== 'splice' && !endsInConnectors(plan, cable.id))
    chapters.push(connectorChapter(context, ending));
  return chapters;
}

/** How many fibers the ribbons have that are to be made of this cable's loose fibers, each size once, the largest first; empty when none is. */
export function ribbonizedSizes(plan: ClosurePlan, cable: Cable): number[] {
  const sizes = new Set<number>();
  for (const { kind, left, right } of [...plan.splices, ...plan.unplaced]) {
    if (kind !== 'ribbon') continue;
    for (const ends of [left, right]) {
      const [end] = ends;
      if (end!.cableId === cable.id && unitOf(cable.construction, end!.fiber).kind !== 'ribbon')
        sizes.add(ends.length);
    }
  }
  return [...sizes].sort((a, b) => b - a);
}
