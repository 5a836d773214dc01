import type { Tried } from '../series/tried';
import { goodJoint, type FirstTries } from './goodJoint';

/** What a job's tries say of the next one. */
export interface OddsRecord {
  /** By mode, and by mode, pair of cables and machine: what first tries read while the bench was in order. */
  readonly first: ReadonlyMap<string, FirstTries>;
  /** By mode and machine: how likely each state of the bench is after the last try. */
  readonly states: ReadonlyMap<string, Belief>;
}

/**
 * States of a bench: in order; poor (a worn blade, a groove with a little dirt); broken (a wrong program, a groove full of dirt). Nobody sees them; tries that hold or fail tell.
 */
export type Belief = readonly [inOrder: number, poor: number, broken: number];

/** At the start of a job, by experience with none of its own. From memory. */
export const priorBelief: Belief = [0.99, 0.005, 0.005];
/** From one splice to the next. From memory: something comes about once in a hundred splices, and is mended within some twenty. */
const changes: readonly Belief[] = [
  [0.9992, 0.0004, 0.0004],
  [0.06, 0.93, 0.01],
  [0.04, 0.01, 0.95],
];
/** Chance that a try holds in a poor and in a broken state, as a share of what it is in order. From memory. */
export const stateHolds: Belief = [1, 0.55, 0.04];

/** Tries after which a chance that moves slowly is reckoned anew. */
const anew = 5;
/** No good joint reads more; it is a fault, and counted as such alone. dB, from memory. */
const farOut = 0.15;
/** Half of what was seen counts after some 140 more first tries. */
const kept = 1 - 1 / 200;

export const modeKey = (kind: Tried['kind'], fibers: number) => `${kind} ${fibers}`;
export const pairKey = (tried: Pick<Tried, 'kind' | 'pair' | 'machine'>, fibers: number) =>
  `${stateKey(tried, fibers)} ${tried.pair}`;
export const stateKey = ({ kind, machine }: Pick<Tried, 'kind' | 'machine'>, fibers: number) =>
  `${modeKey(kind, fibers)} ${machine ?? ''}`;

/** Builds the record from tries in the order of time. */
export class RecordBuilder implements OddsRecord {
  readonly first = new Map<string, Mutable>();
  readonly states = new Map<string, Belief>();
  private readonly chances = new Map<string, { readonly chance: number; uses: number }>();

  /**
   * @param lossMax dB, of a try
   * @param cleaveMax degrees
   */
  constructor(
    private readonly lossMax: (tried: Pick<Tried, 'kind'>) => number,
    private readonly cleaveMax: number,
  ) {}

  add(tried: Tried): void {
    const fibers = tried.losses.length;
    const held = holds(tried, this.cleaveMax);
    const mode = modeKey(tried.kind, fibers);
    const key = `${mode} ${tried.machine ?? ''}`;
    const pair = `${key} ${tried.pair}`;
    const inOrder = this.inOrder(tried, pair, fibers);
    const before = this.states.get(key) ?? priorBelief;
    // A try at the same splice finds the bench as the one before left it.
    const now = seenTry(tried.nth === 1 ? changed(before) : before, inOrder, held);
    this.states.set(key, now);
    if (tried.nth > 1) return;
    this.addFirst(mode, tried, held, now[0]);
    this.addFirst(pair, tried, held, now[0]);
  }

  /** The chance that such a try holds where the bench is in order. */
  private inOrder(tried: Tried, pair: string, fibers: number): number {
    const known = this.chances.get(pair);
    if (known && known.uses < anew) {
      known.uses += 1;
      return known.chance;
    }
    const chance = goodJoint({ ...tried, fibers, lossMax: this.lossMax(tried) }, this).holds;
    this.chances.set(pair, { chance, uses: 1 });
    return chance;
  }

  /** Adds a first try, by how likely it is that the bench was in order. */
  private addFirst(key: string, { losses, pairTerm }: Tried, held: boolean, weight: number): void {
    let sums = this.first.get(key);
    if (!sums) this.first.set(key, (sums = { fibers: 0, excess: 0, squares: 0, tries: 0, held: 0 }));
    const term = seenTerm(pairTerm);
    let [fibers, excess, squares] = [0, 0, 0];
    for (const loss of losses) {
      if (loss === null || loss > farOut) continue;
      const above = loss > term ? loss - term : 0;
      fibers += 1;
      excess += above;
      squares += above * above;
    }
    sums.fibers = sums.fibers * kept + weight * fibers;
    sums.excess = sums.excess * kept + weight * excess;
    sums.squares = sums.squares * kept + weight * squares;
    sums.tries = sums.tries * kept + weight;
    sums.held = sums.held * kept + (held ? weight : 0);
  }
}

/** Sums of this builder, which go on. */
type Mutable = { -readonly [K in keyof FirstTries]: FirstTries[K] };

/** A belief before the next splice. */
export function changed(belief: Belief): Belief {
  const [one, two, three] = belief;
  const to = (state: 0 | 1 | 2) =>
    one * changes[0]![state] + two * changes[1]![state] + three * changes[2]![state];
  return [to(0), to(1), to(2)];
}

/** A belief after a try (Bayes' rule). @param inOrder the chance that it holds where the bench is in order */
export function seenTry(belief: Belief, inOrder: number, held: boolean): Belief {
  // Nothing is impossible, and nothing sure: what happened all the same must leave a belief.
  const chance = Math.min(0.999, Math.max(0.001, inOrder));
  const weight = (state: 0 | 1 | 2) => {
    const holds = chance * stateHolds[state];
    return belief[state] * (held ? holds : 1 - holds);
  };
  const weights = [weight(0), weight(1), weight(2)] as const;
  const total = weights[0] + weights[1] + weights[2];
  return [weights[0] / total, weights[1] / total, weights[2] / total];
}

/** What of the mode fields' difference a machine's estimate shows, about half of it (from memory; docs/machine-link.md for the simulated one). dB */
export function seenTerm(pairTerm: number | null): number {
  return (pairTerm ?? 0) / 2;
}

/** Whether nothing of a try is over a limit, and it did not break. */
export function holds({ broke, over, left, right }: Tried, cleaveMax: number): boolean {
  const good = (angle: number | null) => angle === null || angle <= cleaveMax + 1e-9;
  return !broke && !over && left.every(good) && right.every(good);
}
