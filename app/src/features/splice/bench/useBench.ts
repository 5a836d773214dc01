import {
  findSplice,
  formatLoss,
  nextSplice,
  spliceHistory,
  type Attempt,
  type ClosureLedger,
  type Fact,
  type Origin,
  type OwnerAnswer,
  type Reading,
  type SpliceState,
  type UsedGear,
} from '@cordel/core';
import type { BeforeArc } from '@cordel/core/gear';
import { useCallback, useEffect, useState } from 'react';
import { useRecordFact } from '../../../sync/react';
import { ledgerOf, type ClosureAtHand } from '../../../data/ledger';
import {
  newAttempt,
  newCorrection,
  newOwnerAnswer,
  resultOf,
  type Result,
  type Why,
} from '../record/newFact';
import type { BenchWays, LastEntry } from './types';
import { useEntered } from './useEntered';
import { verdictLine } from '../record/words';
import { useTurns } from './useTurns';

/** How long the last entry can be taken back with one tap. */
const takeBackMs = 10_000;

function readingOf(loss: number | null, seen: BeforeArc | undefined): Reading {
  return {
    loss,
    cleaveLeft: seen?.cleaveLeft ?? null,
    cleaveRight: seen?.cleaveRight ?? null,
    ...(seen && seen.offset !== null ? { offset: seen.offset } : {}),
    ...(seen && seen.gap !== null ? { gap: seen.gap } : {}),
  };
}

/** A reading that a linked machine sent. */
export interface MachineReading {
  readonly readings: readonly Reading[];
  readonly proofTestFailed: boolean;
  readonly simulated: boolean;
  readonly origin: Origin;
  /** What it was made with; null: nothing on record. */
  readonly gear: UsedGear | null;
}

/** What the bench can do at the splice one stands on. */
export function useBench(
  projectId: string,
  { definition, closure, ledger }: ClosureAtHand,
  here: SpliceState,
  { go, order, taken, onRecorded, onTakenBack }: BenchWays,
) {
  const recordFact = useRecordFact(projectId);
  const turns = useTurns<Entering>();
  const [last, setLast] = useState<LastEntry | null>(null);
  const hereId = here.splice.id;
  // Angles and notes belong to the try they were entered for; a ribbon is read fiber by fiber and recorded when its last one is read.
  const { losses: read, details, setDetails, ...entered } = useEntered(`${hereId} ${here.facts.length}`);
  const fibers = here.splice.left.length;

  useEffect(() => {
    if (!last?.takeBack) return;
    const timer = setTimeout(() => setLast({ ...last, takeBack: null }), takeBackMs);
    return () => clearTimeout(timer);
  }, [last]);

  const about = (state: SpliceState) => ({
    closureId: closure.id,
    splice: state.splice,
    facts: state.facts,
  });

  /**
   * Records a fact, and then goes on with the closure as it is after it.
   * @param back takes back what `then` did where the device could not keep the fact; given, the screen goes on while the disk writes, else after it
   */
  const keep = (fact: Fact, then: (after: ClosureLedger) => void, back?: () => void) => {
    const kept = recordFact(fact, (facts) => then(ledgerOf(definition, closure, facts)), back);
    turns.take(kept);
    return kept;
  };
  /** What stands after something else than a reading, which moves nowhere. */
  const keepHere = (fact: Fact) =>
    keep(
      fact,
      (after) => {
        const state = findSplice(after, hereId)!;
        setLast({ text: verdictLine(state, after.limits), mark: state.verdict.mark, takeBack: null });
      },
      () => setLast(last),
    );

  /**
   * Records one try with the losses of all its fibers. One that holds moves on to the next splice. null: it broke before it could be read, or `light` says
   * how a mechanical connector looks.
   */
  const recordTry = (
    losses: readonly (number | null)[],
    light: Attempt['body']['light'],
    back: (() => void) | undefined,
  ) => {
    const { before, proofTestFailed } = details;
    const fact = newAttempt(about(here), {
      readings: losses.map((loss, index) => readingOf(loss, before[index])),
      proofTestFailed: proofTestFailed || (light === undefined && losses.includes(null)),
      ...(light ? { light } : {}),
      ...said(),
    });
    void keepTry(fact, back);
  };
  /** What the person said of the try. */
  const said = () => {
    const { note, sleeveForgotten, sleeveConfirmed } = details;
    return {
      ...(sleeveForgotten ? { sleeveForgotten } : {}),
      ...(sleeveConfirmed && !sleeveForgotten ? { sleeveConfirmed } : {}),
      note: note.trim(),
    };
  };
  const keepTry = (fact: Attempt, back: (() => void) | undefined) =>
    keep(
      fact,
      (after) => {
        const state = findSplice(after, hereId)!;
        onRecorded();
        entered.clear();
        setLast({
          text: verdictLine(state, after.limits),
          mark: state.verdict.mark,
          spliceId: hereId,
          takeBack: { spliceId: hereId, attemptId: fact.id },
        });
        const next = state.verdict.mark === 'holds' ? nextSplice(after, hereId, order, taken) : null;
        if (next) go(next);
      },
      back,
    );
  const recordTapped = (losses: readonly (number | null)[], light?: Attempt['body']['light']) =>
    recordTry(losses, light, () => {
      entered.putBack();
      setLast(last);
      go(here);
      onTakenBack();
    });
  /** Losses from a sheet, which stays open until they are kept. */
  const recordAll = (losses: readonly (number | null)[]) => recordTry(losses, undefined, undefined);

  /** One reading: of a single splice, or of the next fiber of a ribbon. */
  const record = (loss: number | null) => {
    if (loss === null) {
      recordTapped(here.splice.left.map(() => null));
      return;
    }
    if (read.length + 1 === fibers) {
      recordTapped([...read, loss]);
      return;
    }
    entered.setLosses([...read, loss]);
    setLast({
      text: `Fiber ${read.length + 1} of ${fibers} reads ${formatLoss(loss)}.`,
      mark: 'open',
      takeBack: { spliceId: hereId, attemptId: null },
    });
  };

  /** What a linked machine read. @param settled told whether it was kept, once what follows from it is shown */
  const recordRead = (
    { readings, proofTestFailed, ...from }: MachineReading,
    settled: (kept: boolean) => void,
  ) => {
    const result = {
      readings: [...readings],
      ...said(),
      proofTestFailed: proofTestFailed || details.proofTestFailed,
    };
    void keepTry(newAttempt(about(here), result, from), undefined).then(settled);
  };

  /** A mechanical connector: whether light shows at its joint. */
  const recordLight = (light: NonNullable<Attempt['body']['light']>) =>
    recordTapped(
      here.splice.left.map(() => null),
      light,
    );

  /** The rest of a ribbon reads as its last fiber did. */
  const recordSame = () => {
    const same = read.at(-1);
    if (same !== undefined) recordTapped(here.splice.left.map((_, index) => read[index] ?? same));
  };

  const takeBack = () => {
    if (!last?.takeBack) return;
    if (last.takeBack.attemptId === null) {
      entered.setLosses(read.slice(0, -1));
      setLast({ text: `Fiber ${read.length} of ${fibers}: read it again.`, mark: 'open', takeBack: null });
      return;
    }
    const state = findSplice(ledger, last.takeBack.spliceId);
    if (!state) return;
    keep(
      newCorrection(about(state), last.takeBack.attemptId, null, { because: 'taken-back' }),
      () => {
        setLast({
          text: `Slot ${state.splice.slot}: the reading is taken back.`,
          mark: 'open',
          takeBack: null,
        });
        go(state);
      },
      () => {
        setLast(last);
        go(here);
      },
    );
  };

  const correct = (attemptId: string, result: Result | null, why: Why) =>
    keepHere(newCorrection(about(here), attemptId, result, why));

  /** The last try stands as it was read, but its sleeve was not on: it has to be done again. */
  const sleeveForgotten = () => {
    const standing = spliceHistory(here.facts).last;
    if (!standing) return;
    const { sleeveConfirmed: _, ...result } = resultOf(standing);
    correct(standing.fact.id, { ...result, sleeveForgotten: true }, { because: 'sleeve-forgotten' });
  };

  const answer = (given: OwnerAnswer['body']['answer']) => {
    const attempt = spliceHistory(here.facts).last;
    if (attempt) keepHere(newOwnerAnswer(about(here), attempt.fact.id, given));
  };

  const skip = useCallback(() => {
    const next = nextSplice(ledger, hereId, order, taken);
    if (next) go(next);
    else setLast({ text: 'Nothing else is left in this order of work.', mark: 'holds', takeBack: null });
  }, [ledger, hereId, go, order, taken]);

  const entering = {
    record,
    recordAll,
    recordSame,
    recordLight,
    recordRead,
    takeBack,
    correct,
    sleeveForgotten,
    answer,
  };
  return { last, details, setDetails, read, fibers, skip, ...turns.inTurn(entering) };
}

/** What is done at the bench, each one after the one before is on the disk. */
interface Entering {
  readonly record: (loss: number | null) => void;
  readonly recordAll: (losses: readonly (number | null)[]) => void;
  readonly recordSame: () => void;
  readonly recordLight: (light: NonNullable<Attempt['body']['light']>) => void;
  readonly recordRead: (reading: MachineReading, settled: (kept: boolean) => void) => void;
  readonly takeBack: () => void;
  readonly correct: (attemptId: string, result: Result | null, why: Why) => void;
  readonly sleeveForgotten: () => void;
  readonly answer: (given: OwnerAnswer['body']['answer']) => void;
}
