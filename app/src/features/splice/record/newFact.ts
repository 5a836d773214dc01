import {
  runsOf,
  type Attempt,
  type Correction,
  type Fact,
  type MeasuredLoss,
  type Origin,
  type OwnerAnswer,
  type PlacedSplice,
  type SpliceFact,
  type StandingAttempt,
  type UsedGear,
} from '@cordel/core';
import { factStart } from '../../../data/factStart';
import { usedGear } from '../../../data/gearTonight';

interface About {
  readonly closureId: string;
  readonly splice: Pick<PlacedSplice, 'left' | 'right'>;
  /** What already happened at the splice. */
  readonly facts: readonly SpliceFact[];
}

/** What came of a try. */
export type Result = NonNullable<Correction['body']['result']>;

function base<K extends Fact['kind']>(kind: K, { closureId, splice, facts }: About) {
  const { left, right } = splice;
  return {
    ...factStart(kind, facts),
    subject: { on: 'splice' as const, closureId, left: runsOf(left), right: runsOf(right) },
  };
}

/** Of a reading that came by itself. */
interface Came {
  readonly simulated: boolean;
  readonly origin: Origin;
  /** null: nothing on record. */
  readonly gear: UsedGear | null;
}

/** An attempt: read off the machine and entered by hand, with the gear of the night; or one that a linked machine sent. */
export function newAttempt(about: About, result: Result, from?: Came): Attempt {
  const gear = from ? from.gear : usedGear();
  const start = base('attempt', about);
  const made = { ...(gear ? { gear } : {}), ...result };
  if (!from) return { ...start, body: { source: 'hand', simulated: false, ...made } };
  const { simulated, origin } = from;
  return { ...start, body: { source: 'machine', simulated, origin, ...made } };
}

/** An attempt out of a machine's log. @param at when it was made, ms since 1970; null: the log does not say */
export function newLogAttempt(about: About, result: Result, from: Came, at: number | null): Attempt {
  const { simulated, origin, gear } = from;
  const start = base('attempt', { ...about, facts: at === null ? about.facts : [] });
  return {
    ...start,
    // No machine's clock says what comes to be.
    madeAt: at === null ? start.madeAt : new Date(Math.min(at, Date.parse(start.madeAt))).toISOString(),
    body: { source: 'log', simulated, origin, ...(gear ? { gear } : {}), ...result },
  };
}

/** What stands of an attempt, to be corrected in one thing. */
export function resultOf(standing: StandingAttempt): Result {
  const { readings, proofTestFailed, sleeveForgotten, sleeveConfirmed, light, note } = standing;
  return {
    readings: [...readings],
    proofTestFailed,
    ...(sleeveForgotten ? { sleeveForgotten } : {}),
    ...(sleeveConfirmed ? { sleeveConfirmed } : {}),
    ...(light ? { light } : {}),
    note,
  };
}

/** Why something is corrected: what the bench knows, or the person's own words. */
export type Why = Partial<Pick<Correction['body'], 'because' | 'reason'>>;

/** `result` null takes the attempt back. */
export function newCorrection(about: About, attemptId: string, result: Result | null, why: Why): Correction {
  const { reason = '', because } = why;
  return {
    ...base('correction', about),
    body: { attemptId, result, ...(because ? { because } : {}), reason },
  };
}

export function newMeasuredLoss(about: About, body: Omit<MeasuredLoss['body'], 'note'>): MeasuredLoss {
  return { ...base('measured-loss', about), body: { ...body, note: '' } };
}

export function newOwnerAnswer(
  about: About,
  attemptId: string,
  answer: OwnerAnswer['body']['answer'],
): OwnerAnswer {
  return { ...base('owner-answer', about), body: { attemptId, answer, note: '' } };
}
