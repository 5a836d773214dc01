import { align, clockOffOf, minute, sameReading, widest, type RecordedTry } from './alignTries';
import { labelFinder } from './labelFinder';
import type { LogSplice } from './rows';

/**
 * Which splice of a closure each splice of a machine's log is of, and what follows for the record. Nothing is decided here that a person has not looked at: what is not
 * certain is told with it.
 */

/** A planned splice, as far as a log is concerned. */
export interface MatchTarget {
  readonly id: string;
  readonly tray: number;
  readonly slot: number;
  /** Numbers of the left fibers in their cable. */
  readonly leftFibers: readonly number[];
  readonly circuit: string | null;
  /** Tries that stand, oldest first. */
  readonly tries: readonly RecordedTry[];
  /** It is to be spliced still, or again. */
  readonly open: boolean;
  /** Losses above this are done again, dB. */
  readonly limit: number;
}

export type MatchBy = 'order' | 'time' | 'label';

export type MatchWhat =
  /** It came from this memory before. */
  | 'known'
  /** What was entered by hand says the same. */
  | 'agrees'
  /** Nothing is on record for it yet. */
  | 'fills'
  | 'differs'
  /** A row that is of no splice here. */
  | 'extra'
  /** A try on record that the log does not have. */
  | 'missing';

export interface LogMatch {
  readonly what: MatchWhat;
  /** Index of the log's splice; null: of a try that the log does not have. */
  readonly row: number | null;
  readonly splice: string | null;
  /** The try on record that it is compared with. */
  readonly tryId: string | null;
  /** Why a person should look twice; null: nothing speaks against it. */
  readonly doubt: 'order' | 'again' | null;
}

export interface LogMatching {
  /** As the splices were made; what is missing where it would stand by time. */
  readonly matches: readonly LogMatch[];
  /** How far the machine's clock is behind the record's, ms; null where that can't be told, and the two are taken as the same. */
  readonly clockOff: number | null;
}

/**
 * Matches a log to a closure.
 * @param log in the order of the file
 * @param targets in the order of work
 * @param from where the work on this log began, by order; null: at the first that is open
 */
export function matchLog(
  log: readonly LogSplice[],
  targets: readonly MatchTarget[],
  how: { readonly by: MatchBy; readonly from?: string | null },
): LogMatching {
  const made = asMade(log);
  const { matches, clockOff } = matchMade(
    made.map((row) => log[row]!),
    targets,
    how,
  );
  return {
    matches: matches.map((match) => (match.row === null ? match : { ...match, row: made[match.row]! })),
    clockOff,
  };
}

/** Rows in the order in which their splices were made: many machines write the newest first. By time where all have one; else turned round where their numbers fall. */
function asMade(log: readonly LogSplice[]): number[] {
  const rows = log.map((_, row) => row);
  if (log.every(({ at }) => at !== null)) return rows.sort((a, b) => log[a]!.at! - log[b]!.at! || a - b);
  const numbers = log.map(numberIn);
  const falls = numbers.every((number, row) => number !== null && (row === 0 || number < numbers[row - 1]!));
  return falls && log.length > 1 ? rows.reverse() : rows;
}

/** The same of splices in the order in which they were made. */
function matchMade(
  log: readonly LogSplice[],
  targets: readonly MatchTarget[],
  { by, from = null }: { readonly by: MatchBy; readonly from?: string | null },
): LogMatching {
  const found: ((Pick<LogMatch, 'splice' | 'tryId' | 'what'> & { doubt: LogMatch['doubt'] }) | null)[] =
    log.map(() => null);
  const taken = new Set<string>();
  const tryOf = new Map<string, { target: MatchTarget; one: RecordedTry }>();
  for (const target of targets) for (const one of target.tries) tryOf.set(one.id, { target, one });
  const pair = (row: number, one: RecordedTry, what?: MatchWhat) => {
    taken.add(one.id);
    found[row] = {
      splice: tryOf.get(one.id)!.target.id,
      tryId: one.id,
      what: what ?? (sameReading(log[row]!, one) ? 'agrees' : 'differs'),
      doubt: null,
    };
  };

  // What came from this memory before is told by its number and time.
  const known = knownOf([...tryOf.values()].map(({ one }) => one));
  log.forEach((row, index) => {
    const before = known(row, taken);
    if (before) pair(index, before, 'known');
  });

  const rows = log.map((_, index) => index).filter((index) => found[index] === null);
  const tries = [...tryOf.values()]
    .map(({ one }) => one)
    .filter((one) => !taken.has(one.id) && !one.elsewhere && one.origin === null)
    .sort((a, b) => a.at - b.at);
  const clockOff = clockOffOf(
    rows.map((row) => log[row]!),
    tries,
  );
  if (by === 'label') matchLabels(log, rows, targets, found, taken, pair);
  else {
    for (const [row, one] of align(
      rows.map((row) => log[row]!),
      tries,
      by === 'time' ? (clockOff ?? 0) : null,
    ))
      pair(rows[row]!, tries[one]!);
    fillOpen(log, targets, found, from);
  }

  const matches: LogMatch[] = log.map((_, row) => ({
    row,
    ...(found[row] ?? { what: 'extra', splice: null, tryId: null, doubt: null }),
  }));
  return { matches: withMissing(matches, log, tries, tryOf, taken, by, clockOff), clockOff };
}

/** The number of a row as the record keeps it; null where it is none. */
export function numberIn(row: Pick<LogSplice, 'number'>): number | null {
  return /^\d{1,15}$/.test(row.number) ? Number(row.number) : null;
}

/** Finds what came from this memory before: by number and time, where both say one. */
function knownOf(
  tries: readonly RecordedTry[],
): (row: LogSplice, taken: ReadonlySet<string>) => RecordedTry | null {
  const byNumber = new Map<number, RecordedTry[]>();
  const byMinute = new Map<number, RecordedTry[]>();
  const add = <K>(map: Map<K, RecordedTry[]>, key: K, one: RecordedTry) => {
    const list = map.get(key);
    if (list) list.push(one);
    else map.set(key, [one]);
  };
  for (const one of tries) {
    if (!one.origin) continue;
    if (one.origin.splice !== null) add(byNumber, one.origin.splice, one);
    if (one.origin.at !== null) add(byMinute, Math.floor(one.origin.at / minute), one);
  }
  const near = (a: number | null, b: number | null) => a === null || b === null || Math.abs(a - b) < minute;
  return (row, taken) => {
    const number = numberIn(row);
    const free = (list: readonly RecordedTry[] | undefined) =>
      (list ?? []).filter(({ id }) => !taken.has(id));
    if (number !== null) {
      // Numbers begin anew where a memory was cleared: the time tells them apart.
      const same = free(byNumber.get(number)).find(
        (one) => near(one.origin!.at, row.at) && one.losses.length === row.readings.length,
      );
      if (same) return same;
    }
    if (row.at === null) return null;
    const at = Math.floor(row.at / minute);
    return (
      [at, at - 1, at + 1]
        .flatMap((one) => free(byMinute.get(one)))
        .find(
          (one) =>
            (number === null || one.origin!.splice === null) &&
            Math.abs(one.origin!.at! - row.at!) < minute &&
            sameReading(row, one),
        ) ?? null
    );
  };
}

type Found = ({
  splice: string | null;
  tryId: string | null;
  what: MatchWhat;
  doubt: LogMatch['doubt'];
} | null)[];

/** Whether a splice with this reading is done again. */
function isBad({ readings, proofTestFailed }: LogSplice, { limit }: MatchTarget): boolean {
  return proofTestFailed || readings.some(({ loss }) => loss === null || loss > limit + 1e-9);
}

/**
 * Rows that nothing on record is of go to open splices, in the order of work: between those that are known on both sides; after a reading over the limit the next row is
 * another try of the same splice.
 */
function fillOpen(
  log: readonly LogSplice[],
  targets: readonly MatchTarget[],
  found: Found,
  from: string | null,
): void {
  const position = new Map(targets.map(({ id }, index) => [id, index]));
  const filled = new Set<string>();
  // The next known one after each row, by its place in the order of work.
  const nextKnown = new Array<number>(log.length);
  for (let row = log.length - 1, next = Infinity; row >= 0; row -= 1) {
    nextKnown[row] = next;
    const splice = found[row]?.splice;
    if (splice) next = position.get(splice)!;
  }
  const start = from === null ? 0 : (position.get(from) ?? 0);
  let pointer = start - 1;
  let last: MatchTarget | null = null;
  let lastRow = -1;
  log.forEach((row, index) => {
    const there = found[index];
    if (there) {
      if (there.splice) {
        pointer = position.get(there.splice)!;
        last = targets[pointer]!;
        lastRow = index;
      }
      return;
    }
    const count = row.readings.length;
    // Another try of what was just read and did not hold.
    if (
      last &&
      lastRow === index - 1 &&
      last.leftFibers.length === count &&
      isBad(log[lastRow]!, last) &&
      (filled.has(last.id) || (last.open && last.tries.length > 0))
    ) {
      found[index] = { splice: last.id, tryId: null, what: 'fills', doubt: 'again' };
      lastRow = index;
      return;
    }
    const until = nextKnown[index]! > pointer ? nextKnown[index]! : Infinity;
    let at = pointer + 1;
    while (at < targets.length) {
      const target = targets[at]!;
      if (target.open && target.leftFibers.length === count && !filled.has(target.id)) break;
      at += 1;
    }
    if (at >= targets.length || at > until) return;
    const target = targets[at]!;
    filled.add(target.id);
    // Open ones were passed over, or a try is there already that the log does not have.
    const passed = targets.slice(pointer + 1, at).some((one) => one.open && one.leftFibers.length === count);
    found[index] = {
      splice: target.id,
      tryId: null,
      what: 'fills',
      doubt: passed || target.tries.length > 0 ? 'order' : null,
    };
    pointer = at;
    last = target;
    lastRow = index;
  });
}

/** What a label at the machine says: tray and slot, or a fiber of the left side, or the circuit. */
function matchLabels(
  log: readonly LogSplice[],
  rows: readonly number[],
  targets: readonly MatchTarget[],
  found: Found,
  taken: ReadonlySet<string>,
  pair: (row: number, one: RecordedTry) => void,
): void {
  const find = labelFinder(targets);
  const own = new Map<MatchTarget, number[]>();
  for (const row of rows) {
    const target = find(log[row]!.label, log[row]!.readings.length);
    if (!target) continue;
    const list = own.get(target);
    if (list) list.push(row);
    else own.set(target, [row]);
  }
  for (const [target, list] of own) {
    const tries = target.tries.filter((one) => !taken.has(one.id) && !one.elsewhere && one.origin === null);
    const pairs = align(
      list.map((row) => log[row]!),
      tries,
      null,
    );
    for (const [row, one] of pairs) pair(list[row]!, tries[one]!);
    for (const row of list)
      found[row] ??= {
        splice: target.id,
        tryId: null,
        what: 'fills',
        doubt: list.length > 1 && target.tries.length > 0 ? 'again' : null,
      };
  }
}

/** Puts tries that the log does not have where they would stand. By time only those that it should have. */
function withMissing(
  matches: readonly LogMatch[],
  log: readonly LogSplice[],
  tries: readonly RecordedTry[],
  tryOf: ReadonlyMap<string, { readonly target: MatchTarget }>,
  taken: ReadonlySet<string>,
  by: MatchBy,
  clockOff: number | null,
): LogMatch[] {
  const times = log.flatMap(({ at }) => (at === null ? [] : [at + (clockOff ?? 0)]));
  const [first, last] = [Math.min(...times), Math.max(...times)];
  const expected = (one: RecordedTry) =>
    !taken.has(one.id) &&
    // Whether the log reaches to it can be told by its time alone.
    (times.length === 0 ? by === 'order' : one.at >= first - widest / 6 && one.at <= last + widest / 6);
  const missing = tries.filter(expected);
  const placed: LogMatch[] = [];
  let next = 0;
  const put = (one: RecordedTry) =>
    placed.push({
      what: 'missing',
      row: null,
      splice: tryOf.get(one.id)!.target.id,
      tryId: one.id,
      doubt: null,
    });
  for (const match of matches) {
    const at = log[match.row!]!.at;
    while (at !== null && next < missing.length && missing[next]!.at < at + (clockOff ?? 0))
      put(missing[next++]!);
    placed.push(match);
  }
  while (next < missing.length) put(missing[next++]!);
  return placed;
}
