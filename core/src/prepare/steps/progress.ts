import type { Fact } from '../../facts';
import type { Cable } from '../../line/cable';
import type { Closure } from '../../plan/closure';
import type { ClosurePlan } from '../../plan/trays/closurePlan';
import type { ClosureLedger } from '../../splice/record/ledger';
import { needsSplicing } from '../../splice/bench/workOrder';
import { isSealed } from '../../seal/stage';
import { cutSheet, type CutSheet } from '../cut/cutSheet';
import { connectorsLeft, splicesLeft, type WorkLeft } from '../time/estimate';
import { connectorsToPutOn } from './connectors';
import type { Chapter } from './step';
import {
  isDone,
  measuredDiameters,
  prepareState,
  tickOf,
  tickTargets,
  type PrepareState,
} from './tickTargets';

export interface Progress {
  readonly done: number;
  readonly total: number;
}

/** How many marks of a cut sheet are made. */
export function marksProgress(sheet: CutSheet, state: PrepareState): Progress {
  return {
    done: sheet.marks.filter((mark) => isDone(state, tickTargets.mark(sheet.cableId, mark.id))).length,
    total: sheet.marks.length,
  };
}

/** How many of the guided steps of a cable are done. */
export function stepsProgress(cableId: string, chapters: readonly Chapter[], state: PrepareState): Progress {
  const steps = chapters.flatMap((chapter) => chapter.steps);
  return {
    done: steps.filter((step) => isDone(state, tickTargets.step(cableId, step.id))).length,
    total: steps.length,
  };
}

/** A mark that was ticked at another measure than the sheet now asks for, mm: the plan or the closure's table changed since. */
export function movedSince(sheet: CutSheet, markId: string, state: PrepareState): number | null {
  const body = tickOf(state, tickTargets.mark(sheet.cableId, markId))?.body;
  const mark = sheet.marks.find((one) => one.id === markId);
  if (!mark || body?.what !== 'mark' || body.state !== 'done' || body.mm === null) return null;
  return Math.abs(body.mm - mark.at) > 0.5 ? body.mm : null;
}

/** What of a closure's work is left: marks that are not made, splices that are not settled, and the sealing. */
export function workLeft(
  closure: Closure,
  plan: ClosurePlan,
  cables: ReadonlyMap<string, Cable>,
  ledger: Pick<ClosureLedger, 'trays'>,
  facts: readonly Fact[],
): WorkLeft {
  const state = prepareState(facts);
  const unprepared = new Map<string, number>();
  for (const { cableId } of closure.entries) {
    const cable = cables.get(cableId);
    if (!cable) continue;
    const { done, total } = marksProgress(cutSheet(closure, plan, cable, { units: 'mm' }), state);
    unprepared.set(cableId, total === 0 ? 1 : (total - done) / total);
  }
  const open = ledger.trays.flatMap(({ splices }) => splices.filter(needsSplicing).map((one) => one.splice));
  return {
    unprepared,
    ...splicesLeft(closure, [...open, ...plan.unplaced], cables),
    ...connectorsLeft(connectorsToPutOn(plan, state), cables),
    sealed: isSealed({ closure, plan, cables, diameters: measuredDiameters(closure, state), facts }),
  };
}
