import { exceeds } from '../../limits/limits';
import { Judge } from '../../judge/judge';
import type { Said } from '../../judge/said';
import type { RuleName } from '../../judge/watch/rule';
import { limitsPresets } from '../../limits/presets';
import {
  act,
  isOverNight,
  nightBegun,
  nightLimits,
  remedyOf,
  shownAngle,
  type NightAction,
  type NightState,
  type Remedy,
} from './play';
import type { PracticeNight } from './plans';

/** What a night came to, in numbers. */
export interface NightResult {
  /** dB, the mean of what the splices really lose. */
  readonly mean: number;
  readonly fibers: number;
  /** Of them really over their limit. */
  readonly over: number;
  readonly sleeves: number;
  readonly minutes: number;
  /** mm of each end */
  readonly slack: number;
  readonly named: boolean;
}

export function resultOf({ laid, night, sleeves, minutes, slack, named }: NightState): NightResult {
  const truths = laid.flatMap((one) => one.truths);
  const limit = nightLimits[night.kind];
  return {
    mean: truths.length === 0 ? 0 : truths.reduce((sum, one) => sum + one, 0) / truths.length,
    fibers: truths.length,
    over: truths.filter((one) => exceeds(one, limit)).length,
    sleeves,
    minutes,
    slack,
    named: named === night.cause,
  };
}

/** What each part counts for; together 100. */
export const weights = { named: 30, loss: 35, sleeves: 15, minutes: 10, slack: 10 } as const;
export type Part = keyof typeof weights;

/**
 * Points of a night, part by part: the fault that was named; the true loss; sleeves, minutes and slack, each full where it is no more than what the judge's own night took, and less
 * the more it is.
 */
export function pointsOf(own: NightResult, judge: NightResult): Readonly<Record<Part, number>> {
  // Of what is better the less it is: `some` keeps a few more from costing all where the judge needed next to none.
  const part = (mine: number, his: number, some: number) => Math.min(1, (his + some) / (mine + some));
  return {
    named: own.named ? weights.named : 0,
    loss: Math.round(
      weights.loss * (0.5 * part(own.over, judge.over, 2) + 0.5 * part(own.mean, judge.mean, 0.01)),
    ),
    sleeves: Math.round(weights.sleeves * part(own.sleeves, judge.sleeves, 3)),
    minutes: Math.round(weights.minutes * part(own.minutes, judge.minutes, 20)),
    slack: Math.round(weights.slack * part(own.slack, judge.slack, 200)),
  };
}

export const sumOf = (points: Readonly<Record<Part, number>>) =>
  Object.values(points).reduce((sum, one) => sum + one, 0);

/** What the judge said first of a night, and at which splice (from 0). */
export interface FirstSaid {
  readonly at: number;
  readonly said: Said;
}

function newJudge(): Judge {
  return new Judge({ limits: limitsPresets[0]!.limits });
}

/** What the judge says of a night while it is told, reading by reading: the first of it that names what was wrong, else the first of it. null: nothing. */
export function firstSaid({ told, night }: Pick<NightState, 'told' | 'night'>): FirstSaid | null {
  const judge = newJudge();
  let first: FirstSaid | null = null;
  for (const one of told) {
    judge.tell(one);
    if (!('tried' in one)) continue;
    const said = judge.said('machine', one.tried.at);
    if (!said) continue;
    const here = { at: Number(one.tried.splice.slice(1)), said };
    if (said.cause === night.cause) return here;
    first ??= here;
  }
  return first;
}

/** Rules that show one cause and hardly another. */
const shownByItself: ReadonlySet<RuleName> = new Set([
  'position',
  'side',
  'blade',
  'cold',
  'conditions',
  'pair',
]);

/** So often an end is cleaved anew at most. */
const mostRecleaves = 3;
const mostTries = 3;

/** The same night as the judge would work it: bad cleaves again, what is over its limit again, and what it says is put right at once. */
export function judgesNight(night: PracticeNight, seed: number): NightState {
  const judge = newJudge();
  let state = nightBegun(night, seed);
  let heard = 0;
  const tell = () => {
    for (; heard < state.told.length; heard += 1) judge.tell(state.told[heard]!);
  };
  const did = new Set<Remedy>();
  let sure = false;
  while (!isOverNight(state)) {
    state = fuseWell(state);
    tell();
    const said = judge.said('machine', state.minutes * 60_000);
    const action = said && answerTo(said, did);
    if (said && action) {
      // What a rule of its own showed is not given up for what any trouble shows.
      const plain = shownByItself.has(said.strength.rule);
      state = [...action.does, ...(plain || !sure ? [action.names] : [])].reduce(act, state);
      sure ||= plain;
      tell();
      const { rule, about } = said.strength;
      judge.tell({
        event: { at: state.minutes * 60_000, what: 'answered', rule, about, machine: 'machine' },
      });
    }
    const broke = state.fused!.some((fiber) => fiber.broke);
    const over = state.fused!.some(({ estimate }) => exceeds(estimate, nightLimits[night.kind]));
    // Another fiber reads no better for being done again.
    const again = broke || (over && state.tries < mostTries && state.named !== 'fiber');
    state = act(state, { do: again ? 'redo' : 'accept' });
  }
  return state;
}

/** Recleaves what is over its limit, so often at most, and fuses. */
function fuseWell(state: NightState): NightState {
  let next = state;
  for (const side of ['left', 'right'] as const)
    for (let again = 0; again < mostRecleaves; again += 1) {
      if (next.ends[side].every((end) => !exceeds(shownAngle(end), nightLimits.cleave))) break;
      next = act(next, { do: 'recleave', side });
    }
  return act(next, { do: 'fuse' });
}

/** What it does about what it says: the likeliest cause first, and where that was put right already the next. */
function answerTo(
  { cause, runnerUp }: Said,
  did: Set<Remedy>,
): { does: NightAction[]; names: NightAction } | null {
  for (const one of [cause, runnerUp]) {
    if (one === null) continue;
    const remedy = remedyOf[one];
    if (remedy !== null && did.has(remedy)) continue;
    if (remedy !== null) did.add(remedy);
    return {
      does: remedy === null ? [] : [{ do: 'remedy', remedy }],
      names: { do: 'name', cause: one },
    };
  }
  return null;
}

/** When somebody put right what was wrong: the splice at which it was done, from 0; null: never, or nothing can. */
export function putRightAt({ night, done }: NightState): number | null {
  const wanted = remedyOf[night.cause];
  const found = done.find(
    ({ at, action }) => action.do === 'remedy' && action.remedy === wanted && at >= night.from,
  );
  return wanted !== null && found ? found.at : null;
}
