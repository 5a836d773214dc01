import type { Cable } from '../../line/cable';
import { longestName } from '../../schemas';
import { entryKey, type Entry, type OrderRange } from '../closure';
import { resolveRange } from './order';
import { readOrderRow, writeOrderLine, type WrittenLine } from './orderText';
import type { CsvProblemTold } from '../words';

/** What the columns of a table of assignments may mean. */
export const orderCsvFields = [
  { id: 'leftCable', name: 'From cable', needed: true },
  { id: 'leftFibers', name: 'From fibers', needed: true },
  { id: 'rightCable', name: 'To cable', needed: true },
  { id: 'rightFibers', name: 'To fibers', needed: true },
  { id: 'mode', name: 'Mode', needed: false },
  { id: 'polarity', name: 'Polarity', needed: false },
  { id: 'circuit', name: 'Circuit', needed: false },
] as const;
export type OrderCsvField = (typeof orderCsvFields)[number]['id'];

/** Column of each field, from 0; null where the table does not have it. */
export type OrderCsvMapping = Readonly<Record<OrderCsvField, number | null>>;

/** The columns as their names suggest them; a person looks it over before anything is taken in. */
export function guessOrderCsv(header: readonly string[]): OrderCsvMapping {
  const names = header.map((name) => name.trim().toLowerCase());
  const find = (...patterns: RegExp[]) => {
    for (const pattern of patterns) {
      const at = names.findIndex((name) => pattern.test(name));
      if (at >= 0) return at;
    }
    return null;
  };
  const left = /from|left|^a\b|incoming|source/;
  const right = /\bto\b|right|^b\b|outgoing|target/;
  const both = (side: RegExp, what: RegExp) => {
    const at = names.findIndex((name) => side.test(name) && what.test(name));
    return at >= 0 ? at : null;
  };
  const fibers = /fib|strand|number|range/;
  return {
    leftCable: both(left, /cable/) ?? find(/^from$/, /^left$/),
    leftFibers: both(left, fibers),
    rightCable: both(right, /cable/) ?? find(/^to$/, /^right$/),
    rightFibers: both(right, fibers),
    mode: find(/mode|kind|method/),
    polarity: find(/polarity/),
    circuit: find(/circuit|service/),
  };
}

export interface CsvProblem {
  /** 1 … in the file, the header counted. */
  readonly row: number;
  /** The column's name. */
  readonly column: string;
  readonly told: CsvProblemTold;
}

/**
 * Order lines from a table whose first row names its columns. A cable is called by its key or its label; fibers like 5, 1-12, T3 or
 * R1-R6. Rows that go on where the row before ended become one line. When anything is wrong all of it is told and there are no lines.
 */
export function readOrderCsv(
  table: readonly (readonly string[])[],
  mapping: OrderCsvMapping,
  entries: readonly Entry[],
  cables: ReadonlyMap<string, Cable>,
): { lines: WrittenLine[]; problems: CsvProblem[] } {
  const [header = [], ...rows] = table;
  const problems: CsvProblem[] = [];
  for (const { id, name, needed } of orderCsvFields)
    if (needed && mapping[id] === null)
      problems.push({ row: 1, column: name, told: { code: 'column', params: { name } } });
  if (problems.length > 0) return { lines: [], problems };

  const lines: WrittenLine[] = [];
  rows.forEach((cells, index) => {
    if (cells.every((cell) => cell.trim() === '')) return;
    const cell = (field: OrderCsvField) =>
      mapping[field] === null ? '' : (cells[mapping[field]] ?? '').trim();
    const say = (field: OrderCsvField, told: CsvProblemTold) =>
      void problems.push({ row: index + 2, column: header[mapping[field]!] ?? field, told });
    const before = problems.length;

    const side = (cableField: OrderCsvField, fiberField: OrderCsvField): OrderRange | null => {
      const called = cell(cableField).toLowerCase();
      const at = entries.findIndex(
        (entry, place) =>
          entryKey(entry, place).toLowerCase() === called.replace(/[+-]$/, '') ||
          cables.get(entry.cableId)?.label.toLowerCase() === called,
      );
      if (at < 0) {
        say(
          cableField,
          called === ''
            ? { code: 'no-cable-named', params: {} }
            : { code: 'cable', params: { called: cell(cableField), keys: entries.map(entryKey) } },
        );
        return null;
      }
      const key = entryKey(entries[at]!, at);
      const sign = /[+-]$/.exec(called)?.[0] ?? '';
      // Both sides of a row alike, so that the one reader there is says what is wrong with it.
      const row = readOrderRow(`${key}${sign} ${cell(fiberField)} > ${key}${sign} 1`, entries);
      if (row.line === undefined) {
        say(fiberField, { code: 'not-a-range', params: { written: cell(fiberField) } });
        return null;
      }
      const range = resolveRange(row.line.left, cables.get(entries[at]!.cableId));
      if (range.trouble) {
        say(fiberField, { code: 'range', params: { finding: range.trouble } });
        return null;
      }
      return row.line.left;
    };
    const left = side('leftCable', 'leftFibers');
    const right = side('rightCable', 'rightFibers');

    const mode = cell('mode').toLowerCase();
    if (!['', 'single', 'ribbon', 'ribbonized'].includes(mode))
      say('mode', { code: 'mode', params: { written: cell('mode') } });
    const polarity = cell('polarity').toLowerCase();
    if (!['', 'straight', 'reversed'].includes(polarity))
      say('polarity', { code: 'polarity', params: { written: cell('polarity') } });
    const circuit = cell('circuit');
    if (circuit.length > longestName)
      say('circuit', { code: 'circuit-long', params: { longest: longestName } });
    if (problems.length > before || !left || !right) return;

    const words = [mode, polarity, circuit && `: ${circuit}`].filter(Boolean).join(' ');
    const bare = writeOrderLine({ left, right, mode: 'single', circuit: null }, entries).replace(
      / single$/,
      '',
    );
    const { line } = readOrderRow(`${bare} ${words}`, entries);
    if (line) addOrJoin(lines, line);
  });
  return problems.length > 0 ? { lines: [], problems } : { lines, problems };
}

/** Puts a line at the end of a list, or makes the last one longer where it only goes on. */
function addOrJoin(lines: WrittenLine[], line: WrittenLine): void {
  const last = lines.at(-1);
  const goesOn = (a: OrderRange, b: OrderRange) =>
    a.cableId === b.cableId &&
    a.side === b.side &&
    (a.of ?? 'fiber') === (b.of ?? 'fiber') &&
    b.from === a.to + 1;
  if (
    last &&
    last.mode === line.mode &&
    last.polarity === line.polarity &&
    last.circuit === line.circuit &&
    goesOn(last.left, line.left) &&
    goesOn(last.right, line.right)
  )
    lines[lines.length - 1] = {
      ...last,
      left: { ...last.left, to: line.left.to },
      right: { ...last.right, to: line.right.to },
    };
  else lines.push(line);
}
