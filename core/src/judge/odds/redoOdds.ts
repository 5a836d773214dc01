import { halfStep } from '../series/tried';
import { goodJoint, type GoodJoint, type JointAsked } from './goodJoint';
import { priorBelief, seenTry, stateHolds, stateKey, type Belief, type OddsRecord } from './record';

/** What a redo would come to. */
export interface RedoOdds {
  /** Chance that it holds. */
  readonly holds: number;
  /** Chance that it reads less than this one: of a ribbon, its worst fiber. */
  readonly better: number;
  /** Chance that what made this one bad is still there. */
  readonly persists: number;
  /** What it reads on average where the bench is in order, dB a fiber. */
  readonly mean: number;
  /** First tries between these cables with this machine that it is made from; later ones count more. */
  readonly tries: number;
}

/** A splice that might be made again. */
export interface RedoAsked extends JointAsked {
  /** The worst loss of the last try, dB; null where it broke. */
  readonly worst: number | null;
  /** Tries of it that failed in a row. */
  readonly failed: number;
}

/** Chance that a bad try has a cause in the splice itself, which another try does not cure: a core off its middle, a fiber of another kind. From memory. */
const ownCause = { single: 0.001, ribbon: 0.055 } as const;

/**
 * The odds of a redo: what a try comes to at a bench in order, less what speaks for a bench that is not (`Belief`, to which this splice's own tries belong), and for a cause
 * that lies in this splice and stays, the more the oftener it failed.
 */
export function redoOdds(asked: RedoAsked, record: OddsRecord): RedoOdds {
  return oddsBy(asked, goodJoint(asked, record), beliefAt(asked, record));
}

/** The odds of the next redo, of one after it where it fails, and of one after that. */
export function threeRedos(asked: RedoAsked, record: OddsRecord): readonly [RedoOdds, RedoOdds, RedoOdds] {
  const good = goodJoint(asked, record);
  const first = beliefAt(asked, record);
  const second = seenTry(first, good.holds, false);
  const third = seenTry(second, good.holds, false);
  const failed = (more: number) => ({ ...asked, failed: asked.failed + more });
  return [oddsBy(asked, good, first), oddsBy(failed(1), good, second), oddsBy(failed(2), good, third)];
}

const beliefAt = (asked: RedoAsked, record: OddsRecord) =>
  record.states.get(stateKey(asked, asked.fibers)) ?? priorBelief;

function oddsBy(asked: RedoAsked, good: GoodJoint, belief: Belief): RedoOdds {
  let own: number = ownCause[asked.kind];
  for (let more = 1; more < asked.failed; more += 1) {
    const cured = belief.reduce((sum, chance, at) => sum + chance * (1 - good.holds * stateHolds[at]!), 0);
    own = own / (own + (1 - own) * cured);
  }
  const share = belief.reduce((sum, chance, at) => sum + chance * stateHolds[at]!, 0);
  const better = asked.worst === null ? good.holds : good.atMost(asked.worst - 2 * halfStep);
  const inOrder = (1 - own) * belief[0];
  return {
    holds: (1 - own) * share * good.holds,
    // Where it persists, the next one is as likely to be better as worse.
    better: inOrder * better + (1 - inOrder) * 0.5,
    persists: 1 - inOrder,
    mean: good.mean,
    tries: good.tries,
  };
}
