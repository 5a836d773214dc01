import type { Attempt, Correction, OwnerAnswer, Reading, SpliceFact } from '@cordel/core';
import { factStart } from '../../data/factStart';

interface About {
  readonly closureId: string;
  readonly spliceId: string;
  /** What already happened at the splice. */
  readonly facts: readonly SpliceFact[];
}

export interface Result {
  readonly readings: Reading[];
  readonly proofTestFailed: boolean;
  readonly sleeveForgotten?: boolean;
  readonly note: string;
}

function base({ closureId, spliceId, facts }: About) {
  return { ...factStart(closureId, facts), spliceId };
}

/** An attempt read off the machine and entered by hand. */
export function newAttempt(about: About, result: Result): Attempt {
  return { ...base(about), kind: 'attempt', source: 'hand', simulated: false, ...result };
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
