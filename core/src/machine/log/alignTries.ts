import type { LogSplice } from './rows';

/** Rows of a log beside the tries on record: which say the same, how their clocks differ, and which belong together. */

/** A try that is on record. */
export interface RecordedTry {
  readonly id: string;
  /** ms since 1970, when it was recorded. */
  readonly at: number;
  /** dB by fiber; null: none was read. */
  readonly losses: readonly (number | null)[];
  readonly proofTestFailed: boolean;
  /** How it came on record. */
  readonly source: 'hand' | 'log' | 'machine';
  /** Where it stands in this machine's memory; null: it was entered by hand, or came from another machine. */
  readonly origin: { readonly splice: number | null; readonly at: number | null } | null;
  /** It was made with another machine: the log has nothing of it. */
  readonly elsewhere: boolean;
}

/** Machines that show no seconds are off by up to this, ms. */
export const minute = 60_000;

/** Rows may be so far off the time at which they were entered by hand, ms, once the clocks are compared. */
export const widest = 30 * 60_000;
/**
 * What an alignment costs, as −ln of how often it happens: one splice in ten is not entered by hand, one entry in fifty is of nothing that the log has, one in thirty is
 * wrong; how late one enters scatters by a minute and a half, now and then by much more. Invented, and only their order of size matters.
 */
const skipRowCost = 2.3;
const skipTryCost = 3.9;
const differCost = 3.5;
const scatter = 90_000;
const mostTimeCost = 6;
/** Tries that the alignment looks ahead and back of the diagonal, where no time says better. */
const band = 150;

/** Whether a row and a try say the same: to the digits that the log has. */
export function sameReading(row: LogSplice, { losses, proofTestFailed }: RecordedTry): boolean {
  return (
    row.proofTestFailed === proofTestFailed &&
    row.readings.length === losses.length &&
    row.readings.every(({ loss }, fiber) => {
      const other = losses[fiber]!;
      return loss === null || other === null ? loss === other : Math.abs(loss - other) < 0.0055;
    })
  );
}

/** How far the clocks differ: where most pairs with the same losses are, within a minute. null where too few say so. */
export function clockOffOf(rows: readonly LogSplice[], tries: readonly RecordedTry[]): number | null {
  const key = (losses: readonly (number | null)[]) => losses.map((one) => one?.toFixed(2) ?? '').join();
  const byLosses = new Map<string, number[]>();
  for (const { losses, at } of tries) {
    const list = byLosses.get(key(losses));
    if (list) list.push(at);
    else byLosses.set(key(losses), [at]);
  }
  const bins = new Map<number, number[]>();
  for (const row of rows) {
    if (row.at === null) continue;
    // A reading that many tries have says little, and would be compared with each of them.
    const same = byLosses.get(key(row.readings.map(({ loss }) => loss))) ?? [];
    for (const at of same.slice(0, 60)) {
      const off = at - row.at;
      const bin = Math.round(off / minute);
      const list = bins.get(bin);
      if (list) list.push(off);
      else bins.set(bin, [off]);
    }
  }
  let best: number[] = [];
  for (const [bin] of bins) {
    const around = [...(bins.get(bin - 1) ?? []), ...bins.get(bin)!, ...(bins.get(bin + 1) ?? [])];
    // Of several that say as much, the one in which the clocks are closer.
    const closer = around.length === best.length && Math.abs(bin) < Math.abs((best[0] ?? 0) / minute);
    if (around.length > best.length || closer) best = around;
  }
  if (best.length < 3 && best.length < tries.length / 2) return null;
  if (best.length < 2) return null;
  const sorted = best.sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)]!;
}

/**
 * The alignment of rows and tries in their orders that costs least (Needleman and Wunsch 1970, in a band): a pair that says the same costs nothing, one that differs less than
 * leaving out both.
 * @param clockOff null: times say nothing
 * @returns pairs of indices, rising in both
 */
export function align(
  rows: readonly LogSplice[],
  tries: readonly RecordedTry[],
  clockOff: number | null,
): [row: number, one: number][] {
  const [n, m] = [rows.length, tries.length];
  if (n === 0 || m === 0) return [];
  const timed = clockOff !== null && rows.every(({ at }) => at !== null);
  const cost = (i: number, j: number): number => {
    const [row, one] = [rows[i]!, tries[j]!];
    if (row.readings.length !== one.losses.length) return Infinity;
    const apart = timed ? Math.abs(one.at - row.at! - clockOff!) : 0;
    if (apart > widest) return Infinity;
    const time = Math.min(mostTimeCost, apart ** 2 / (2 * scatter ** 2));
    return (sameReading(row, one) ? 0 : differCost) + time;
  };
  // Where the tries of a row may be: by time, or around the diagonal.
  const firstAfter = (time: number) => {
    let [low, high] = [0, m];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (tries[middle]!.at < time) low = middle + 1;
      else high = middle;
    }
    return low;
  };
  const spans: [from: number, to: number][] = [];
  let reached = 0;
  for (let i = 0; i < n; i += 1) {
    const at = timed ? rows[i]!.at! + clockOff! : 0;
    const middle = Math.round((i * m) / n);
    const slack = band + Math.abs(n - m);
    const from = timed ? firstAfter(at - widest) : Math.max(0, middle - slack);
    const to = timed ? firstAfter(at + widest + 1) : Math.min(m, middle + slack);
    // Spans never go back, whatever order the times are in.
    reached = Math.max(reached, to);
    spans.push([Math.min(from, spans[i - 1]?.[1] ?? from), reached]);
  }
  // best[j]: the least cost of what is before, with tries up to j.
  let before = new Float64Array(m + 1);
  for (let j = 1; j <= m; j += 1) before[j] = before[j - 1]! + skipTryCost;
  const ways: { readonly from: number; readonly way: Uint8Array }[] = [];
  for (let i = 0; i < n; i += 1) {
    const [from, to] = spans[i]!;
    const now = new Float64Array(m + 1).fill(Infinity);
    const way = new Uint8Array(to - from + 1);
    for (let j = from; j <= to; j += 1) {
      const skipRow = before[j]! + skipRowCost;
      const skipTry = j > from ? now[j - 1]! + skipTryCost : Infinity;
      const both = j > from ? before[j - 1]! + cost(i, j - 1) : Infinity;
      const least = Math.min(skipRow, skipTry, both);
      now[j] = least;
      way[j - from] = least === both ? 2 : least === skipRow ? 0 : 1;
    }
    // Beyond the span further tries are left out.
    for (let j = to + 1; j <= m; j += 1) now[j] = now[j - 1]! + skipTryCost;
    ways.push({ from, way });
    before = now;
  }
  const pairs: [number, number][] = [];
  let j = m;
  for (let i = n - 1; i >= 0;) {
    const { from, way } = ways[i]!;
    if (j > spans[i]![1]) {
      j = spans[i]![1];
      continue;
    }
    const step = j < from ? 0 : way[j - from]!;
    if (step === 2) pairs.push([i, j - 1]);
    if (step !== 1) i -= 1;
    if (step !== 0) j -= 1;
  }
  return pairs.reverse();
}
