import type { Tried } from '../series/tried';
import {
  buckets,
  bucketsOf,
  causesOf,
  features,
  type Cause,
  type CauseTable,
  type Feature,
} from '../watch/causes';
import { JobWatch, NightWatch } from '../watch/family';
import { trips, type RuleName, type Strength } from '../watch/rule';
import type { Scenario } from './scenarios';
import { workedNight } from './workedNight';

/** What a night came to, looked at after every reading as the bench does. */
export interface WatchedNight {
  /** The first alarm: at which splice from 1, counted from where the fault began, and by which rule; null: none. */
  readonly first: { readonly splice: number; readonly rule: RuleName } | null;
  /** Every rule that tripped at some moment. */
  readonly tripped: ReadonlySet<RuleName>;
  /** The causes at the first alarm and a few tries later, likeliest first. */
  readonly named: readonly (readonly Cause[])[];
  /** What was seen then. */
  readonly seen: readonly Readonly<Record<Feature, number>>[];
}

/** So many tries after the first alarm, and twice as many, the cause is looked at again. */
const later = 5;

/** @param table the shares that causes are named by, where they are not today's */
export function watchedNight({ plan, from, kind }: Scenario, seed: number, table?: CauseTable): WatchedNight {
  const [night, job] = [new NightWatch(), new JobWatch()];
  const tripped = new Set<RuleName>();
  const named: (readonly Cause[])[] = [];
  const seen: Readonly<Record<Feature, number>>[] = [];
  let first: WatchedNight['first'] = null;
  let since = 0;
  for (const one of workedNight(plan(seed)).told) {
    if ('event' in one) {
      night.happened(one.event);
      job.happened(one.event);
    } else {
      night.add(one.tried);
      job.add(one.tried);
    }
    const strengths: Strength[] = [...night.strengths(), ...job.strengths()];
    const now = strengths.filter(trips);
    for (const { rule } of now) tripped.add(rule);
    if (first) since += 'tried' in one ? 1 : 0;
    else if (now.length > 0) {
      const at = 'tried' in one ? spliceNumber(one.tried) : from;
      first = { splice: at - from + 1, rule: now[0]!.rule };
    } else continue;
    if (since === seen.length * later && seen.length < 3) {
      seen.push(bucketsOf(strengths));
      named.push(causesOf(strengths, kind, table).map(({ cause }) => cause));
    }
  }
  return { first, tripped, named, seen };
}

const spliceNumber = ({ splice }: Tried) => Number(splice.slice(1));

export interface Rates {
  readonly nights: number;
  /** Share of nights with any alarm; with one before the fault began not counted as found. */
  readonly any: number;
  /** Splices until the first alarm after the fault began: share found within so many, and the median of those found. */
  readonly within: (splices: number) => number;
  readonly median: number | null;
  readonly byRule: ReadonlyMap<RuleName, number>;
  /** Share of the alarms whose likeliest cause was the right one, and the likeliest or the runner-up: at once, and a few tries later. */
  readonly right: readonly { readonly likeliest: number; readonly orRunnerUp: number }[];
}

export function ratesOf(scenario: Scenario, watched: readonly WatchedNight[]): Rates {
  const nights = watched.length;
  const firsts = watched
    .flatMap(({ first }) => (first && first.splice > 0 ? [first.splice] : []))
    .sort((a, b) => a - b);
  const byRule = new Map<RuleName, number>();
  for (const { tripped } of watched)
    for (const rule of tripped) byRule.set(rule, (byRule.get(rule) ?? 0) + 1 / nights);
  const right = [0, 1].map((moment) => {
    const all = watched.flatMap(({ named }) => (named[moment] ? [named[moment]] : []));
    const share = (count: number) =>
      all.filter((list) => list.slice(0, count).some((cause) => cause === scenario.cause)).length /
      Math.max(1, all.length);
    return { likeliest: share(1), orRunnerUp: share(2) };
  });
  return {
    nights,
    any: watched.filter(({ first }) => first !== null).length / nights,
    within: (splices) => firsts.filter((one) => one <= splices).length / nights,
    median: firsts.length > 0 ? firsts[firsts.length >> 1]! : null,
    byRule,
    right,
  };
}

/** How often each rule stood how near to its threshold, by the fault. */
export function tableOf(
  watched: readonly (readonly [Scenario, readonly WatchedNight[]])[],
): Record<'single' | 'ribbon', Partial<Record<Cause, Record<Feature, number[]>>>> {
  const table: ReturnType<typeof tableOf> = { single: {}, ribbon: {} };
  for (const [{ kind, cause }, list] of watched) {
    if (!cause) continue;
    const own = (table[kind][cause] ??= Object.fromEntries(
      features.map((feature) => [feature, new Array<number>(buckets).fill(0)]),
    ) as Record<Feature, number[]>);
    for (const { seen } of list)
      for (const one of seen)
        for (const feature of features) own[feature][one[feature]] = own[feature][one[feature]]! + 1;
  }
  return table;
}
