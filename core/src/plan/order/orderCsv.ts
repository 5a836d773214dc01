import type { Cable } from '../../line/cable';
import { longestName } from '../../schemas';
import { entryKey, type Entry, type OrderRange } from '../closure';
import { resolveRange, unitsNumbered } from './order';
import { readConnector, readOrderRow, writeOrderLine, type WrittenLine } from './orderText';
import type { CsvProblemTold } from '../words';

/** What the columns of a table of assignments may mean. */
export const orderCsvFields = [
  { id: 'leftCable', name: 'From cable', needed: true },
  { id: 'leftUnit', name: 'From tube or ribbon', needed: false },
  { id: 'leftFibers', name: 'From fibers', needed: true },
  { id: 'rightCable', name: 'To cable', needed: true },
  { id: 'rightUnit', name: 'To tube or ribbon', needed: false },
  { id: 'rightFibers', name: 'To fibers', needed: true },
  { id: 'mode', name: 'Mode', needed: false },
  { id: 'polarity', name: 'Polarity', needed: false },
  { id: 'circuit', name: 'Circuit', needed: false },
] as const;
export type OrderCsvField = (typeof orderCsvFields)[number]['id'];

/** Column of each field, from 0; null where the table does not have it. */
export type OrderCsvMapping = Readonly<Record<OrderCsvField, number | null>>;

/** The columns as their names suggest them, each taken once; a person looks it over before anything is taken in. */
export function guessOrderCsv(header: readonly string[]): OrderCsvMapping {
  const names = header.map((name) => name.trim().toLowerCase());
  const sides = sidesOf(names);
  const taken = new Set<number>();
  const find = (wanted: (name: string, at: number) => boolean) => {
    const at = names.findIndex((name, index) => !taken.has(index) && wanted(name, index));
    if (at < 0) return null;
    taken.add(at);
    return at;
  };
  const on = (side: Side, what: RegExp) => find((name, at) => sides[at] === side && what.test(name));
  const plain = { left: /^(from|left|a)$/, right: /^(to|right|b)$/ };
  // What a column is about is said by its noun: "tube number" is of the tube and "cable number" of the cable.
  const unitOf = (side: Side) => on(side, unitNames);
  const cableOf = (side: Side) => on(side, /cable/) ?? on(side, plain[side]);
  const fibersOf = (side: Side) => on(side, /fib|strand/) ?? on(side, /number|range|\bno\b/);
  const [leftUnit, rightUnit] = [unitOf('left'), unitOf('right')];
  const [leftCable, rightCable] = [cableOf('left'), cableOf('right')];
  return {
    leftCable,
    leftUnit,
    leftFibers: fibersOf('left'),
    rightCable,
    rightUnit,
    rightFibers: fibersOf('right'),
    mode: find((name) => /mode|kind|method/.test(name)),
    polarity: find((name) => /polarity/.test(name)),
    circuit: find((name) => /circuit|service/.test(name)),
  };
}

type Side = 'left' | 'right';
const unitNames = /tube|buffer|ribbon|\bunit/;

/** On which side each column is: as its name says, or as the column before it where it names a part of a cable and no side. */
function sidesOf(names: readonly string[]): (Side | null)[] {
  let last: Side | null = null;
  return names.map((name) => {
    if (/from|left|^a\b|incoming|source/.test(name)) last = 'left';
    else if (/\bto\b|right|^b\b|outgoing|target/.test(name)) last = 'right';
    else if (!/cable|fib|strand|number|range|\bno\b/.test(name) && !unitNames.test(name)) return null;
    return last;
  });
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
 * R1-R6, numbered in the cable, or in the tube or ribbon where a column names that. Rows that go on where the row before ended become one line. When anything is wrong all of it is told and there are no lines.
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

    const side = (which: Side): OrderRange | null => {
      const cableField = `${which}Cable` as const;
      const fiberField = `${which}Fibers` as const;
      const called = calledIn(cell(cableField), entries, cables);
      if ('code' in called) {
        say(cableField, called);
        return null;
      }
      const { entry, key, sign } = called;
      const cable = cables.get(entry.cableId);
      const written = cell(fiberField);
      const own = cell(`${which}Unit`);
      const unit = own === '' ? null : unitIn(own, header[mapping[`${which}Unit`]!] ?? '', cable);
      if (own !== '' && unit === null) {
        say(`${which}Unit`, { code: 'not-a-unit', params: { written: own } });
        return null;
      }
      // Both sides of a row alike, so that the one reader there is says what is wrong with it.
      const row = readOrderRow(
        `${key}${sign} ${unit && written === '' ? unit.written : written} > ${key}${sign} 1`,
        entries,
      );
      if (row.line === undefined || (unit && written !== '' && row.line.left.of)) {
        say(fiberField, { code: 'not-a-range', params: { written } });
        return null;
      }
      const range = row.line.left;
      const inUnit = unit && written !== '' ? withinUnit(range, unit, cable!) : null;
      if (inUnit && 'code' in inUnit) {
        say(inUnit.code === 'beyond-unit' ? fiberField : `${which}Unit`, inUnit);
        return null;
      }
      const meant = inUnit ?? range;
      const resolved = resolveRange(meant, cable);
      if (resolved.trouble) {
        say(fiberField, { code: 'range', params: { finding: resolved.trouble } });
        return null;
      }
      return meant;
    };
    const left = side('left');
    const leftEntry = entries.find((entry) => entry.cableId === left?.cableId);
    // A cable of that name comes first.
    const connector =
      'code' in calledIn(cell('rightCable'), entries, cables)
        ? readConnector(cell('rightCable'), leftEntry ?? {})
        : null;
    if (connector) {
      const alone = (['rightUnit', 'rightFibers', 'mode', 'polarity'] as const).find(
        (field) => !['', 'single', 'straight'].includes(cell(field).toLowerCase()),
      );
      if (alone) say(alone, { code: 'behind-connector', params: { written: cell(alone) } });
    }
    const right = connector ? null : side('right');

    const mode = cell('mode').toLowerCase();
    if (!['', 'single', 'ribbon', 'ribbonized'].includes(mode))
      say('mode', { code: 'mode', params: { written: cell('mode') } });
    const polarity = cell('polarity').toLowerCase();
    if (!['', 'straight', 'reversed'].includes(polarity))
      say('polarity', { code: 'polarity', params: { written: cell('polarity') } });
    const circuit = cell('circuit');
    if (circuit.length > longestName)
      say('circuit', { code: 'circuit-long', params: { longest: longestName } });
    if (problems.length > before || !left || (!right && !connector)) return;

    const words = [!connector && mode, !connector && polarity, circuit && `: ${circuit}`]
      .filter(Boolean)
      .join(' ');
    const ends = connector ? { right: null, connector } : { right };
    const bare = writeOrderLine({ left, ...ends, mode: 'single', circuit: null }, entries).replace(
      / single$/,
      '',
    );
    const { line } = readOrderRow(`${bare} ${words}`, entries);
    if (line) addOrJoin(lines, line);
  });
  return problems.length > 0 ? { lines: [], problems } : { lines, problems };
}

/** The cable that a cell calls, by its key or its label, with the side of one that goes through. */
function calledIn(
  written: string,
  entries: readonly Entry[],
  cables: ReadonlyMap<string, Cable>,
): { entry: Entry; key: string; sign: string } | CsvProblemTold {
  if (written === '') return { code: 'no-cable-named', params: {} };
  const keys = entries.map(entryKey);
  const called = (name: string) =>
    entries.filter(
      (entry, at) =>
        keys[at]!.toLowerCase() === name || cables.get(entry.cableId)?.label.trim().toLowerCase() === name,
    );
  const whole = written.toLowerCase();
  // A label may end with a sign of its own.
  const exact = called(whole);
  const sign = exact.length > 0 ? '' : (/[+-]$/.exec(whole)?.[0] ?? '');
  const found = exact.length > 0 ? exact : called(whole.replace(/\s*[+-]$/, ''));
  if (found.length === 0) return { code: 'cable', params: { called: written, keys } };
  if (found.length > 1) return { code: 'two-cables', params: { called: written } };
  return { entry: found[0]!, key: keys[entries.indexOf(found[0]!)]!, sign };
}

interface WrittenUnit {
  readonly of: 'tube' | 'ribbon';
  readonly number: number;
  readonly written: string;
}

/** "3", "T3", "ribbon 2": a tube or a ribbon by its number; what a bare number means is said by the column's name, or by the cable. */
function unitIn(written: string, column: string, cable: Cable | undefined): WrittenUnit | null {
  const read = /^(t|tube|r|ribbon)?\s*#?\s*(\d{1,5})$/i.exec(written);
  if (!read || Number(read[2]) < 1) return null;
  const letter = read[1]?.[0]!.toLowerCase();
  const ribboned = cable ? unitsNumbered(cable.construction).tube.length === 0 : false;
  const of =
    letter === 't'
      ? 'tube'
      : letter === 'r'
        ? 'ribbon'
        : /ribbon/i.test(column) && !/tube|buffer/i.test(column)
          ? 'ribbon'
          : /tube|buffer/i.test(column) && !/ribbon/i.test(column)
            ? 'tube'
            : ribboned
              ? 'ribbon'
              : 'tube';
  return { of, number: Number(read[2]), written: `${of === 'tube' ? 'T' : 'R'}${read[2]}` };
}

/** Fibers counted in a tube or ribbon, by their numbers in the cable. */
function withinUnit(
  { cableId, side, from, to }: OrderRange,
  { of, number }: WrittenUnit,
  cable: Cable,
): OrderRange | CsvProblemTold {
  const unit = resolveRange({ cableId, side, of, from: number, to: number }, cable);
  if (unit.trouble) return { code: 'range', params: { finding: unit.trouble } };
  const fibers = unit.to - unit.from + 1;
  if (to > fibers) return { code: 'beyond-unit', params: { of, number, fibers, asked: to } };
  return { cableId, side, from: unit.from + from - 1, to: unit.from + to - 1 };
}

/** Puts a line at the end of a list, or makes the last one longer where it only goes on and means the same splices. */
function addOrJoin(lines: WrittenLine[], line: WrittenLine): void {
  const last = lines.at(-1);
  const goesOn = (a: OrderRange, b: OrderRange) =>
    a.cableId === b.cableId &&
    a.side === b.side &&
    (a.of ?? 'fiber') === (b.of ?? 'fiber') &&
    b.from === a.to + 1;
  // Loose fibers of both sides are made into ribbons of 12 from the beginning of a line; single fibers in reversed order are counted from its end.
  const begunAnew =
    (line.mode === 'ribbonized' &&
      last &&
      (last.left.of || (last.left.to - last.left.from + 1) % 12 !== 0)) ||
    (line.mode === 'single' && line.polarity === 'reversed');
  if (
    last &&
    !begunAnew &&
    last.mode === line.mode &&
    last.polarity === line.polarity &&
    last.circuit === line.circuit &&
    last.connector === line.connector &&
    goesOn(last.left, line.left) &&
    (line.right === null ? last.right === null : last.right !== null && goesOn(last.right, line.right))
  )
    lines[lines.length - 1] = {
      ...last,
      left: { ...last.left, to: line.left.to },
      right: last.right && line.right ? { ...last.right, to: line.right.to } : null,
    };
  else lines.push(line);
}
