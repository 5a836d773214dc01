import { exactExp } from '../exactExp';
import { normalCdf, normalQuantile } from '../statistics/normal';

/** Time that work takes: independent steps, each with a mean and a variance. s and s². */
export interface Work {
  readonly mean: number;
  readonly variance: number;
}

export const noWork: Work = { mean: 0, variance: 0 };

/** Steps one after the other, independent of each other. */
export function together(...works: readonly Work[]): Work {
  let mean = 0;
  let variance = 0;
  for (const one of works) {
    mean += one.mean;
    variance += one.variance;
  }
  return { mean, variance };
}

/** A stretch of time of which part does not depend on how fast a crew is tonight. */
export interface Stretch extends Work {
  /** s that are as they are: driving, a machine's own calibration. */
  readonly fixed: number;
}

/**
 * How much a whole crew is slower or quicker in one night than its mean: standard deviation of the logarithm. Crews are slow all night or not at all. From memory, on purpose
 * wide; with a pace that was measured at this project it is less.
 */
export const crewSpread = { usual: 0.15, measured: 0.1 } as const;

/** Points of the pace factor: the middles of so many parts of equal chance. */
const points = 32;

/**
 * Chances of a night whose work is `factor` × (a normal sum of independent steps), where the factor is the crew's own in that night: lognormal with mean 1. The factor is
 * integrated over 32 points of equal chance; the sum of many small independent steps is taken as normal (central limit theorem).
 */
export class Chances {
  private readonly factors: readonly number[];

  /** @param spread standard deviation of the logarithm of the factor, 0 … 0.6 */
  constructor(readonly spread: number) {
    const raw = Array.from({ length: points }, (_, at) =>
      exactExp(spread * normalQuantile((at + 0.5) / points) - (spread * spread) / 2),
    );
    // The ends of the distribution are cut off by the points: the mean stays 1.
    const mean = raw.reduce((sum, one) => sum + one, 0) / points;
    this.factors = raw.map((one) => one / mean);
  }

  /** The chance that it takes at most so many seconds. */
  within(seconds: number, { fixed, mean, variance }: Stretch): number {
    const left = seconds - fixed;
    if (mean <= 0) return left >= 0 ? 1 : 0;
    const deviation = Math.sqrt(variance);
    let sum = 0;
    for (const factor of this.factors)
      sum += deviation > 0 ? below((left / factor - mean) / deviation) : left >= factor * mean ? 1 : 0;
    return sum / points;
  }

  /** s that it takes longer than this, expected; 0 where it is sure to be shorter. */
  beyond(seconds: number, { fixed, mean, variance }: Stretch): number {
    const left = seconds - fixed;
    const deviation = Math.sqrt(variance);
    let sum = 0;
    for (const factor of this.factors) {
      const over = factor * mean - left;
      const own = factor * deviation;
      if (own <= 0) sum += Math.max(0, over);
      else {
        const z = over / own;
        sum += over * below(z) + own * density(z);
      }
    }
    return sum / points;
  }

  /** s within which it is done with this chance, to a second. */
  quantile(chance: number, stretch: Stretch): number {
    let low = 0;
    let high = Math.max(1, stretch.fixed + stretch.mean);
    while (this.within(high, stretch) < chance) {
      high *= 2;
      if (high > 1e9) return Infinity;
    }
    while (high - low > 0.5) {
      const middle = (low + high) / 2;
      if (this.within(middle, stretch) < chance) low = middle;
      else high = middle;
    }
    return high;
  }
}

/** Beyond so many deviations nothing is left to speak of. */
const far = 6;
const perUnit = 256;
/** Tables, since a plan asks millions of times; the line between two of their points is off by less than 2e-6. */
const cdf = Float64Array.from({ length: 2 * far * perUnit + 2 }, (_, at) => normalCdf(at / perUnit - far));

function below(z: number): number {
  if (z <= -far) return 0;
  if (z >= far) return 1;
  const at = (z + far) * perUnit;
  const whole = at | 0;
  const low = cdf[whole]!;
  return low + (at - whole) * (cdf[whole + 1]! - low);
}

const pdf = Float64Array.from({ length: 2 * far * perUnit + 2 }, (_, at) => {
  const z = at / perUnit - far;
  return exactExp((-z * z) / 2) / Math.sqrt(2 * Math.PI);
});

function density(z: number): number {
  if (z <= -far || z >= far) return 0;
  const at = (z + far) * perUnit;
  const whole = at | 0;
  const low = pdf[whole]!;
  return low + (at - whole) * (pdf[whole + 1]! - low);
}
