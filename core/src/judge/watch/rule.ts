import type { Happened, Tried } from '../series/tried';

export type RuleName =
  | 'drift'
  | 'shift'
  | 'level'
  | 'position'
  | 'side'
  | 'blade'
  | 'over'
  | 'breaks'
  | 'cold'
  | 'conditions'
  | 'position-of-blade'
  | 'pair'
  | 'person'
  | 'machine';

/** What a rule says at the moment. */
export interface Strength {
  readonly rule: RuleName;
  /** What exactly: a position, a side, a pair, a person, a machine; empty where there is but one. */
  readonly about: string;
  readonly statistic: number;
  /** It trips from here on. */
  readonly threshold: number;
  /** Splices that it was looked for in. */
  readonly count: number;
  /** Whether they are enough for an alarm. */
  readonly enough: boolean;
}

/** A rule at work: it is told what happens in the order of time. Nothing but what it was told decides. */
export interface Watcher {
  add(tried: Tried): void;
  happened(event: Happened): void;
  /** Strongest first. */
  strengths(): readonly Strength[];
}

/** Whether somebody answered what this rule said: it begins anew. */
export function isAnswer(event: Happened, rule: RuleName): boolean {
  return event.what === 'answered' && event.rule === rule;
}

export function trips({ statistic, threshold, enough }: Strength): boolean {
  return enough && statistic >= threshold;
}
