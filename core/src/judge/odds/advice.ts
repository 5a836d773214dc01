import { normalCdf } from '../../statistics/normal';
import type { Costs } from './costs';

export type Choice = 'leave' | 'redo' | 'owner' | 'measure';

/** Where a splice stands, and what a redo would come to. */
export interface Situation {
  /** Over a limit, or broken: it does not hold as it is. */
  readonly bad: boolean;
  /** It can't stay, whoever allows it: broken, no sleeve. */
  readonly mustGo: boolean;
  /** Chance that a redo holds; that a second one does, where the first one failed; that a third one does. */
  readonly holds: readonly [number, number, number];
  /** Redos for which there is fiber; null: not known. */
  readonly redosLeft: number | null;
  /** Tries that the limits allow before it is the owner's call. */
  readonly triesLeft: number;
  /** Of one redo. */
  readonly minutes: number;
  /** Minutes left in the window; null: not known. */
  readonly minutesLeft: number | null;
  /** Chance that the tray's mean ends over its limit: where this one stays, and where a redo holds. */
  readonly meanOver: { readonly stays: number; readonly redone: number };
  /** Chance that a measurement from both ends is within the limit although the estimate is not; null: nothing speaks for one. */
  readonly measuredHolds: number | null;
}

export interface Advice {
  readonly choice: Choice;
  /** Minutes of the window, see `Costs`. */
  readonly costs: Readonly<Partial<Record<Choice, number>>>;
  /** The next best, and by how much it is dearer; null where there is none. */
  readonly runnerUp: { readonly choice: Choice; readonly dearer: number } | null;
  /** The chance that a redo holds at which a redo and the best of the others cost the same; null where none is. */
  readonly flipsAt: number | null;
}

/** What is expected to be cheapest: a redo and then the same question once more, two steps ahead, or something else now. */
export function advise(at: Situation, costs: Costs): Advice {
  const all = costsOfChoices(at, costs, at.holds);
  const ranked = (Object.entries(all) as [Choice, number][]).sort((a, b) => a[1] - b[1]);
  const [best, next] = ranked;
  const others = Math.min(...ranked.filter(([choice]) => choice !== 'redo').map(([, cost]) => cost));
  return {
    choice: best![0],
    costs: all,
    runnerUp: next ? { choice: next[0], dearer: next[1] - best![1] } : null,
    flipsAt: all.redo === undefined || others === Infinity ? null : flip(at, costs, others),
  };
}

function costsOfChoices(
  at: Situation,
  costs: Costs,
  holds: Situation['holds'],
): Partial<Record<Choice, number>> {
  const mean = (chance: number) => chance * costs.meanOver;
  const stays = mean(at.meanOver.stays);
  const all: Partial<Record<Choice, number>> = {};
  if (!at.mustGo) all.leave = (at.bad ? costs.over : 0) + stays;
  if (at.bad && !at.mustGo) all.owner = costs.owner + stays;
  const redo = redoCost(at, costs, holds, 0);
  if (redo !== null) all.redo = redo;
  if (at.bad && !at.mustGo && at.measuredHolds !== null) {
    const otherwise = Math.min(...Object.values(all));
    all.measure = costs.measure + at.measuredHolds * stays + (1 - at.measuredHolds) * otherwise;
  }
  // Nothing else is left: it has to be asked about.
  if (Object.keys(all).length === 0) all.owner = costs.owner + costs.over;
  return all;
}

/** Expected cost of the redo after so many others; null where there can be none. */
function redoCost(at: Situation, costs: Costs, holds: Situation['holds'], done: number): number | null {
  if ((at.redosLeft !== null && at.redosLeft <= done) || at.triesLeft <= done) return null;
  const takes = at.minutes * (done + 1);
  if (at.minutesLeft !== null && takes > at.minutesLeft) return null;
  const last = at.redosLeft !== null && at.redosLeft === done + 1;
  const itself = at.minutes * costs.minute + costs.sleeve + (last ? costs.lastSlack : costs.slack);
  const again = done < 2 ? redoCost(at, costs, holds, done + 1) : null;
  // A redo that fails is over its limit: it stays so, the owner is asked, or it is done again.
  const otherwise = at.meanOver.stays * costs.meanOver;
  const failed = Math.min(costs.over + otherwise, costs.owner + otherwise, again ?? Infinity);
  const chance = holds[done]!;
  return itself + chance * at.meanOver.redone * costs.meanOver + (1 - chance) * failed;
}

/** By halving: a redo gets cheaper the likelier it holds. */
function flip(at: Situation, costs: Costs, others: number): number | null {
  const cost = (chance: number) => {
    // What comes after it moves with it.
    const share = at.holds[0] > 1e-9 ? chance / at.holds[0] : 0;
    const holds = [chance, Math.min(1, at.holds[1] * share), Math.min(1, at.holds[2] * share)] as const;
    return redoCost(at, costs, holds, 0)!;
  };
  if (cost(1) > others || cost(0) < others) return null;
  let [low, high] = [0, 1];
  for (let step = 0; step < 40; step += 1) {
    const middle = (low + high) / 2;
    if (cost(middle) > others) low = middle;
    else high = middle;
  }
  return high;
}

/**
 * The chance that a mean ends over its limit.
 * @param sum of what is settled, dB, and of how many fibers
 * @param open fibers that are still to come, each of this mean (dB) and about as much spread, as exponential losses have
 */
export function meanOverChance(
  limit: number,
  { sum, fibers }: { readonly sum: number; readonly fibers: number },
  open: number,
  mean: number,
): number {
  const total = fibers + open;
  if (total === 0) return 0;
  const expected = (sum + open * mean) / total;
  const spread = (mean * Math.sqrt(open)) / total;
  if (spread === 0) return expected > limit + 1e-9 ? 1 : 0;
  return 1 - normalCdf((limit - expected) / spread);
}
