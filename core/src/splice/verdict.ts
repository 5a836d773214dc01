import { exceeds, type Limits } from '../limits/limits';
import type { OwnerAnswer } from '../facts';
import type { SpliceHistory, StandingAttempt } from './history';
import { formatLoss } from './reading';

/** Open: not spliced. Holds. Redo. Owner: over the limit and left for the owner to decide. Allowed: the owner took it. */
export type Mark = 'open' | 'holds' | 'redo' | 'owner' | 'allowed';

export const markWords: Readonly<Record<Mark, string>> = {
  open: 'Open',
  holds: 'Holds',
  redo: 'Redo',
  owner: 'Owner’s call',
  allowed: 'Allowed',
};

export interface Reason {
  readonly code:
    | 'loss'
    | 'cleave-left'
    | 'cleave-right'
    | 'proof-test'
    | 'sleeve'
    | 'light'
    | 'tries-used'
    | 'left-to-owner'
    | 'owner-redo'
    | 'owner-allowed';
  readonly message: string;
  /** Fiber of the splice, 1 …, where the reason is about one. */
  readonly fiber: number | null;
}

export interface Verdict {
  readonly mark: Mark;
  readonly reasons: readonly Reason[];
  readonly tries: number;
}

/** Tries that are left before a splice over its limit becomes the owner's call. */
export function triesLeft(verdict: Pick<Verdict, 'tries'>, limits: Limits): number {
  return Math.max(0, limits.tries - verdict.tries);
}

/** The largest loss that one fiber of such a splice may have, dB. */
export function lossLimit(kind: 'single' | 'ribbon', limits: Limits): number {
  return kind === 'single' ? limits.singleMax : limits.ribbonFiberMax;
}

/**
 * Cleave angles against their limit, before or after the arc: which side to recleave before fusing again. Angles in degrees, null
 * when not looked at.
 */
export function cleaveReasons(
  reading: { readonly cleaveLeft: number | null; readonly cleaveRight: number | null },
  limits: Limits,
  fiber: number | null = null,
): Reason[] {
  const reasons: Reason[] = [];
  for (const side of ['left', 'right'] as const) {
    const angle = side === 'left' ? reading.cleaveLeft : reading.cleaveRight;
    if (angle === null || !exceeds(angle, limits.cleaveAngleMax)) continue;
    reasons.push({
      code: `cleave-${side}`,
      fiber,
      message: `Cleave ${side} ${formatAngle(angle)} is over ${formatAngle(limits.cleaveAngleMax)}. Recleave the ${side} end before fusing.`,
    });
  }
  return reasons;
}

/** What an attempt is judged by. */
type Judged = Pick<StandingAttempt, 'readings' | 'proofTestFailed'> & {
  readonly sleeveForgotten?: boolean | undefined;
  readonly light?: 'dark' | 'glows' | undefined;
};

/** What one attempt has against it; empty when it holds. */
export function attemptReasons(
  attempt: Judged,
  kind: 'single' | 'ribbon',
  limits: Limits,
): readonly Reason[] {
  // The list is made only when there is something to put on it: nearly every splice has nothing against it.
  let reasons: Reason[] | null = null;
  if (attempt.proofTestFailed)
    (reasons ??= []).push({
      code: 'proof-test',
      fiber: null,
      message: 'The proof test failed. Splice again whatever the loss reads.',
    });
  if (attempt.sleeveForgotten)
    (reasons ??= []).push({
      code: 'sleeve',
      fiber: null,
      message: 'The sleeve was forgotten. Cut it out, sleeve on first, and splice again.',
    });
  if (attempt.light === 'glows')
    (reasons ??= []).push({
      code: 'light',
      fiber: null,
      message: 'Light shows at the joint: the fiber is not seated. Cleave a new end and seat it again.',
    });
  const limit = lossLimit(kind, limits);
  for (let index = 0; index < attempt.readings.length; index += 1) {
    const reading = attempt.readings[index]!;
    const fiber = kind === 'ribbon' ? index + 1 : null;
    if (reading.loss !== null && exceeds(reading.loss, limit))
      (reasons ??= []).push({
        code: 'loss',
        fiber,
        message: `${fiber === null ? '' : `Fiber ${fiber}: `}${formatLoss(reading.loss)} dB is over ${formatLoss(limit)} dB.`,
      });
    if (reading.cleaveLeft !== null || reading.cleaveRight !== null)
      (reasons ??= []).push(...cleaveReasons(reading, limits, fiber));
  }
  return reasons ?? noReasons;
}

/**
 * Judges a splice by its last attempt. A failed proof test or a forgotten sleeve is a redo whatever else; anything else over its limit is a redo until
 * the tries are used up or the crew leaves it to the owner, and then the owner's call.
 */
export function judgeSplice(history: SpliceHistory, kind: 'single' | 'ribbon', limits: Limits): Verdict {
  return judgeAttempt(history.last, history.attempts.length, history.answer, kind, limits);
}

/**
 * The same by its parts, for a splice whose history need not be written out.
 * @param last the attempt that is in the tray, or null
 * @param tries attempts that happened
 * @param answer the latest answer about that attempt, or null
 */
export function judgeAttempt(
  last: Judged | null,
  tries: number,
  answer: OwnerAnswer | null,
  kind: 'single' | 'ribbon',
  limits: Limits,
): Verdict {
  if (!last) return untouched;
  const reasons = attemptReasons(last, kind, limits);
  if (reasons.length === 0) return tries === 1 ? heldAtOnce : { mark: 'holds', reasons, tries };
  if (last.proofTestFailed || last.sleeveForgotten || last.light === 'glows')
    return { mark: 'redo', reasons, tries };

  const ruling = ownerRuling(answer, tries < limits.tries, limits);
  const all = ruling.reason ? [...reasons, { ...ruling.reason, fiber: null }] : reasons;
  return { mark: ruling.mark, reasons: all, tries };
}

const noReasons: readonly Reason[] = [];
/** The two verdicts that nearly every splice has, shared. */
const untouched: Verdict = { mark: 'open', reasons: noReasons, tries: 0 };
const heldAtOnce: Verdict = { mark: 'holds', reasons: noReasons, tries: 1 };

/** What becomes of an attempt that is over a limit, and why. */
function ownerRuling(
  answer: OwnerAnswer | null,
  moreTries: boolean,
  limits: Limits,
): { mark: Mark; reason?: Pick<Reason, 'code' | 'message'> } {
  switch (answer?.body.answer) {
    case 'allow':
      return { mark: 'allowed', reason: { code: 'owner-allowed', message: 'The owner allowed it.' } };
    case 'redo':
      return { mark: 'redo', reason: { code: 'owner-redo', message: 'The owner wants it done again.' } };
    case 'ask':
      return { mark: 'owner', reason: { code: 'left-to-owner', message: 'Left to the owner.' } };
    case undefined:
      return moreTries
        ? { mark: 'redo' }
        : { mark: 'owner', reason: { code: 'tries-used', message: `All ${limits.tries} tries are used.` } };
  }
}

export function formatAngle(degrees: number): string {
  return `${degrees.toFixed(Math.round(degrees * 100) % 10 === 0 ? 1 : 2)}°`;
}
