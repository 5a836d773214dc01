import { offsetLoss } from '../../splice/record/spliceLoss';
import { normalCdf } from '../../statistics/normal';

/**
 * How far a measured loss may lie from what the machine estimated, dB. From memory, and wide on purpose: estimates are said to be good to some hundredths of a dB where the fibers
 * are alike (common practice), and to be worth little where their mode fields differ, since a camera sees cores and claddings and no mode field.
 */
const spread = { alike: 0.015, differing: 0.035 } as const;
/** How far the estimates of one pair of cables may lie beside by themselves, dB. From memory. */
const pairsDiffer = { alike: 0.01, differing: 0.03 } as const;
/** What a camera misjudges an offset by, μm. From memory. */
const offsetNoise = 0.08;
/** Above this loss by their mode fields alone two cables differ, dB. */
const differsFrom = 0.004;

/** Of the pair: whether what its mode fields cost by themselves (dB) makes its estimates worth little; not known counts as alike. */
export function fieldsDiffer(pairTerm: number | null): boolean {
  return (pairTerm ?? 0) > differsFrom;
}

/** What measured losses of a pair lay above their estimates (below: negative): how many, and their sum, dB. */
export interface Differences {
  readonly count: number;
  readonly sum: number;
}

/** What is known of `measured − estimate` at a pair of cables: a normal prior about 0 and what was measured here (closed form). dB */
export function differenceOf(
  pairTerm: number | null,
  loss: number,
  known: Differences | undefined,
): { readonly mean: number; readonly deviation: number } {
  const kind = fieldsDiffer(pairTerm) ? 'differing' : 'alike';
  // One μm costs so much; the loss grows with the square of the offset, so an error of the offset costs more where the loss is high.
  const perSquare = offsetLoss(9.2, 9.2, 1);
  const seen = 2 * Math.sqrt(perSquare * Math.max(0, loss)) * offsetNoise;
  const own = spread[kind] * spread[kind] + seen * seen;
  const prior = pairsDiffer[kind] * pairsDiffer[kind];
  const { count, sum } = known ?? { count: 0, sum: 0 };
  const precision = count / own + 1 / prior;
  return { mean: sum / own / precision, deviation: Math.sqrt(own + 1 / precision) };
}

/**
 * The chance that a fiber measures over a limit.
 * @param estimate dB
 * @param limit dB, the largest that holds
 */
export function measuresOver(
  estimate: number,
  limit: number,
  pairTerm: number | null,
  known?: Differences,
): number {
  const { mean, deviation } = differenceOf(pairTerm, estimate, known);
  return normalCdf((estimate + mean - limit) / deviation);
}
