import { exceeds } from '../../limits/limits';
import { fieldsDiffer, measuresOver, type Differences } from '../odds/measuring';
import type { LossRow } from './rows';

/** Why a fiber deserves a measurement. */
export type WhyMeasure =
  /** The estimate is over the limit; measured it may hold, and nothing has to be made again. */
  | 'may-hold'
  /** The estimate holds; measured it may be over. */
  | 'may-be-over';

export interface WorthMeasuring {
  readonly row: LossRow;
  readonly why: WhyMeasure;
  /** That measuring it changes what becomes of it. */
  readonly chance: number;
  /** The mode fields of its two cables differ: the estimate is worth little. */
  readonly fieldsDiffer: boolean;
  /** How far measured losses of its pair lay above their estimates, dB, and how many; null while none was measured. */
  readonly known: { readonly count: number; readonly mean: number } | null;
}

/** Less is not worth the way to both ends. */
const leastChance = 0.15;

/** What measured losses lay above their estimates, by the pair of cables. */
export function differencesOf(rows: readonly LossRow[]): ReadonlyMap<string, Differences> {
  const found = new Map<string, { count: number; sum: number }>();
  for (const { pair, loss, measured } of rows) {
    if (loss === null || measured === null) continue;
    const own = found.get(pair) ?? { count: 0, sum: 0 };
    found.set(pair, { count: own.count + 1, sum: own.sum + measured - loss });
  }
  return found;
}

/**
 * Which fibers deserve a measurement, those first where it is likeliest to change what becomes of them: an estimate over its limit may hold, one that holds may be over. What is
 * settled by the owner, broke, or was measured is not among them.
 * @param all every row of the project, which the estimates are compared in
 * @param among those that are asked about
 */
export function worthMeasuring(all: readonly LossRow[], among: readonly LossRow[]): WorthMeasuring[] {
  const known = differencesOf(all);
  // Readings are hundredths: the same few come thousands of times.
  const chances = new Map<string, number>();
  const overOf = (loss: number, limit: number, pair: string, pairTerm: number | null) => {
    const key = `${loss} ${limit} ${pairTerm} ${pair}`;
    let chance = chances.get(key);
    if (chance === undefined)
      chances.set(key, (chance = measuresOver(loss, limit, pairTerm, known.get(pair))));
    return chance;
  };
  return among
    .flatMap((row): WorthMeasuring[] => {
      const { loss, measured, limit, mark, pair, pairTerm } = row;
      if (loss === null || measured !== null || mark === 'allowed' || mark === 'open') return [];
      const over = overOf(loss, limit, pair, pairTerm);
      const estimatedOver = exceeds(loss, limit);
      const chance = estimatedOver ? 1 - over : over;
      if (chance < leastChance) return [];
      const own = known.get(pair);
      return [
        {
          row,
          why: estimatedOver ? 'may-hold' : 'may-be-over',
          chance,
          fieldsDiffer: fieldsDiffer(pairTerm),
          known: own ? { count: own.count, mean: own.sum / own.count } : null,
        },
      ];
    })
    .sort((a, b) => b.chance - a.chance);
}
