import {
  formatLoss,
  formatMean,
  markWords,
  toldApart,
  type Allowance,
  type Limits,
  type RollUp,
} from '@cordel/core';

/** What every stage says of how far a closure is. */

/** "52 of 96" with what waits: "1 redo", "1 owner’s call". */
export function waitingWords(rollUp: RollUp): string {
  const parts = [];
  if (rollUp.marks.redo > 0) parts.push(`${rollUp.marks.redo} ${markWords.redo.toLowerCase()}`);
  if (rollUp.marks.owner > 0) parts.push(`${rollUp.marks.owner} ${markWords.owner.toLowerCase()}`);
  return parts.join(' · ');
}

export function progressWords(rollUp: RollUp): string {
  if (rollUp.count === 0) return 'No splices planned';
  return rollUp.settled === 0 && rollUp.marks.redo === 0 ? 'Open' : `${rollUp.settled} of ${rollUp.count}`;
}

/** The mean of what was read, dB: longer than usual where it is over its limit and would read like it; a dash without readings. */
export function meanWords({ mean, meanOver, allowance }: RollUp): string {
  if (mean === null) return '–';
  return meanOver ? toldApart(mean, allowance.limit, formatMean)[0] : formatMean(mean);
}

/** The running allowance in words. Above the limit of a single splice it is no news: that limit binds first. */
export function allowanceWords({ remaining, mayAverage }: Allowance, { singleMax }: Limits): string {
  if (mayAverage === null) return 'nothing left to splice';
  if (mayAverage < 0) return 'the mean can no longer hold: redo the worst';
  if (mayAverage >= singleMax)
    return remaining === 1
      ? 'the last one keeps the mean if it holds'
      : `the ${remaining} to do keep the mean if they hold`;
  const open = remaining === 1 ? 'the last one may read' : `the ${remaining} to do may average`;
  return `${open} ${formatMean(mayAverage)}`;
}

/** A loss with what it is: "0.04 dB est.", or where it was measured as well "0.04 dB est., 0.06 meas."; nothing where neither is known. */
export function lossTold(estimate: number | null, measured: number | null = null): string {
  return [
    estimate === null ? null : `${formatLoss(estimate)} dB est.`,
    measured === null ? null : `${formatLoss(measured)}${estimate === null ? ' dB' : ''} meas.`,
  ]
    .filter(Boolean)
    .join(', ');
}

/** The mean of the fibers that were measured, by itself: "0.061 dB, 3 fibers"; null without any. */
export function measuredMeanWords({ measured }: Pick<RollUp, 'measured'>): string | null {
  if (!measured) return null;
  return `${formatMean(measured.mean)} dB, ${measured.fibers === 1 ? '1 fiber' : `${measured.fibers} fibers`}`;
}
