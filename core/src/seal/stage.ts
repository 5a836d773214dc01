import { compareFacts, type SealName } from '../facts';
import { isDone, prepareState, tickTargets } from '../prepare/steps/tickTargets';
import {
  pointHolds,
  sealPoints,
  tighteningStands,
  type SealChapter,
  type SealPointAt,
  type SealedThing,
} from './finalLook';
import { howSealed, openingsOf, sealsToTest, type HowSealed, type Opening } from './seals';
import { roundResult, sealState, type FlashRound, type RoundResult, type SealState } from './sealState';

/** Why a closure is not sealed yet, the most urgent first. */
export type SealBlock =
  /** There is pressure in it; the cap of its valve is off. */
  | { readonly code: 'pressure'; readonly kPa: number }
  | { readonly code: 'cap-off' }
  /** It was answered with no. */
  | { readonly code: 'wrong'; readonly point: SealPointAt }
  /** Something was done there since it was looked at. */
  | { readonly code: 'stale'; readonly points: readonly SealPointAt[] }
  | { readonly code: 'open'; readonly chapter: SealChapter; readonly count: number }
  /** The closure's table gives no test pressure. */
  | { readonly code: 'no-test-pressure' }
  | { readonly code: 'test'; readonly result: RoundResult | 'none' | 'reseated' };

export interface SealStage {
  readonly how: HowSealed | null;
  readonly state: SealState;
  readonly openings: readonly Opening[];
  readonly points: readonly SealPointAt[];
  /** Seals that a flash test looks at. */
  readonly seals: readonly SealName[];
  /** kPa by the model; 0 where none is made; null where the table does not say. */
  readonly testPressure: number | null;
  /** The round that counts: the last one since the closure was opened again. */
  readonly round: FlashRound | null;
  readonly result: RoundResult | 'none' | 'reseated';
  readonly blocks: readonly SealBlock[];
  readonly sealed: boolean;
  /** It was only ticked as sealed, as older versions did, with no points and no test on record. */
  readonly tickedOnly: boolean;
  /** Whether anything of its seal is on record since it was last opened. */
  readonly begun: boolean;
}

/** What stands between a closure and its seal. */
export function sealStage(thing: SealedThing): SealStage {
  const { closure, facts } = thing;
  const how = howSealed(closure);
  const state = sealState(facts);
  const openings = openingsOf(closure, thing.cables, thing.diameters);
  const points = sealPoints(thing, state);
  const seals = sealsToTest(openings, closure);
  const testPressure = how ? (closure.testPressure ?? null) : 0;
  const round = state.rounds.filter(({ before }) => !before).at(-1) ?? null;
  const result = !round
    ? 'none'
    : round.released !== null && round.reseated.length > 0
      ? 'reseated'
      : roundResult(round, seals, testPressure ?? 0);

  const blocks: SealBlock[] = [];
  if (state.pressure) blocks.push({ code: 'pressure', kPa: state.pressure.kPa });
  else if (state.capOff) blocks.push({ code: 'cap-off' });
  for (const point of points) if (point.check?.body.answer === 'no') blocks.push({ code: 'wrong', point });
  const stale = points.filter((one) => one.stale && one.check?.body.answer === 'yes');
  if (stale.length > 0) blocks.push({ code: 'stale', points: stale });
  for (const chapter of ['look', 'tighten', 'close'] as const) openIn(chapter);
  if (testPressure === null) blocks.push({ code: 'no-test-pressure' });
  else if (testPressure > 0 && (result !== 'tight' || round?.released === null))
    blocks.push({ code: 'test', result: result === 'tight' ? 'open' : result });
  openIn('after');

  function openIn(chapter: SealChapter) {
    const count = points.filter((one) => one.chapter === chapter && one.check === null).length;
    if (count > 0) blocks.push({ code: 'open', chapter, count });
  }
  const sealed = blocks.length === 0;
  const begun = state.checks.size > 0 || [...state.rounds, ...state.holding].some(({ before }) => !before);
  const ticked = prepareState(facts);
  const tick = [...ticked.ticks.values()].find(({ body }) => body.what === 'sealed');
  const reopened = state.reopenings.at(-1);
  const tickedOnly =
    !sealed &&
    !state.pressure &&
    isDone(ticked, tickTargets.sealed) &&
    (!reopened || compareFacts(reopened, tick!) < 0);
  return {
    how,
    state,
    openings,
    points,
    seals,
    testPressure,
    round,
    result,
    blocks,
    sealed,
    tickedOnly,
    begun,
  };
}

/** Whether nothing is left to do at its seal: by its points and its test, or by the tick of an older version. For what only reckons with it: time and kit. */
export function isSealed(thing: SealedThing): boolean {
  const { sealed, tickedOnly } = sealStage(thing);
  return sealed || tickedOnly;
}

/** How many points of a chapter stand, of how many. */
export function chapterProgress({ points }: Pick<SealStage, 'points'>, chapter: SealChapter) {
  const own = points.filter((one) => one.chapter === chapter);
  return { done: own.filter(pointHolds).length, total: own.length };
}

export { tighteningStands };
