import { findSplice, spliceHistory, type ClosureLedger, type Fact, type UsedGear } from '@cordel/core';
import type { LogEntries } from '@cordel/core/machine';
import { v7 } from 'uuid';
import { newCorrection, newLogAttempt, resultOf } from '../record/newFact';

/** What was stored of a log, and what takes all of it back at once. */
export interface StoredLog {
  readonly facts: readonly Fact[];
  /** Facts that take it back; made when that is asked for. */
  readonly undo: (ledger: ClosureLedger) => Fact[];
}

/** The facts of what a person decided on a log. */
export function logFacts(
  entries: LogEntries,
  closureId: string,
  ledger: ClosureLedger,
  from: { readonly memory: string; readonly simulated: boolean; readonly gear: UsedGear | null },
): StoredLog {
  const batch = v7();
  const about = (spliceId: string, now = ledger) => {
    const { splice, facts } = findSplice(now, spliceId)!;
    return { closureId, splice, facts };
  };
  const made = entries.attempts.map((entry) => {
    const { splice, readings, proofTestFailed, origin, program, at } = entry;
    const gear = from.gear && program !== '' ? { ...from.gear, program: program.slice(0, 80) } : from.gear;
    const came = { simulated: from.simulated, gear, origin: { memory: from.memory, ...origin, batch } };
    const result = { readings: [...readings], proofTestFailed, note: '' };
    return { splice, fact: newLogAttempt(about(splice), result, came, at) };
  });
  const corrected = entries.corrections.map(({ splice, tryId, readings, proofTestFailed }) => {
    const standing = spliceHistory(about(splice).facts).attempts.find(({ fact }) => fact.id === tryId)!;
    const before = resultOf(standing);
    const result = { ...before, readings: [...readings], proofTestFailed };
    return {
      splice,
      tryId,
      before,
      fact: newCorrection(about(splice), tryId, result, { reason: 'As the machine’s log says.' }),
    };
  });
  return {
    facts: [...made, ...corrected].map(({ fact }) => fact),
    undo: (now) => [
      ...made.map(({ splice, fact }) =>
        newCorrection(about(splice, now), fact.id, null, { because: 'taken-back' }),
      ),
      ...corrected.map(({ splice, tryId, before }) =>
        newCorrection(about(splice, now), tryId, before, { reason: 'The log was taken back.' }),
      ),
    ],
  };
}
