import { normalQuantile } from '../../statistics/normal';
import { regularizedBeta, regularizedGamma } from '../../statistics/gammaFunctions';
import { halfStep, type Tried } from '../series/tried';
import { modeKey, pairKey, seenTerm, type OddsRecord } from './record';

/** Sums over first tries; each counts by how likely it is that the bench was in order, and less with every later one. */
export interface FirstTries {
  /** Fibers, what they read above the pair's own term (dB), and the sum of its squares. */
  readonly fibers: number;
  readonly excess: number;
  readonly squares: number;
  /** Tries, and those that held. */
  readonly tries: number;
  readonly held: number;
}

export interface JointAsked extends Pick<Tried, 'kind' | 'pair' | 'pairTerm' | 'machine'> {
  readonly fibers: number;
  /** dB */
  readonly lossMax: number;
}

export interface GoodJoint {
  /** Chance that it holds. */
  readonly holds: number;
  /** Chance that every fiber reads at most so much, dB. */
  readonly atMost: (loss: number) => number;
  /** What it reads on average, dB a fiber. */
  readonly mean: number;
  /** First tries between these cables with this machine. */
  readonly tries: number;
}

/** Mean excess of a good joint, dB, and the fibers that this prior counts for (common practice: good readings are 0.01 to 0.03 dB). */
const priorMean = 0.025;
const priorFibers = 10;
/** Fibers that the mode counts for where a pair has few. */
const modeFibers = 40;
/** Share of tries that fail by something else than the spread of good joints: dirt, a nick. From memory. */
const priorFaults = 0.005;
/** Tries that the computed chance counts for beside those that are counted. */
const computedTries = 20;
/** Points of the quadrature. */
const points = 9;

/**
 * What a try comes to at a bench that is in order. A reading is s + G: s what the mode fields cost, G gamma with shape k and rate λ; λ has a gamma distribution to which every
 * reading adds (a + k·n, b + Σ), pooled from the prior over the mode to the pair of cables and machine.
 */
export function goodJoint(asked: JointAsked, record: Pick<OddsRecord, 'first'>): GoodJoint {
  const mode = record.first.get(modeKey(asked.kind, asked.fibers));
  const own = record.first.get(pairKey(asked, asked.fibers));
  const shape = shapeOf(mode);
  const modeMean = (priorFibers * priorMean + (mode?.excess ?? 0)) / (priorFibers + (mode?.fibers ?? 0));
  const a = shape * (modeFibers + (own?.fibers ?? 0));
  const b = modeFibers * modeMean + (own?.excess ?? 0);
  // The mean of G is k/λ: with λ ~ gamma(a, b) it is k·b/(a − 1).
  const term = seenTerm(asked.pairTerm);
  const atMost = (loss: number) =>
    (1 - priorFaults) * allAtMost(loss - term + halfStep, shape, a, b, asked.fibers);
  const computed = atMost(asked.lossMax);
  return {
    holds: (computedTries * computed + (own?.held ?? 0)) / (computedTries + (own?.tries ?? 0)),
    atMost,
    mean: term + (shape * b) / Math.max(1, a - 1),
    tries: own?.tries ?? 0,
  };
}

const nothing = { first: new Map<string, FirstTries>() };

/** The chance that a fiber is at most so much (dB) with a crew in good order of which nothing is on record yet: what is expected of losses, not rounded. */
export function usualAtMost(loss: number): number {
  const asked = { kind: 'single', fibers: 1, pair: '', pairTerm: 0, machine: null, lossMax: 1 } as const;
  return goodJoint(asked, nothing).atMost(loss - halfStep);
}

/** Shape of the spread, from mean and variance of the mode's readings; between 0.8 and 3, and 1 (offsets in x and y) while they are few. */
function shapeOf(mode: FirstTries | undefined): number {
  if (!mode || mode.fibers < 5) return 1;
  const mean = mode.excess / mode.fibers;
  const variance = mode.squares / mode.fibers - mean * mean;
  const found = variance > 0 ? (mean * mean) / variance : 1;
  const weight = mode.fibers / (mode.fibers + 60);
  return Math.min(3, Math.max(0.8, 1 + weight * (found - 1)));
}

/** That each of so many fibers is at most y, averaged over what the rate can be. Of one fiber that is I_{y/(b+y)}(k, a); those of a ribbon share the rate. */
function allAtMost(y: number, shape: number, a: number, b: number, fibers: number): number {
  if (y <= 0) return 0;
  if (fibers === 1) return regularizedBeta(y / (b + y), shape, a);
  let sum = 0;
  for (let at = 0; at < points; at += 1) {
    // Quantile of the gamma distribution (E. B. Wilson and M. M. Hilferty, PNAS 17, 1931).
    const root = 1 - 1 / (9 * a) + normalQuantile((at + 0.5) / points) / (3 * Math.sqrt(a));
    const one = regularizedGamma(shape, ((a * root * root * root) / b) * y);
    let all = 1;
    for (let fiber = 0; fiber < fibers; fiber += 1) all *= one;
    sum += all;
  }
  return sum / points;
}
