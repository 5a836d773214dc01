/**
 * What is usual, against which a night is held: this job's own earlier nights, with a stated prior while they are few. The prior is what a crew in good order reads (common
 * practice: single 0.01 to 0.02 dB, a ribbon 0.01 to 0.03, cleaves of 0.5 to 1°), a little on the high side, so that it does not cry out where a machine simply reads higher.
 */
export interface Reference {
  /** Middle and spread of `levelOf`. */
  readonly level: Readonly<Record<'single' | 'ribbon', Usual>>;
  /** Of the mean angle of both sides of a try, degrees. */
  readonly angle: Usual;
  /** Share of first tries that are over their limit. */
  readonly over: Readonly<Record<'single' | 'ribbon', number>>;
}

export interface Usual {
  readonly mean: number;
  readonly deviation: number;
}

export const usual: Reference = {
  // Exponential losses of mean 0.025 dB, read in steps of 0.01.
  level: { single: { mean: 0.385, deviation: 0.1 }, ribbon: { mean: 0.385, deviation: 0.045 } },
  angle: { mean: 0.5, deviation: 0.22 },
  over: { single: 0.03, ribbon: 0.08 },
};

/** Tries that the prior counts for. */
const priorWeight = 40;

/** Sums of what was read in earlier nights. */
export interface Earlier {
  readonly count: number;
  readonly sum: number;
  readonly squares: number;
}
export const nothingEarlier: Earlier = { count: 0, sum: 0, squares: 0 };

export function addTo({ count, sum, squares }: Earlier, value: number): Earlier {
  return { count: count + 1, sum: sum + value, squares: squares + value * value };
}

/** The prior and what was read earlier, each by its number of tries. */
export function blended(prior: Usual, earlier: Earlier): Usual {
  const weight = priorWeight + earlier.count;
  const mean = (priorWeight * prior.mean + earlier.sum) / weight;
  const square =
    (priorWeight * (prior.deviation * prior.deviation + prior.mean * prior.mean) + earlier.squares) / weight;
  return { mean, deviation: Math.max(prior.deviation / 2, Math.sqrt(Math.max(0, square - mean * mean))) };
}

/** Beta: the prior's share and what was seen. */
export function blendedShare(prior: number, bad: number, all: number): number {
  return (priorWeight * prior + bad) / (priorWeight + all);
}
