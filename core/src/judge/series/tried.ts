/** A try at a splice as the judge looks at it: as it lay in the machine, not as the plan names its sides. */
export interface Tried {
  readonly attempt: string;
  readonly splice: string;
  /** ms since 1970. */
  readonly at: number;
  readonly kind: 'single' | 'ribbon';
  /** The how manieth try at its splice, from 1. */
  readonly nth: number;
  /** dB, in the order of the grooves; null where none was read. */
  readonly losses: readonly (number | null)[];
  /** Cleave angles, degrees, in the same order. */
  readonly left: readonly (number | null)[];
  readonly right: readonly (number | null)[];
  /** It broke in the proof test. */
  readonly broke: boolean;
  /** A loss is over its limit. */
  readonly over: boolean;
  /** The two cables, whichever was left. */
  readonly pair: string;
  /** What the mode fields of the two cables cost by themselves, dB; null where one is not known. */
  readonly pairTerm: number | null;
  readonly machine: string | null;
  readonly cleaver: string | null;
  readonly person: string | null;
}

/** What happened beside the splices, and makes a rule begin anew. */
export type Happened = { readonly at: number } & (
  | {
      readonly what: 'calibrated';
      readonly machine: string;
      readonly temperature: number | null;
      readonly humidity: number | null;
      readonly pressure: number | null;
    }
  | {
      readonly what: 'weather';
      readonly machine: string;
      readonly temperature: number | null;
      readonly humidity: number | null;
      readonly pressure: number | null;
    }
  | { readonly what: 'blade-turned'; readonly cleaver: string }
  /** Somebody answered what the judge said: it was put right, or it does not matter. */
  | {
      readonly what: 'answered';
      readonly rule: string;
      readonly about: string;
      readonly machine: string | null;
    }
);

/** Values are read in steps of 0.01 dB: what is written as x lies up to half a step beside it. */
export const halfStep = 0.005;

/**
 * A loss on a scale on which good losses lie evenly about their middle: the fourth root (P. Kittlitz, "Transforming the exponential for SPC applications", Journal of Quality
 * Technology 31, 1999). Only square roots are taken, which are the same everywhere.
 */
export function evened(loss: number): number {
  return Math.sqrt(Math.sqrt(loss + halfStep));
}

const levels = new WeakMap<readonly unknown[], number | null>();

/** The level of a try on that scale: of a ribbon the mean of the middle half of its fibers, so that one bad position does not move it; null where none was read. */
export function levelOf({ losses }: Pick<Tried, 'losses'>): number | null {
  // Many rules ask for it.
  let level = levels.get(losses);
  if (level === undefined) levels.set(losses, (level = computed(losses)));
  return level;
}

function computed(losses: Tried['losses']): number | null {
  if (losses.length === 1) return losses[0] === null ? null : evened(losses[0]!);
  const read = losses.filter((loss) => loss !== null).sort((a, b) => a - b);
  if (read.length === 0) return null;
  const cut = Math.floor(read.length / 4);
  let sum = 0;
  for (let at = cut; at < read.length - cut; at += 1) sum += evened(read[at]!);
  return sum / (read.length - 2 * cut);
}

/** Mean of those values that are there: angles in degrees, losses in dB. */
export function meanOf(angles: readonly (number | null)[]): number | null {
  let [sum, count] = [0, 0];
  for (const angle of angles) {
    if (angle === null) continue;
    sum += angle;
    count += 1;
  }
  return count === 0 ? null : sum / count;
}
