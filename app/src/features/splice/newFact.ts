import type { Attempt, Correction, OwnerAnswer, SpliceFact, StandingAttempt } from '@cordel/core';
import { factStart } from '../../data/factStart';
import { usedGear } from '../../data/gearTonight';

interface About {
  readonly closureId: string;
  readonly spliceId: string;
  /** What already happened at the splice. */
  readonly facts: readonly SpliceFact[];
}

/** What came of a try. */
export type Result = NonNullable<Correction['result']>;

function base({ closureId, spliceId, facts }: About) {
  return { ...factStart(closureId, facts), spliceId };
}

/** An attempt read off the machine and entered by hand, with the gear of the night. */
export function newAttempt(about: About, result: Result): Attempt {
  const gear = usedGear();
  return {
    ...base(about),
    kind: 'attempt',
    source: 'hand',
    simulated: false,
    ...(gear ? { gear } : {}),
    ...result,
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

/** `result` null takes the attempt back. */
export function newCorrection(
  about: About,
  attemptId: string,
  result: Result | null,
  reason: string,
): Correction {
  return { ...base(about), kind: 'correction', attemptId, result, reason };
}

export function newOwnerAnswer(about: About, attemptId: string, answer: OwnerAnswer['answer']): OwnerAnswer {
  return { ...base(about), kind: 'owner-answer', attemptId, answer, note: '' };
}
