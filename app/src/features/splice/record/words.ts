import {
  formatLoss,
  highestLoss,
  highestMeasured,
  lossLimit,
  reasonWords,
  triesLeft,
  type Limits,
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
        : `${place} holds: ${measuredCounts(state, limits) ?? lossWords(state)} of ${limit} dB.`;
    case 'redo':
      return `${place}, redo. ${reasons}`;
    case 'owner':
      return `${place} is the owner’s call. ${reasons}`;
    case 'allowed':
      return `${place} is allowed. ${reasons}`;
  }
}

/** "measured 0.04", where that is what it holds by. */
function measuredCounts(state: SpliceState, { measured }: Limits): string | null {
  const highest = highestMeasured(state.measured);
  return measured && highest !== null && state.measured.every((one) => one !== null)
    ? `measured ${formatLoss(highest)}`
    : null;
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
