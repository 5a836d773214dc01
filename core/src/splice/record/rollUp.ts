import { exceeds } from '../../limits/limits';
import { quantileSorted } from '../../statistics/quantile';
import { runningAllowance, type Allowance } from './allowance';
import type { Mark } from './verdict';

/** Sums over a tray, from which a closure's are added up in the same order every time, so that every device gets the same digits. */
export interface Tally {
  readonly marks: Readonly<Record<Mark, number>>;
  /** Fibers with a reading in the tray now, those of them that are settled, and those still to be read (open or redo); a joint of which no loss is read counts nowhere. */
  readonly read: number;
  readonly settledRead: number;
  readonly remaining: number;
  /** Sum over all readings that are in the tray now, and over those that are settled (not to be redone), dB. */
  readonly loss: number;
  readonly settledLoss: number;
  readonly worst: { readonly loss: number; readonly spliceId: string } | null;
  /** Fibers of those readings that were measured as well, and the sum of what was measured, dB. */
  readonly measured: number;
  readonly measuredLoss: number;
}

export interface RollUp {
  /** Splices planned, and how many of them stand at each mark. */
  readonly count: number;
  readonly marks: Readonly<Record<Mark, number>>;
  /** Splices that are neither open nor to be redone. */
  readonly settled: number;
  /** dB over the readings that are in the tray now (the last attempt of each splice), per fiber. null without readings. */
  readonly mean: number | null;
  readonly median: number | null;
  readonly p95: number | null;
  readonly worst: { readonly loss: number; readonly spliceId: string } | null;
  /** Where the owner wants measured losses and every fiber is measured, that mean decides; while some are not, both are held against the limit, each by itself. */
  readonly meanOver: boolean;
  /** Of the fibers that were measured, by those measured losses alone; null without any. */
  readonly measured: { readonly fibers: number; readonly mean: number; readonly over: boolean } | null;
  readonly allowance: Allowance;
}

/** What a tally needs of a judged splice. */
export interface TallyInput {
  readonly splice: { readonly id: string; readonly left: readonly unknown[]; readonly unread?: true };
  readonly verdict: { readonly mark: Mark };
  /** Of the attempt that is in the tray; empty without one. */
  readonly readings: readonly { readonly loss: number | null }[];
  readonly measured: readonly (number | null)[];
}

/** Adds up splices in the order given. */
export function tally(splices: readonly TallyInput[]): Tally {
  const marks: Record<Mark, number> = { open: 0, holds: 0, redo: 0, owner: 0, allowed: 0 };
  let read = 0;
  let settledRead = 0;
  let remaining = 0;
  let loss = 0;
  let settledLoss = 0;
  let worst: Tally['worst'] = null;
  let measured = 0;
  let measuredLoss = 0;
  for (const { splice, verdict, readings, measured: seen } of splices) {
    for (const one of seen)
      if (one !== null) {
        measured += 1;
        measuredLoss += one;
      }
    marks[verdict.mark] += 1;
    const settled = verdict.mark !== 'open' && verdict.mark !== 'redo';
    if (!settled && !splice.unread) remaining += splice.left.length;
    for (const reading of readings) {
      if (reading.loss === null) continue;
      read += 1;
      loss += reading.loss;
      if (settled) {
        settledRead += 1;
        settledLoss += reading.loss;
      }
      if (!worst || reading.loss > worst.loss) worst = { loss: reading.loss, spliceId: splice.id };
    }
  }
  return { marks, read, settledRead, remaining, loss, settledLoss, worst, measured, measuredLoss };
}

const allMarks: readonly Mark[] = ['open', 'holds', 'redo', 'owner', 'allowed'];

/** Adds up trays in the order given. */
export function sumTallies(parts: readonly Tally[]): Tally {
  const marks: Record<Mark, number> = { open: 0, holds: 0, redo: 0, owner: 0, allowed: 0 };
  const sum = {
    read: 0,
    settledRead: 0,
    remaining: 0,
    loss: 0,
    settledLoss: 0,
    measured: 0,
    measuredLoss: 0,
  };
  let worst: Tally['worst'] = null;
  for (const part of parts) {
    for (const mark of allMarks) marks[mark] += part.marks[mark];
    sum.read += part.read;
    sum.settledRead += part.settledRead;
    sum.remaining += part.remaining;
    sum.loss += part.loss;
    sum.settledLoss += part.settledLoss;
    sum.measured += part.measured;
    sum.measuredLoss += part.measuredLoss;
    if (part.worst && (!worst || part.worst.loss > worst.loss)) worst = part.worst;
  }
  return { marks, ...sum, worst };
}

/**
 * @param sortedLosses all readings of the tally, upward, dB
 * @param meanLimit the tray's or closure's mean limit, dB
 * @param wantsMeasured the owner wants measured losses
 */
export function rollUp(
  total: Tally,
  sortedLosses: ArrayLike<number>,
  meanLimit: number,
  wantsMeasured = false,
): RollUp {
  const { marks } = total;
  const settled = marks.holds + marks.owner + marks.allowed;
  const mean = total.read > 0 ? total.loss / total.read : null;
  const estimateOver = mean !== null && exceeds(mean, meanLimit);
  const measuredMean = total.measured > 0 ? total.measuredLoss / total.measured : null;
  const measured =
    measuredMean === null
      ? null
      : { fibers: total.measured, mean: measuredMean, over: exceeds(measuredMean, meanLimit) };
  return {
    count: settled + marks.open + marks.redo,
    marks,
    settled,
    mean,
    median: quantileSorted(sortedLosses, 0.5),
    p95: quantileSorted(sortedLosses, 0.95),
    worst: total.worst,
    meanOver:
      wantsMeasured && measured
        ? measured.over || (estimateOver && measured.fibers < total.read)
        : estimateOver,
    measured,
    allowance: runningAllowance(meanLimit, total.settledRead, total.settledLoss, total.remaining),
  };
}
