import { attemptReasons, lossLimit, triesLeft } from '../../splice/record/verdict';
import { spliceHistory } from '../../splice/record/history';
import { highestMeasured } from '../../splice/record/measured';
import { highestLoss, type Reading } from '../../splice/record/reading';
import type { ClosureLedger, SpliceState, TrayState } from '../../splice/record/ledger';
import { mismatchLoss } from '../../splice/record/spliceLoss';
import { fiberOf } from '../../line/fiberType';
import type { Cable } from '../../line/cable';
import { usualWeights } from '../../limits/weights';
import { quantileSorted } from '../../statistics/quantile';
import { advise, meanOverChance, type Advice } from './advice';
import { costsOf } from './costs';
import { fieldsDiffer, measuresOver, type Differences } from './measuring';
import { threeRedos, type RedoOdds } from './redoOdds';
import type { OddsRecord } from './record';

/** What is said of a splice that was tried, and what it is made from. */
export interface SpliceAdvice {
  readonly advice: Advice;
  /** Of the next redo. */
  readonly odds: RedoOdds;
  /** dB */
  readonly limit: number;
  readonly redosLeft: number | null;
  readonly triesLeft: number;
  /** What first tries between these cables with good cleaves read, dB, but for the lowest and the highest tenth; null while they are few. */
  readonly pair: { readonly count: number; readonly low: number; readonly high: number } | null;
  /** The mode fields of the two cables differ. */
  readonly fieldsDiffer: boolean;
}

export interface AdviceAt {
  readonly ledger: ClosureLedger;
  readonly tray: TrayState;
  readonly state: SpliceState;
  readonly cables: ReadonlyMap<string, Cable>;
  readonly record: OddsRecord;
  /** See `redosLeft`; null: not known. */
  readonly redosLeft: number | null;
  /** Of one redo. */
  readonly minutes: number;
  /** Of the window; null: not known. */
  readonly minutesLeft: number | null;
}

/** An estimate so far over its limit is believed, dB. */
const little = 0.05;
/** Fewer readings are no range. */
const fewest = 4;

/** What to do with a splice that was tried: redo it, leave it, ask the owner, or measure it first. null: it is open, holds with nothing against it, or has no loss to read. */
export function adviceAt(at: AdviceAt): SpliceAdvice | null {
  const { ledger, tray, state, cables, record, redosLeft } = at;
  const { limits } = ledger;
  const { splice, verdict } = state;
  const history = spliceHistory(state.facts);
  const { last } = history;
  if (!last || last.light !== undefined || verdict.mark === 'allowed') return null;
  const bad = verdict.mark === 'redo' || verdict.mark === 'owner';
  // Where the owner wants measured losses, what was measured of it counts.
  const measured = limits.measured ? state.measured : noneMeasured;
  const failed = failedInARow(history.attempts, splice.kind, limits, measured);
  const worst = highestMeasured(measured) ?? highestLoss(last.readings);
  const pairTerm = termOf(splice, cables);
  const limit = lossLimit(splice.kind, limits);
  const fibers = splice.left.length;
  const three = threeRedos(
    {
      kind: splice.kind,
      fibers,
      pair: pairOf(splice),
      pairTerm,
      machine: last.fact.body.gear?.machine?.id ?? null,
      worst: last.proofTestFailed ? null : worst,
      failed,
      lossMax: limit,
    },
    record,
  );
  const [odds] = three;
  const meanOver = meansAfter(tray, state, odds.mean);
  // It holds, and so does the mean.
  if (!bad && meanOver.stays - meanOver.redone < 0.2) return null;
  const differ = fieldsDiffer(pairTerm);
  const known = differencesIn(ledger).get(pairOf(splice));
  const left = triesLeft(verdict, limits);
  const advice = advise(
    {
      bad,
      mustGo: last.proofTestFailed || last.sleeveForgotten,
      holds: [three[0].holds, three[1].holds, three[2].holds],
      redosLeft,
      triesLeft: left,
      minutes: at.minutes,
      minutesLeft: at.minutesLeft,
      meanOver,
      measuredHolds:
        differ && worst !== null && worst - limit <= little && state.measured.length === 0
          ? last.readings.reduce(
              (chance, { loss }) =>
                loss === null ? chance : chance * (1 - measuresOver(loss, limit, pairTerm, known)),
              1,
            )
          : null,
    },
    costsOf(limits.weights ?? usualWeights),
  );
  return { advice, odds, limit, redosLeft, triesLeft: left, pair: rangeOf(at, splice), fieldsDiffer: differ };
}

const noneMeasured: readonly (number | null)[] = [];

function failedInARow(
  attempts: ReturnType<typeof spliceHistory>['attempts'],
  kind: 'single' | 'ribbon',
  limits: ClosureLedger['limits'],
  /** Of the last one. */
  measured: readonly (number | null)[],
): number {
  const held = attempts.findLastIndex(
    (attempt, index) =>
      attemptReasons(attempt, kind, limits, index === attempts.length - 1 ? measured : noneMeasured)
        .length === 0,
  );
  return attempts.length - 1 - held;
}

type Splice = SpliceState['splice'];

/** The two cables, whichever is left. */
export function pairOf({ left, right }: Pick<Splice, 'left' | 'right'>): string {
  return [left[0]!.cableId, right[0]!.cableId].sort().join(' ');
}

/** What the mode fields of the two cables cost by themselves, dB; null where one is not known. */
export function termOf(
  { left, right }: Pick<Splice, 'left' | 'right'>,
  cables: ReadonlyMap<string, Cable>,
): number | null {
  const [one, other] = [left, right].map((ends) => {
    const cable = cables.get(ends[0]!.cableId);
    return cable ? fiberOf(cable).modeField : null;
  });
  return one == null || other == null ? null : mismatchLoss(one, other);
}

/** What measured losses lay above their estimates, by the pair of cables. */
export function differencesIn(ledger: ClosureLedger): ReadonlyMap<string, Differences> {
  const found = new Map<string, { count: number; sum: number }>();
  for (const { tally, splices } of ledger.trays) {
    if (tally.measured === 0) continue;
    for (const { splice, measured, readings } of splices)
      measured.forEach((loss, index) => {
        const estimate = readings[index]?.loss ?? null;
        if (loss === null || estimate === null) return;
        const pair = pairOf(splice);
        const own = found.get(pair) ?? { count: 0, sum: 0 };
        found.set(pair, { count: own.count + 1, sum: own.sum + loss - estimate });
      });
  }
  return found;
}

/** The chance that the tray's mean ends over its limit: where the splice stays as it is, and where it is made again and reads as good ones do. */
function meansAfter(tray: TrayState, state: SpliceState, mean: number): { stays: number; redone: number } {
  const own = state.readings.flatMap(({ loss }) => loss ?? []);
  const sum = own.reduce((total, loss) => total + loss, 0);
  const { settledLoss, settledRead, remaining } = tray.tally;
  const settled = state.verdict.mark !== 'redo' && state.verdict.mark !== 'open';
  const others = settled
    ? { sum: settledLoss - sum, fibers: settledRead - own.length }
    : { sum: settledLoss, fibers: settledRead };
  const open = settled ? remaining : remaining - state.splice.left.length;
  const { limit } = tray.rollUp.allowance;
  return {
    stays: meanOverChance(limit, { sum: others.sum + sum, fibers: others.fibers + own.length }, open, mean),
    redone: meanOverChance(limit, others, open + state.splice.left.length, mean),
  };
}

function rangeOf({ ledger }: AdviceAt, splice: Splice): SpliceAdvice['pair'] {
  const pair = pairOf(splice);
  const good = (angle: number | null) => angle === null || angle <= ledger.limits.cleaveAngleMax;
  const clean = ({ loss, cleaveLeft, cleaveRight }: Reading) =>
    loss !== null && good(cleaveLeft) && good(cleaveRight);
  const losses: number[] = [];
  for (const { splices } of ledger.trays)
    for (const other of splices) {
      const [first] = other.facts;
      if (other.splice.kind !== splice.kind || first?.kind !== 'attempt' || pairOf(other.splice) !== pair)
        continue;
      for (const reading of first.body.readings) if (clean(reading)) losses.push(reading.loss!);
    }
  losses.sort((a, b) => a - b);
  if (losses.length < fewest) return null;
  return { count: losses.length, low: quantileSorted(losses, 0.1)!, high: quantileSorted(losses, 0.9)! };
}
