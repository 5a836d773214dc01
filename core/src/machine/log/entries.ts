import type { Origin } from '../../facts';
import type { Reading } from '../../splice/record/reading';
import type { LogRow } from '../link';
import type { LogMatching } from './matchLog';
import { numberIn } from './matchLog';
import type { LogSplice } from './rows';

/** Whose memory a log is of where nobody said which machine wrote it: the same on every device, so that the same log is known again. */
export const unknownMemory = '7d2f6c1e-53c4-4b0e-9a56-0c2f8f4f1a00';

/** What a person decided on the rows of a comparison, by their place in it. */
export interface LogChoice {
  /** Not to be recorded. */
  readonly left: ReadonlySet<number>;
  /** What differs is corrected to what the log says. */
  readonly taken: ReadonlySet<number>;
}

export interface LogEntry {
  readonly splice: string;
  readonly readings: readonly Reading[];
  readonly proofTestFailed: boolean;
}

/** What is recorded of a comparison. */
export interface LogEntries {
  readonly attempts: readonly (LogEntry & {
    /** ms since 1970 by the record's clock; null: the log has no time. */
    readonly at: number | null;
    readonly origin: Omit<Origin, 'memory' | 'batch'>;
    readonly program: string;
  })[];
  readonly corrections: readonly (LogEntry & { readonly tryId: string })[];
}

/** What a comparison comes to, once a person has looked at it. @param log whose rows the matches name */
export function entriesOf(
  { matches, clockOff }: LogMatching,
  log: readonly LogSplice[],
  { left, taken }: LogChoice,
): LogEntries {
  const attempts: LogEntries['attempts'][number][] = [];
  const corrections: LogEntries['corrections'][number][] = [];
  matches.forEach(({ what, row, splice, tryId }, index) => {
    if (row === null || splice === null || left.has(index)) return;
    const own = log[row]!;
    const { proofTestFailed } = own;
    const entry = { splice, readings: readingsIn(own), proofTestFailed };
    if (what === 'fills')
      attempts.push({
        ...entry,
        at: own.at === null ? null : own.at + (clockOff ?? 0),
        origin: { splice: numberIn(own), at: own.at === null ? null : new Date(own.at).toISOString() },
        program: own.program,
      });
    else if (what === 'differs' && taken.has(index) && tryId !== null) corrections.push({ ...entry, tryId });
  });
  return { attempts, corrections };
}

function readingsIn({ readings }: LogSplice): Reading[] {
  return readings.map(({ loss, cleaveLeft, cleaveRight, offset, gap }) => ({
    loss,
    // The record takes no cleave beyond 45°, no offset beyond 100 μm and no gap beyond 500.
    cleaveLeft: within(cleaveLeft, 45),
    cleaveRight: within(cleaveRight, 45),
    ...(within(offset, 100) === null ? {} : { offset }),
    ...(within(gap, 500) === null ? {} : { gap }),
  }));
}
const within = (value: number | null, most: number) => (value !== null && value <= most ? value : null);

/** A machine's memory that came over its link, as a log. */
export function logOfMemory(rows: readonly LogRow[]): LogSplice[] {
  return rows.map(({ at, splice, fibers, proofTestFailed, program }, index) => ({
    lines: [index + 1],
    number: String(splice),
    at: Date.parse(at),
    doubt: null,
    label: '',
    program: program ?? '',
    proofTestFailed,
    readings: fibers.map(({ loss, cleaveLeft, cleaveRight, offset, gap }) => ({
      loss,
      cleaveLeft,
      cleaveRight,
      offset,
      gap,
    })),
  }));
}
