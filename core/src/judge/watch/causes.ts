import { exactExp } from '../../exactExp';
import { exactLog } from '../../exactLog';
import { causeTable } from './causeTable';
import type { RuleName, Strength } from './rule';

/** What can be behind it. */
export const causes = [
  'dirt',
  'groove',
  'blade',
  'holder',
  'arc',
  'electrodes',
  'program',
  'stripper',
  'fiber',
] as const;
export type Cause = (typeof causes)[number];

/** How likely each is before anything is looked at: common practice in words, from memory as numbers. */
const before: Readonly<Record<Cause, number>> = {
  dirt: 0.2,
  groove: 0.1,
  blade: 0.15,
  holder: 0.08,
  arc: 0.16,
  electrodes: 0.08,
  program: 0.09,
  stripper: 0.06,
  fiber: 0.08,
};

/** What is looked at: how near each rule is to its threshold. */
export const features = [
  'drift',
  'shift',
  'level',
  'position',
  'side',
  'blade',
  'over',
  'breaks',
  'cold',
  'conditions',
  'pair',
] as const satisfies readonly RuleName[];
export type Feature = (typeof features)[number];

/** By kind of splice, fault and rule: how often it stood how near to its threshold. */
export type CauseTable = Readonly<
  Record<'single' | 'ribbon', Readonly<Partial<Record<Cause, Readonly<Record<Feature, readonly number[]>>>>>>
>;

/** How near a rule is to its threshold, as a share of it: from each of these on it is in the next bucket. */
const cuts = [0.4, 0.7, 1, 2] as const;
export const buckets = cuts.length + 1;

export function bucketsOf(strengths: readonly Strength[]): Readonly<Record<Feature, number>> {
  const found = Object.fromEntries(features.map((feature) => [feature, 0])) as Record<Feature, number>;
  for (const { rule, statistic, threshold } of strengths) {
    if (!(rule in found)) continue;
    const bucket = cuts.filter((cut) => statistic >= cut * threshold).length;
    if (bucket > found[rule as Feature]) found[rule as Feature] = bucket;
  }
  return found;
}

/** Rules look at the same readings, so each says less than if it stood alone. */
const tempered = 0.7;

/**
 * How likely each cause is, given how near every rule is to its threshold: the prior and the shares in which the simulated machine with that fault showed the same
 * (`causeTable.ts`, made by `npm run rates`), multiplied as if rules were independent and tempered because they are not. Likeliest first; the shares add up to 1.
 */
export function causesOf(
  strengths: readonly Strength[],
  kind: 'single' | 'ribbon',
  table: CauseTable = causeTable,
): readonly { readonly cause: Cause; readonly share: number }[] {
  const seen = bucketsOf(strengths);
  const logs = causes
    .filter((cause) => kind === 'ribbon' || cause !== 'groove')
    .map((cause) => {
      let log = exactLog(before[cause]);
      for (const feature of features) {
        const counts = table[kind][cause]?.[feature];
        if (!counts) continue;
        const all = counts.reduce((sum, one) => sum + one, 0);
        // As if each had been seen once more: nothing is impossible.
        log += tempered * exactLog((counts[seen[feature]]! + 1) / (all + buckets));
      }
      return { cause, log };
    });
  const highest = Math.max(...logs.map(({ log }) => log));
  const weights = logs.map(({ cause, log }) => ({ cause, weight: exactExp(log - highest) }));
  const total = weights.reduce((sum, { weight }) => sum + weight, 0);
  return weights
    .map(({ cause, weight }) => ({ cause, share: weight / total }))
    .sort((a, b) => b.share - a.share);
}
