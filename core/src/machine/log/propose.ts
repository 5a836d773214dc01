import { cellsOf, type CellTable } from './cells';
import type { Encoding } from './encoding';
import type { LogColumn, LogField, LogMapping } from './mapping';
import { dateOrders } from './times';

/** Rows that are looked at. */
const looked = 200;
const delimiters = ['\t', ';', '|', ','] as const;

/** What headings say, the surer first; in the languages that machines are set to (from memory). A heading is looked at in lower case, without accents. */
const heads: readonly (readonly [LogField, RegExp])[] = [
  ['proofTest', /proof|tension|tensile|tracao|traccion|zug|result|status/],
  ['program', /program|mode\b|modo|programm/],
  ['label', /label|comment|memo|name|nome|nombre|note|remark|etiqueta|bemerkung/],
  [
    'cleaveLeft',
    /(cleave|angle|angulo|winkel|clivagem).*(\bl\b|left|esq|izq|links|\(l\))|(\bl\b|left|esq|izq|links).*(cleave|angle|angulo|winkel)/,
  ],
  [
    'cleaveRight',
    /(cleave|angle|angulo|winkel|clivagem).*(\br\b|right|dir|der|rechts|\(r\))|(\br\b|right|dir|der|rechts).*(cleave|angle|angulo|winkel)/,
  ],
  ['offset', /offset|axis|desvio|eixo|versatz|desalin/],
  ['gap', /gap|folga|spalt|separac/],
  ['loss', /loss|atenua|perda|perdida|dampf|daempf|\bdb\b|estim/],
  ['fiber', /fib(er|re|ra)|faser|core\s*no|position/],
  ['time', /time|hora|zeit|when|moment/],
  ['date', /date|data|fecha|datum|day|dia/],
  ['splice', /splice|record|number|numero|nummer|\bno\b|\bnr\b|\bn\b|\bid\b|emenda|fusion|spleiss|memory/],
];

const plain = (text: string) =>
  text
    .normalize('NFD')
    .replace(/[\u0300-\u036f]/g, '')
    .toLowerCase()
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .replace(/[_.]+/g, ' ')
    .trim();

/** How a log is to be read, proposed by what stands in it; to be looked at by a person. Always some mapping, except for a text without a figure: null. */
export function proposeMapping(text: string, encoding: Encoding, zone: string): LogMapping | null {
  const shape = shapeOf(text);
  if (!shape) return null;
  const table = cellsOf(text, shape);
  const width = Math.max(
    table.heading.length,
    ...table.rows.slice(0, looked).map(({ cells }) => cells.length),
  );
  if (table.rows.length === 0 || width === 0) return null;
  const decimal = decimalOf(table);
  const columns = columnsOf(table, width, decimal);
  if (!columns.some(({ holds }) => holds === 'loss')) return null;
  const cellsAt = (field: LogField) => {
    const at = columns.findIndex(({ holds }) => holds === field);
    return at < 0 ? [] : table.rows.map(({ cells }) => cells[at] ?? '');
  };
  const figures = (field: LogField) =>
    cellsAt(field).flatMap((cell) => {
      const figure = Number(cell.replace(/[^\d.,+-]/g, '').replace(',', '.'));
      return cell === '' || Number.isNaN(figure) ? [] : [figure];
    });
  const median = (list: readonly number[]) =>
    [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)] ?? 0;
  const unitOf = (field: LogField) => columns.find(({ holds }) => holds === field)?.name ?? '';
  return {
    ...shape,
    encoding,
    decimal,
    columns,
    row:
      columns.some(({ fiber }) => fiber !== null) || !columns.some(({ holds }) => holds === 'fiber')
        ? 'splice'
        : 'fiber',
    // Whole numbers of which most are above 1 are thousandths: nobody has splices of some dB.
    lossUnit:
      /mdb/i.test(unitOf('loss')) || (median(figures('loss')) >= 2 && figures('loss').every(Number.isInteger))
        ? 'mdB'
        : 'dB',
    lengthUnit: /\bnm\b/i.test(`${unitOf('offset')} ${unitOf('gap')}`) ? 'nm' : 'um',
    order: dateOrders([...cellsAt('date'), ...cellsAt('time')])[0] ?? 'ymd',
    zone,
    failed: failedOf(cellsAt('proofTest')),
  };
}

type Shape = Parameters<typeof cellsOf>[1];

/** Format, delimiter and heading: those by which most rows have the same number of cells. */
function shapeOf(text: string): Shape | null {
  const lines = text.split(/\r\n|\r|\n/).slice(0, looked);
  const filled = lines.filter((one) => one.trim() !== '');
  const base = { delimiter: ',' as const, starts: [], skip: 0, heading: true };
  if (filled.length === 0) return null;
  if (filled[0]!.trim().startsWith('{')) return { ...base, format: 'json-lines' };
  let best: { shape: Shape; width: number } | null = null;
  for (const delimiter of delimiters) {
    const counts = lines.map((one) => (one.trim() === '' ? 0 : withoutQuoted(one).split(delimiter).length));
    const width = mostOften(counts.filter((one) => one > 1));
    if (width < 2) continue;
    const share = counts.filter((one) => one === width).length / filled.length;
    if (share < 0.6 || (best && best.width >= width)) continue;
    const skip = counts.findIndex((one) => one === width);
    const shape: Shape = { ...base, format: 'delimited', delimiter, skip };
    best = { shape: { ...shape, heading: hasHeading(cellsOf(text, { ...shape, heading: false })) }, width };
  }
  if (best) return best.shape;
  const starts = startsOf(filled);
  if (starts.length < 2) return null;
  const shape: Shape = { ...base, format: 'fixed', starts };
  return { ...shape, heading: hasHeading(cellsOf(text, { ...shape, heading: false })) };
}

/** What stands in quotes parts no cells. */
const withoutQuoted = (line: string) => line.replace(/"(?:[^"]|"")*"/g, '""');

function mostOften(list: readonly number[]): number {
  const counts = new Map<number, number>();
  for (const one of list) counts.set(one, (counts.get(one) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1] || b[0] - a[0])[0]?.[0] ?? 0;
}

/**
 * Where columns begin: after places that are empty in every line. Two that no line has both of are one, of which the heading begins on the left and figures end on the
 * right.
 */
function startsOf(lines: readonly string[]): number[] {
  const width = Math.max(...lines.map((one) => one.length));
  const empty = (at: number) => lines.every((one) => (one[at] ?? ' ') === ' ');
  const starts: number[] = [];
  for (let at = 0; at < width; at += 1) if (!empty(at) && (at === 0 || empty(at - 1))) starts.push(at);
  return starts.filter((start, index) => {
    if (index === 0) return true;
    const filled = (line: string, from: number, to: number | undefined) => line.slice(from, to).trim() !== '';
    return lines.some(
      (line) => filled(line, starts[index - 1]!, start) && filled(line, start, starts[index + 1]),
    );
  });
}

const isFigure = (cell: string) => /^[+-]?\d*[.,]?\d+\s*(dB|mdB|°|[uµμ]m)?$/i.test(cell);

/** The first row has no figures where the others have some. */
function hasHeading({ rows }: CellTable): boolean {
  const [first, ...others] = rows;
  if (!first || others.length === 0) return false;
  const share = (cells: readonly string[]) => cells.filter(isFigure).length / Math.max(1, cells.length);
  return share(first.cells) < 0.2 && share(others[0]!.cells) >= 0.2;
}

/** The sign by which more figures have decimals. */
function decimalOf({ rows }: CellTable): '.' | ',' {
  const cells = rows.slice(0, looked).flatMap((row) => row.cells);
  const count = (sign: string) =>
    cells.filter((cell) => new RegExp(`^[+-]?\\d*\\${sign}\\d+`).test(cell) && !/\d[/:-]\d/.test(cell))
      .length;
  return count(',') > count('.') ? ',' : '.';
}

function columnsOf({ heading, rows }: CellTable, width: number, decimal: '.' | ','): LogColumn[] {
  const some = rows.slice(0, looked);
  const taken = new Set<string>();
  return Array.from({ length: width }, (_, index) => {
    const name = heading[index] ?? String(index + 1);
    const cells = some.map((row) => row.cells[index] ?? '').filter((cell) => cell !== '');
    const said =
      heading[index] === undefined
        ? null
        : (heads.find(([, pattern]) => pattern.test(plain(name)))?.[0] ?? null);
    const holds = said ?? byContent(cells, decimal, taken);
    const fiber = holds && heading[index] !== undefined ? fiberIn(name, holds) : null;
    const key = `${holds} ${fiber}`;
    // The first of its kind; another one is passed over and shown to the person.
    if (!holds || taken.has(key)) return { name, holds: null, fiber: null };
    taken.add(key);
    return { name, holds, fiber };
  });
}

/** "Loss 3", "F3 loss (dB)", "fibers.3.loss": of which fiber a column is. */
function fiberIn(name: string, holds: LogField): number | null {
  if (!['loss', 'cleaveLeft', 'cleaveRight', 'offset', 'gap'].includes(holds)) return null;
  const number = Number(/(?:^|[^\d])(\d{1,2})(?![\d])/.exec(name.replace(/\(.*?\)/g, ''))?.[1]);
  return Number.isInteger(number) && number >= 1 && number <= 24 ? number : null;
}

/** What a column without a heading holds, by its cells. */
function byContent(
  cells: readonly string[],
  decimal: '.' | ',',
  taken: ReadonlySet<string>,
): LogField | null {
  if (cells.length === 0) return null;
  const all = (pattern: RegExp) => cells.every((cell) => pattern.test(cell));
  const free = (field: LogField) => !taken.has(`${field} null`);
  if (all(/\d{1,4}[-/.]\d{1,2}[-/.]\d{1,4}.*\d{1,2}[:h]\d{2}/) && free('time')) return 'time';
  if (all(/^\d{1,4}[-/.]\d{1,2}[-/.]\d{2,4}$/) && free('date')) return 'date';
  if (all(/^\d{1,2}[:h]\d{2}/) && free('time')) return 'time';
  const sign = `\\${decimal}`;
  // Losses have two decimals or three, angles one.
  if (all(new RegExp(`^\\d*${sign}\\d{2,3}$`)) && free('loss')) return 'loss';
  if (all(new RegExp(`^\\d+${sign}\\d$`)))
    return free('cleaveLeft') ? 'cleaveLeft' : free('cleaveRight') ? 'cleaveRight' : null;
  const numbers = cells.map(Number);
  if (
    all(/^\d+$/) &&
    numbers.every((one, index) => index === 0 || one >= numbers[index - 1]!) &&
    free('splice')
  )
    return 'splice';
  if (all(/^\d{1,2}$/) && numbers.every((one) => one >= 1 && one <= 24) && free('fiber')) return 'fiber';
  return null;
}

const failWords = /fail|broke|bruch|falh|fall|nok|\bng\b|error|bad|nicht/;
const failedOf = (cells: readonly string[]) =>
  [...new Set(cells.map((cell) => cell.toLowerCase()).filter((cell) => failWords.test(cell)))].slice(0, 20);

/** Whether a log is written as the one for which a mapping was made: the same headings, or as many columns with losses where they are looked for. */
export function mappingFits(text: string, mapping: LogMapping): boolean {
  const table = cellsOf(beginOf(text), mapping);
  const { columns } = mapping;
  const some = table.rows.slice(0, looked);
  if (some.length === 0) return false;
  if (mapping.format === 'json-lines' || mapping.heading)
    return columns.every(({ name, holds }, index) => holds === null || table.heading[index] === name);
  const loss = columns.findIndex(({ holds }) => holds === 'loss');
  return (
    some.every(({ cells }) => cells.length === columns.length) &&
    some.some(({ cells }) => isFigure(cells[loss]!))
  );
}

/** As much of a log as is shown before it is read. */
export function beginOf(text: string): string {
  if (text.length <= mostShown) return text;
  // To the end of a line.
  return text.slice(0, text.lastIndexOf('\n', mostShown) + 1 || mostShown);
}
const mostShown = 60_000;
