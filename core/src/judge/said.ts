import type { Tried } from './series/tried';
import type { Cause } from './watch/causes';
import type { RuleName, Strength } from './watch/rule';
import type { Saw } from './watch/saw';

/** What is said of a series: one thing at a time. */
export interface Said {
  /** The rule that shows it best. */
  readonly strength: Strength;
  /** In numbers. */
  readonly saw: Saw;
  /** Of the machine whose night it is; null: none is on record. */
  readonly machine: string | null;
  /** The likeliest cause, and the next; null where the rule itself names what it is about (a person, a machine, a blade’s position). */
  readonly cause: Cause | null;
  readonly runnerUp: Cause | null;
  /** Of the likeliest cause, 0 … 1. */
  readonly share: number;
  /** Nothing is over a limit yet, and quality sinks all the same. */
  readonly sinking: boolean;
  /** Other rules that tripped. */
  readonly also: readonly RuleName[];
}

/** A machine's night that is not over, and what is said of it. */
export interface LiveNight {
  readonly machine: string | null;
  /** Of its last try, ms since 1970. */
  readonly last: number;
  readonly kind: Tried['kind'];
  readonly said: Said | null;
}

/** Whether a night that had its last try then is over by now; ms since 1970. */
export function isOver(last: number, now: number): boolean {
  return now - last >= nightEnds;
}

/** So long without a splice at a machine, and its night is over. ms */
const nightEnds = 8 * 3600_000;
