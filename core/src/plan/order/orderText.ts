import { longestName } from '../../schemas';
import {
  connectorNames,
  entryKey,
  rangesOf,
  type Closure,
  type Connector,
  type Entry,
  type OrderLine,
  type OrderRange,
} from '../closure';
import type { Expected } from '../words';
import { listedRows } from './orderLists';

/**
 * The order as people say it, one line each:
 *
 *     A 1-72 > B 1-72            fibers, one to one
 *     A T3 > B T1                a whole tube
 *     A R1-R6 > B R1-R6          whole ribbons
 *     A T1 > B R1 ribbonized     loose fibers made into ribbons first
 *     A R7 > B R7 reversed       1 meets 12, ribbon by ribbon
 *     A 1-12 > B 1-12 reversed   1 meets 12, fiber by fiber
 *     A+ 73-84 > C 1-12 : Ring   the end toward higher distance of a cable that goes through; a circuit's name
 *     C 1-2 > fused connector    ends in a connector that is spliced on; “mechanical connector”, “own connector” of a pigtail
 *
 * A cable is called by its key in the closure. "tube 3", "ribbons 1-6", "->" and any dash are read as well, and so are lists of single ranges: "A 1, 3, 5-8 > B 1-6" becomes a
 * line for each run of both sides.
 */
export interface OrderTextProblem extends RowProblem {
  /** 1 … in the text. */
  readonly row: number;
}

/** Where in a row a reader stopped, from 1, what it expected there, and the word that it found; null at the end of the row. */
export interface RowProblem {
  readonly column: number;
  readonly expected: Expected;
  readonly found: string | null;
}

export type WrittenLine = Omit<OrderLine, 'id'>;

export interface ReadOrder {
  readonly lines: readonly WrittenLine[];
  /** The row of the text that each line stands in. */
  readonly rows: readonly number[];
  readonly problems: readonly OrderTextProblem[];
}

/** Reads an order. Empty rows are passed over; what cannot be read is told, and the other rows are read all the same. */
export function readOrder(text: string, entries: readonly Entry[]): ReadOrder {
  const lines: WrittenLine[] = [];
  const rows: number[] = [];
  const problems: OrderTextProblem[] = [];
  text.split('\n').forEach((row, index) => {
    if (row.trim() === '') return;
    const several = listedRows(row);
    if ('expected' in several) {
      problems.push({ row: index + 1, ...several });
      return;
    }
    const all = several.map((one) => readOrderRow(one, entries));
    const read = all.find((one) => one.line === undefined) ?? all[0]!;
    if (read.line) {
      for (const { line } of all) {
        lines.push(line!);
        rows.push(index + 1);
      }
    } else {
      const { column, expected, found } = read;
      // Of a list the place is where the word stands in the row as it was typed.
      const at = all.length > 1 ? Math.max(0, row.indexOf(found ?? '')) + 1 : column;
      problems.push({ row: index + 1, column: at, expected, found });
    }
  });
  return { lines, rows, problems };
}

/** What a reader of a row was waiting for when it stopped. */
type Waiting = 'left-key' | 'left-range' | 'arrow' | 'right-key' | 'right-range' | 'words';

export type ReadRow =
  | { readonly line: WrittenLine; readonly waiting: 'words' }
  | (RowProblem & {
      readonly line?: undefined;
      readonly waiting: Waiting;
      readonly left?: OrderRange;
      readonly rightEntry?: Entry;
      readonly leftEntry?: Entry;
    });

const unitOfLetter = { T: 'tube', R: 'ribbon' } as const;

/** "T3", "tube 3", "ribbons 1-6" */
const unitWord = /(?:tubes?|ribbons?|[tr])(?=\s*\d)/iy;
/** Of a range, as keyboards and texts have it; not the one of an arrow. */
const dash = /(?:-|–|—|−)(?!>)|\.\./y;

/** The right side of a line whose fibers end in connectors. */
const connectorPatterns: Readonly<Record<Connector, RegExp>> = {
  mechanical: /mechanical(?:\s+connectors?)?(?![a-z])/iy,
  'fusion-connector': /fus(?:ed|ion)(?:\s+connectors?)?(?![a-z])/iy,
  // Both words: OWN may be the key of a cable.
  own: /own\s+connectors?(?![a-z])/iy,
};
const anyConnector = /connectors?(?![a-z])/iy;

/** Reads one row; when it cannot, says where and what was expected. */
export function readOrderRow(row: string, entries: readonly Entry[]): ReadRow {
  const scan = new Scanner(row);
  const keys = entries.map((entry, index) => entryKey(entry, index));

  const key = (
    code: 'cable' | 'cable-or-connector' = 'cable',
  ): { entry: Entry; side: OrderRange['side'] } | Expected => {
    const word = scan.take(/[A-Za-z]{1,3}(?![A-Za-z])/y)?.toUpperCase();
    const entry = entries[keys.indexOf(word ?? '')];
    if (!entry) return { code, params: { keys } };
    const sign = scan.takeAtOnce(/[+\-−](?=\s|$)/y);
    return { entry, side: sign === null ? 'end' : sign === '+' ? 'high' : 'low' };
  };
  const range = (cableId: string, side: OrderRange['side']): OrderRange | Expected => {
    const unit = () => scan.take(unitWord)?.[0]!.toUpperCase() as 'T' | 'R' | undefined;
    const letter = unit();
    const from = scan.take(/\d{1,5}/y);
    if (from === null) return { code: 'range', params: {} };
    let to: string | null = from;
    if (scan.take(dash) !== null) {
      const again = unit();
      if (again && again !== letter) return { code: 'range-as-begun', params: { letter: letter ?? null } };
      to = scan.take(/\d{1,5}/y);
      if (to === null) return { code: 'range-end', params: {} };
    }
    const numbers = { from: Number(from), to: Number(to) };
    if (numbers.from < 1 || numbers.to < 1) return { code: 'number-from-1', params: {} };
    return { cableId, side, ...(letter ? { of: unitOfLetter[letter] } : {}), ...numbers };
  };
  const stop = (waiting: Waiting, expected: Expected, more: object = {}) => ({
    waiting,
    column: scan.column,
    expected,
    found: scan.found,
    ...more,
  });

  const leftKey = key();
  if ('code' in leftKey) return stop('left-key', leftKey);
  const leftEntry = leftKey.entry;
  const left = range(leftEntry.cableId, leftKey.side);
  if ('code' in left) return stop('left-range', left, { leftEntry });
  if (scan.take(/[-=–—−]?>|→/y) === null)
    return stop('arrow', { code: 'arrow', params: {} }, { left, leftEntry });
  const connector = scanConnector(scan, leftEntry);
  const rightKey = connector ? null : key('cable-or-connector');
  if (rightKey && 'code' in rightKey) return stop('right-key', rightKey, { left, leftEntry });
  const rightEntry = rightKey?.entry;
  const right = rightKey && range(rightKey.entry.cableId, rightKey.side);
  if (right && 'code' in right) return stop('right-range', right, { left, leftEntry, rightEntry });

  let mode: OrderLine['mode'] | null = null;
  let polarity: OrderLine['polarity'] | null = null;
  let circuit: string | null = null;
  for (; right;) {
    const word = scan.take(/single|ribbonized|ribbon|straight|reversed/iy)?.toLowerCase();
    if (word === 'single' || word === 'ribbon' || word === 'ribbonized') mode = word;
    else if (word === 'straight' || word === 'reversed') polarity = word;
    else break;
  }
  if (scan.take(/:/y) !== null) {
    circuit = scan.rest().trim();
    if (circuit === '') return stop('words', { code: 'circuit', params: {} });
    if (circuit.length > longestName)
      return stop('words', { code: 'circuit-shorter', params: { longest: longestName } });
  }
  if (!scan.atEnd) return stop('words', { code: right ? 'mode-or-circuit' : 'circuit-or-end', params: {} });
  if (connector) return { waiting: 'words', line: { left, right: null, connector, mode: 'single', circuit } };
  const line = { left, right };
  return {
    waiting: 'words',
    line: {
      ...line,
      mode: mode ?? usualMode(line),
      ...(polarity === 'reversed' ? { polarity } : {}),
      circuit,
    },
  };
}

/** The connector that a cell of a table names; null where it names none. */
export function readConnector(written: string, entry: Pick<Entry, 'ending'>): Connector | null {
  const scan = new Scanner(written);
  const found = scanConnector(scan, entry);
  return found && scan.atEnd ? found : null;
}

/** The connector that a row names; where it says only "connector", the one that the cable's entry has, or a fused one. undefined where it names none. */
function scanConnector(
  scan: Scanner,
  { ending = 'fusion-connector' }: Pick<Entry, 'ending'>,
): Connector | undefined {
  const named = (Object.keys(connectorPatterns) as Connector[]).find(
    (one) => scan.take(connectorPatterns[one]) !== null,
  );
  return named ?? (scan.take(anyConnector) === null ? undefined : ending);
}

/** Ribbons are spliced as ribbons and everything else singly, unless the line says otherwise. */
function usualMode({ left, right }: Pick<OrderLine, 'left' | 'right'>): OrderLine['mode'] {
  return right !== null && (left.of === 'ribbon' || right.of === 'ribbon') ? 'ribbon' : 'single';
}

class Scanner {
  private at = 0;

  constructor(private readonly text: string) {}

  take(pattern: RegExp): string | null {
    while (/\s/.test(this.text[this.at] ?? '')) this.at += 1;
    return this.takeAtOnce(pattern);
  }

  /** The same, without passing over blanks. */
  takeAtOnce(pattern: RegExp): string | null {
    pattern.lastIndex = this.at;
    const found = pattern.exec(this.text)?.[0] ?? null;
    if (found !== null) this.at += found.length;
    return found;
  }

  rest(): string {
    const rest = this.text.slice(this.at);
    this.at = this.text.length;
    return rest;
  }

  get atEnd(): boolean {
    return this.text.slice(this.at).trim() === '';
  }

  get column(): number {
    return this.at + 1;
  }

  get found(): string | null {
    return /\S+/.exec(this.text.slice(this.at))?.[0] ?? null;
  }
}

/** One line of the order as text; `readOrderRow` reads the same line out of it. Throws when the closure lacks one of its cables. */
export function writeOrderLine(line: WrittenLine, entries: readonly Entry[]): string {
  const side = ({ cableId, side, of, from, to }: OrderRange) => {
    const index = entries.findIndex((entry) => entry.cableId === cableId);
    if (index < 0) throw new Error(`The closure has no cable ${cableId}`);
    const letter = of === 'tube' ? 'T' : of === 'ribbon' ? 'R' : '';
    const sign = side === 'end' ? '' : side === 'low' ? '-' : '+';
    const numbers = from === to ? `${letter}${from}` : `${letter}${from}-${letter}${to}`;
    return `${entryKey(entries[index]!, index)}${sign} ${numbers}`;
  };
  return [
    `${side(line.left)} > ${line.right ? side(line.right) : connectorNames[line.connector!]}`,
    line.mode === usualMode(line) ? null : line.mode,
    line.polarity === 'reversed' ? 'reversed' : null,
    line.circuit === null ? null : `: ${line.circuit}`,
  ]
    .filter((part) => part !== null)
    .join(' ');
}

/** The whole order as text. Lines of a cable that left the closure are left out. */
export function writeOrder({ order, entries }: Pick<Closure, 'order' | 'entries'>): string {
  const known = new Set(entries.map((entry) => entry.cableId));
  return order
    .filter((line) => rangesOf(line).every(({ cableId }) => known.has(cableId)))
    .map((line) => writeOrderLine(line, entries))
    .join('\n');
}
