import {
  formatLoss,
  formatMean,
  highestLoss,
  lossLimit,
  markWords,
  reasonWords,
  triesLeft,
  type Allowance,
  type Limits,
  type RollUp,
  type SpliceState,
} from '@cordel/core';

/** What stands beside a knot: "0.04", or nothing where there is no reading. */
export function lossWords(state: SpliceState): string {
  const worst = highestLoss(state.readings);
  return worst === null ? '' : formatLoss(worst);
}

/** The verdict in one line, with its numbers: "Slot 6 holds: 0.04 of 0.10 dB." */
export function verdictLine(state: SpliceState, limits: Limits): string {
  const { splice, verdict } = state;
  const place = `Slot ${splice.slot}`;
  const limit = formatLoss(lossLimit(splice.kind, limits));
  const reasons = verdict.reasons.map(reasonWords).join(' ');
  switch (verdict.mark) {
    case 'open':
      return `${place} is open.`;
    case 'holds':
      return lossWords(state) === ''
        ? `${place} holds: it stays dark.`
        : `${place} holds: ${lossWords(state)} of ${limit} dB.`;
    case 'redo':
      return `${place}, redo. ${reasons}`;
    case 'owner':
      return `${place} is the owner’s call. ${reasons}`;
    case 'allowed':
      return `${place} is allowed. ${reasons}`;
  }
}

/** Which try comes next: "Try 2 of 3". Beyond the allowed number it only counts. */
export function nextTry({ verdict }: SpliceState, limits: Limits): string {
  const next = `Try ${verdict.tries + 1}`;
  return triesLeft(verdict, limits) > 0 ? `${next} of ${limits.tries}` : next;
}

/** What the slack still allows, said before the last one. */
export function redosWords(redos: number): string {
  if (redos === 0) return 'The slack for redos is used up: this one needs fiber from the coils.';
  return redos === 1 ? 'The slack allows this redo, and it is the last.' : `The slack allows ${redos} redos.`;
}

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
