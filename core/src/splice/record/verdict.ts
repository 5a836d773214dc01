import { exceeds, type Limits } from '../../limits/limits';
import type { OwnerAnswer } from '../../facts';
import type { SpliceHistory, StandingAttempt } from './history';
import { measuredLosses } from './measured';

/** Open: not spliced. Holds. Redo. Owner: over the limit and left for the owner to decide. Allowed: the owner took it. */
export type Mark = 'open' | 'holds' | 'redo' | 'owner' | 'allowed';

/** What a splice has against it, in codes and numbers; `reasonWords` says it. */
export type Reason =
  /** dB */
  | {
      readonly code: 'loss';
      readonly fiber: number | null;
      readonly params: { readonly loss: number; readonly limit: number };
    }
  /** The same of a measured loss, where the owner wants those. */
  | {
      readonly code: 'measured-loss';
      readonly fiber: number | null;
      readonly params: { readonly loss: number; readonly limit: number };
    }
  /** Degrees */
  | {
      readonly code: 'cleave-left' | 'cleave-right';
      readonly fiber: number | null;
      readonly params: { readonly angle: number; readonly limit: number };
    }
  | { readonly code: 'tries-used'; readonly fiber: null; readonly params: { readonly tries: number } }
  | {
      readonly code: 'proof-test' | 'sleeve' | 'light' | 'left-to-owner' | 'owner-redo' | 'owner-allowed';
      readonly fiber: null;
    };

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
      params: { angle, limit: limits.cleaveAngleMax },
    });
  }
  return reasons;
}

/** What an attempt is judged by. */
type Judged = Pick<StandingAttempt, 'readings' | 'proofTestFailed'> & {
  readonly sleeveForgotten?: boolean | undefined;
  readonly light?: 'dark' | 'glows' | undefined;
};

const noneMeasured: readonly (number | null)[] = [];

/**
 * What one attempt has against it; empty when it holds.
 * @param measured dB, by fiber, where a measured loss counts in place of the estimate; null where none does
 */
export function attemptReasons(
  attempt: Judged,
  kind: 'single' | 'ribbon',
  limits: Limits,
  measured: readonly (number | null)[] = noneMeasured,
): readonly Reason[] {
  // The list is made only when there is something to put on it: nearly every splice has nothing against it.
  let reasons: Reason[] | null = null;
  if (attempt.proofTestFailed) (reasons ??= []).push({ code: 'proof-test', fiber: null });
  if (attempt.sleeveForgotten) (reasons ??= []).push({ code: 'sleeve', fiber: null });
  if (attempt.light === 'glows') (reasons ??= []).push({ code: 'light', fiber: null });
  const limit = lossLimit(kind, limits);
  for (let index = 0; index < attempt.readings.length; index += 1) {
    const reading = attempt.readings[index]!;
    const fiber = kind === 'ribbon' ? index + 1 : null;
    const known = measured[index] ?? null;
    const loss = known ?? reading.loss;
    if (loss !== null && exceeds(loss, limit))
      (reasons ??= []).push({
        code: known === null ? 'loss' : 'measured-loss',
        fiber,
        params: { loss, limit },
      });
    if (reading.cleaveLeft !== null || reading.cleaveRight !== null)
      (reasons ??= []).push(...cleaveReasons(reading, limits, fiber));
  }
  return reasons ?? noReasons;
}

/**
 * Judges a splice by its last attempt. A failed proof test or a forgotten sleeve is a redo whatever else; anything else over its limit is a redo until
 * the tries are used up or the crew leaves it to the owner, and then the owner's call. Where the owner wants measured losses, a fiber that was measured is
 * judged by that, and an answer that was given before is given anew.
 */
export function judgeSplice(history: SpliceHistory, kind: 'single' | 'ribbon', limits: Limits): Verdict {
  const { last, attempts, answer, measured, measuredSince } = history;
  const counts = limits.measured === true && measured.length > 0;
  return judgeAttempt(
    last,
    attempts.length,
    counts && measuredSince ? null : answer,
    kind,
    limits,
    counts ? measuredLosses(measured) : noneMeasured,
  );
}

/**
 * The same by its parts, for a splice whose history need not be written out.
 * @param last the attempt that is in the tray, or null
 * @param tries attempts that happened
 * @param answer the latest answer about that attempt, or null
 * @param measured as in `attemptReasons`
 */
export function judgeAttempt(
  last: Judged | null,
  tries: number,
  answer: OwnerAnswer | null,
  kind: 'single' | 'ribbon',
  limits: Limits,
  measured: readonly (number | null)[] = noneMeasured,
): Verdict {
  if (!last) return untouched;
  const reasons = attemptReasons(last, kind, limits, measured);
  if (reasons.length === 0) return tries === 1 ? heldAtOnce : { mark: 'holds', reasons, tries };
  if (last.proofTestFailed || last.sleeveForgotten || last.light === 'glows')
    return { mark: 'redo', reasons, tries };

  const ruling = ownerRuling(answer, tries < limits.tries, limits);
  const all = ruling.reason ? [...reasons, ruling.reason] : reasons;
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
): { mark: Mark; reason?: Reason } {
  switch (answer?.body.answer) {
    case 'allow':
      return { mark: 'allowed', reason: { code: 'owner-allowed', fiber: null } };
    case 'redo':
      return { mark: 'redo', reason: { code: 'owner-redo', fiber: null } };
    case 'ask':
      return { mark: 'owner', reason: { code: 'left-to-owner', fiber: null } };
    case undefined:
      return moreTries
        ? { mark: 'redo' }
        : { mark: 'owner', reason: { code: 'tries-used', fiber: null, params: { tries: limits.tries } } };
  }
}
