import { lossRefusal } from '../../splice/record/reading';
import type { CellRow, CellTable } from './cells';
import { fieldsOfFiber, type LogField, type LogMapping } from './mapping';
import { readTimes, type ReadTime } from './times';

/** What a log says of one fiber: dB, degrees, μm; null: nothing. */
export interface LogReading {
  readonly loss: number | null;
  readonly cleaveLeft: number | null;
  readonly cleaveRight: number | null;
  readonly offset: number | null;
  readonly gap: number | null;
}

/** A splice in a log. */
export interface LogSplice {
  /** Lines of the file that it stands on, from 1. */
  readonly lines: readonly number[];
  /** As the machine numbers it; "" where the log has none. */
  readonly number: string;
  /** ms since 1970; null where the log has no time, or none that can be read. */
  readonly at: number | null;
  readonly doubt: ReadTime['doubt'];
  readonly label: string;
  readonly program: string;
  readonly proofTestFailed: boolean;
  /** Fiber 1 first. */
  readonly readings: readonly LogReading[];
}

/** A row that is not taken, and why: what, where. */
export interface LogFinding {
  readonly line: number;
  readonly why:
    | 'no-number'
    | 'range'
    | 'time'
    | 'fiber'
    | 'double-fiber'
    | 'missing-fiber'
    | 'cells'
    | 'no-json'
    | 'open-quote'
    | 'cut-off';
  /** What stands there. */
  readonly cell: string;
  readonly field: LogField | null;
}

export interface ReadLog {
  /** In the order of the file. */
  readonly splices: readonly LogSplice[];
  /** In the order of their lines. A splice with a finding in one of its rows is not among those that were read. */
  readonly findings: readonly LogFinding[];
}

/** Degrees and μm beyond which a figure is no angle and no length of a splice. */
const most = { cleaveLeft: 90, cleaveRight: 90, offset: 1000, gap: 1000 } as const;

/**
 * What a log says by a mapping.
 * @param firstDay of a log whose rows have no date: "2026-04-15"
 * @param onProgress told now and then how much of it is read, 0 … 1
 */
export function readLog(
  table: CellTable,
  mapping: LogMapping,
  firstDay: string | null,
  onProgress: (part: number) => void = () => undefined,
): ReadLog {
  const findings: LogFinding[] = table.broken.map(({ line, why }) => ({ line, why, cell: '', field: null }));
  const find = (line: number, why: LogFinding['why'], cell = '', field: LogField | null = null) =>
    findings.push({ line, why, cell, field });
  const at = (field: LogField) => mapping.columns.findIndex(({ holds }) => holds === field);
  const where = { time: at('time'), date: at('date'), splice: at('splice'), fiber: at('fiber') };
  const rows = table.rows.filter(({ line, cells }) => {
    const enough = cells.length >= mapping.columns.length;
    if (!enough) find(line, 'cells', cells.join(mapping.delimiter));
    return enough;
  });
  const timeTexts = rows.map(({ cells }) =>
    [where.date >= 0 ? cells[where.date]! : '', where.time >= 0 ? cells[where.time]! : '']
      .filter(Boolean)
      .join(' '),
  );
  const times =
    where.time >= 0 || where.date >= 0
      ? readTimes(timeTexts, mapping, firstDay)
      : rows.map((): ReadTime => ({ at: null, doubt: null }));

  const groups: { rows: { row: CellRow; time: ReadTime; text: string }[]; key: string }[] = [];
  rows.forEach((row, index) => {
    const key = keyOf(row, mapping, where, timeTexts[index]!);
    const last = groups.at(-1);
    const own = { row, time: times[index]!, text: timeTexts[index]! };
    if (last && key !== null && last.key === key) last.rows.push(own);
    else groups.push({ rows: [own], key: key ?? `line ${row.line}` });
  });
  const splices = groups.flatMap(({ rows: own }, group): LogSplice[] => {
    if (group % 500 === 0) onProgress(group / groups.length);
    const before = findings.length;
    const cells = (field: LogField) => {
      const column = at(field);
      return column < 0 ? '' : own[0]!.row.cells[column]!;
    };
    for (const { row, time, text } of own)
      if (where.time >= 0 && time.at === null) find(row.line, 'time', text, 'time');
    const readings =
      mapping.row === 'splice'
        ? acrossRow(own[0]!.row, mapping, find)
        : downRows(
            own.map(({ row }) => row),
            mapping,
            where.fiber,
            find,
          );
    if (findings.length > before || readings.length === 0) return [];
    const failedAt = at('proofTest');
    return [
      {
        lines: own.map(({ row }) => row.line),
        number: cells('splice'),
        at: own[0]!.time.at,
        doubt: own[0]!.time.doubt,
        label: cells('label'),
        program: cells('program'),
        proofTestFailed:
          failedAt >= 0 && own.some(({ row }) => mapping.failed.includes(row.cells[failedAt]!.toLowerCase())),
        readings,
      },
    ];
  });
  return { splices, findings: findings.sort((a, b) => a.line - b.line) };
}

/** By what rows of one splice are known to belong together; null: each is one by itself. */
function keyOf(
  { cells }: CellRow,
  { row }: LogMapping,
  where: { readonly splice: number; readonly fiber: number },
  time: string,
): string | null {
  if (row === 'splice') return null;
  if (where.splice >= 0) return cells[where.splice]!;
  return where.fiber >= 0 ? time : null;
}

type Find = (line: number, why: LogFinding['why'], cell?: string, field?: LogField | null) => void;

/** The fibers of a splice that stand side by side. A fiber of which nothing stands there is not in the splice. */
function acrossRow({ line, cells }: CellRow, mapping: LogMapping, find: Find): LogReading[] {
  const fibers = Math.max(1, ...mapping.columns.map(({ fiber }) => fiber ?? 1));
  const readings: (LogReading | null)[] = [];
  for (let fiber = 1; fiber <= fibers; fiber += 1) {
    const own = mapping.columns.flatMap(({ holds, fiber: of }, index) =>
      holds && fieldsOfFiber.has(holds) && (of ?? 1) === fiber ? [[holds, cells[index]!] as const] : [],
    );
    readings.push(own.every(([, cell]) => cell === '') ? null : readingOf(own, line, mapping, find));
  }
  const last = readings.findLastIndex((one) => one !== null);
  readings
    .slice(0, last + 1)
    .forEach((one, index) => one ?? find(line, 'missing-fiber', String(index + 1), 'fiber'));
  return readings.slice(0, last + 1).flatMap((one) => one ?? []);
}

/** The fibers of a splice that stand below each other. */
function downRows(rows: readonly CellRow[], mapping: LogMapping, fiberAt: number, find: Find): LogReading[] {
  const readings = new Map<number, LogReading>();
  rows.forEach(({ line, cells }, index) => {
    const fiber = fiberAt < 0 ? index + 1 : Number(cells[fiberAt]);
    if (!Number.isInteger(fiber) || fiber < 1 || fiber > 24)
      return find(line, 'fiber', cells[fiberAt] ?? '', 'fiber');
    if (readings.has(fiber)) return find(line, 'double-fiber', String(fiber), 'fiber');
    const own = mapping.columns.flatMap(({ holds }, column) =>
      holds && fieldsOfFiber.has(holds) ? [[holds, cells[column]!] as const] : [],
    );
    readings.set(fiber, readingOf(own, line, mapping, find));
  });
  const count = Math.max(0, ...readings.keys());
  for (let fiber = 1; fiber <= count; fiber += 1)
    if (!readings.has(fiber)) find(rows.at(-1)!.line, 'missing-fiber', String(fiber), 'fiber');
  return [...readings].sort(([a], [b]) => a - b).map(([, one]) => one);
}

function readingOf(
  cells: readonly (readonly [LogField, string])[],
  line: number,
  mapping: LogMapping,
  find: Find,
): LogReading {
  const reading: { -readonly [K in keyof LogReading]: LogReading[K] } = {
    loss: null,
    cleaveLeft: null,
    cleaveRight: null,
    offset: null,
    gap: null,
  };
  for (const [field, cell] of cells) {
    if (cell === '' || /^[-–—]+$/.test(cell)) continue;
    const figure = numberOf(cell, mapping.decimal);
    if (figure === null) {
      find(line, 'no-number', cell, field);
      continue;
    }
    const name = field as keyof LogReading;
    const value = inUnit(figure, name, mapping);
    const wrong = name === 'loss' ? lossRefusal(value) !== null : value < 0 || value > most[name];
    if (wrong) find(line, 'range', cell, field);
    else reading[name] = value;
  }
  return reading;
}

function inUnit(figure: number, name: keyof LogReading, { lossUnit, lengthUnit }: LogMapping): number {
  if (name === 'loss' && lossUnit === 'mdB') return Math.round(figure) / 1000;
  if ((name === 'offset' || name === 'gap') && lengthUnit === 'nm') return Math.round(figure) / 1000;
  return figure;
}

/** "0,03", "0.03 dB", "<0.01" is no number. null where it is none. */
export function numberOf(cell: string, decimal: '.' | ','): number | null {
  const match = /^([+-]?(?:\d+(?:[.,]\d*)?|[.,]\d+))\s*(?:dB|mdB|°|deg|[uµμ]m|nm)?$/i.exec(cell);
  if (!match) return null;
  const text = match[1]!;
  // The other sign would part thousands; no figure of a splice has any.
  if (text.includes(decimal === '.' ? ',' : '.')) return null;
  return Number(text.replace(',', '.'));
}
