import {
  fiberEndKey,
  siteOf,
  type FiberEnd,
  type LightCheck,
  type Cable,
  type Closure,
  type Fact,
  type MeasureTarget,
  type ProjectDefinition,
  type Tick,
  type TickTarget,
  measuredDiameters,
  tickOf,
  prepareState,
  type PrepareState,
} from '@cordel/core';
import { cutSheet, seatCables, type CutSheet, type FitSeat, type Schools } from '@cordel/core/prepare';
import { useCallback, useMemo } from 'react';
import { useRecordFact } from '../../sync/react';
import { usePreferences } from '../../data/preferences';
import { newLightCheck, newMeasurement, newTick, type TickMore } from '../../data/tickFacts';

export interface Preparing {
  readonly state: PrepareState;
  readonly tick: (target: TickTarget, state: Tick['body']['state'], more?: TickMore) => void;
  readonly checkLight: (end: FiberEnd, seen: LightCheck['body']['seen']) => void;
  /** null takes an earlier measurement back. */
  readonly measure: (target: MeasureTarget, value: number | null) => void;
}

/** What was ticked and measured at a closure, and how to add to it. */
export function usePrepare(projectId: string, closureId: string, facts: readonly Fact[]): Preparing {
  const record = useRecordFact(projectId);
  const state = useMemo(() => prepareState(facts), [facts]);
  const tick = useCallback<Preparing['tick']>(
    (target, next, more) => {
      void record(newTick(closureId, target, next, tickOf(state, target), more));
    },
    [record, closureId, state],
  );
  const measure = useCallback<Preparing['measure']>(
    (target, value) => {
      void record(newMeasurement(closureId, target, value, state.values.get(target.key) ?? null));
    },
    [record, closureId, state],
  );
  const checkLight = useCallback<Preparing['checkLight']>(
    (end, seen) => {
      void record(newLightCheck(closureId, end, seen, state.lights.get(fiberEndKey(end)) ?? null));
    },
    [record, closureId, state],
  );
  return useMemo(() => ({ state, tick, measure, checkLight }), [state, tick, measure, checkLight]);
}

export function useSchools(): Schools {
  const { tubeSchool, wipeSchool, ribbonizingSchool, sheathSchool, secondRing, scorerMotion, rodSchool } =
    usePreferences();
  return useMemo(
    () => ({
      tube: tubeSchool,
      wipe: wipeSchool,
      ribbonizing: ribbonizingSchool,
      sheath: sheathSchool,
      secondRing,
      scorer: scorerMotion,
      rod: rodSchool,
    }),
    [tubeSchool, wipeSchool, ribbonizingSchool, sheathSchool, secondRing, scorerMotion, rodSchool],
  );
}

/** Port and parts of a cable at a closure, by what was measured; null where they are not known. */
export function seatOf(
  closure: Closure,
  cables: ReadonlyMap<string, Cable>,
  state: PrepareState,
  cableId: string,
): FitSeat | null {
  const { seats } = seatCables(closure, cables, measuredDiameters(closure, state));
  return seats.find((seat) => seat.cable.id === cableId) ?? null;
}

/** Where the two sides of a cable lead from a closure: the names of the sites next to it along the cable. */
export function towardOf(
  definition: ProjectDefinition,
  closure: Closure,
  cable: Cable,
): { low: string; high: string } {
  const at = cable.siteIds.indexOf(closure.siteId);
  const name = (id: string | undefined, otherwise: string) =>
    id === undefined ? otherwise : siteOf(definition.sites, id).name;
  return {
    low: name(cable.siteIds[at - 1], 'the start'),
    high: name(cable.siteIds[at + 1], 'the end'),
  };
}

export function sheetOf(
  definition: ProjectDefinition,
  closure: Closure,
  plan: Parameters<typeof cutSheet>[1],
  cable: Cable,
  schools: Schools,
): CutSheet {
  const { units, limits } = definition.project;
  return cutSheet(closure, plan, cable, {
    units,
    school: schools.tube,
    secondRing: schools.secondRing,
    toward: towardOf(definition, closure, cable),
    redosWanted: Math.max(0, limits.tries - 1),
  });
}

const manners = {
  cut: 'ends here',
  branch: 'branch, ends here',
  drop: 'ends here',
  express: 'express',
  window: 'express, by window',
} as const;

export function mannerWords(closure: Closure, cable: Cable): string {
  const entry = closure.entries.find((one) => one.cableId === cable.id);
  return entry ? manners[entry.manner] : '';
}
