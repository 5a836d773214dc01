import Papa from 'papaparse';
import type { LogMapping } from './mapping';

/** A row of a log as text, with where it stands. */
export interface CellRow {
  /** From 1. */
  readonly line: number;
  readonly cells: readonly string[];
}

export interface CellTable {
  /** Empty where there is none. */
  readonly heading: readonly string[];
  readonly rows: readonly CellRow[];
  /** Lines that are no rows, with what is wrong. */
  readonly broken: readonly { readonly line: number; readonly why: 'no-json' | 'open-quote' | 'cut-off' }[];
}

type Shape = Pick<LogMapping, 'format' | 'delimiter' | 'starts' | 'skip' | 'heading'>;

/** The cells of a log. Empty lines are passed over; what cannot be read is told and the rest is read all the same. */
export function cellsOf(text: string, shape: Shape): CellTable {
  switch (shape.format) {
    case 'delimited':
      return delimited(text, shape);
    case 'json-lines':
      return jsonLines(text);
    case 'fixed':
      return fixed(text, shape);
  }
}

/** Lines of a text with their numbers from 1; those with nothing in them left out. */
function linesOf(text: string): { line: number; text: string }[] {
  return text
    .split(/\r\n|\r|\n/)
    .flatMap((one, index) => (one.trim() === '' ? [] : [{ line: index + 1, text: one }]));
}

function delimited(text: string, { delimiter, skip, heading }: Shape): CellTable {
  const lines = text.split(/\r\n|\r|\n/);
  const from = lines.slice(0, skip).reduce((sum, one) => sum + one.length + 1, 0);
  // The same ends everywhere, so that a row's place says its line.
  const rest = lines.join('\n').slice(from);
  const rows: CellRow[] = [];
  const broken: { line: number; why: 'open-quote' | 'cut-off' }[] = [];
  let line = skip + 1;
  let cursor = 0;
  Papa.parse<string[]>(rest, {
    delimiter,
    newline: '\n',
    step: ({ data, errors, meta }) => {
      const took = rest.slice(cursor, meta.cursor).split('\n').length - 1;
      if (errors.some(({ type }) => type === 'Quotes')) broken.push({ line, why: 'open-quote' });
      else if (data.some((cell) => cell.trim() !== ''))
        rows.push({ line, cells: data.map((cell) => cell.trim()) });
      line += Math.max(1, took);
      cursor = meta.cursor;
    },
  });
  const [first] = heading ? rows.splice(0, 1) : [];
  const width = first?.cells.length ?? rows[0]?.cells.length ?? 0;
  // The last row of a file that was not written to its end.
  const last = rows.at(-1);
  if (last && rows.length > 1 && last.cells.length < width && !text.endsWith('\n')) {
    rows.pop();
    broken.push({ line: last.line, why: 'cut-off' });
  }
  return { heading: first?.cells ?? [], rows, broken };
}

function jsonLines(text: string): CellTable {
  const heading: string[] = [];
  const broken: { line: number; why: 'no-json' }[] = [];
  const objects: { line: number; values: ReadonlyMap<string, string> }[] = [];
  for (const { line, text: one } of linesOf(text)) {
    const values = new Map<string, string>();
    try {
      flatten(JSON.parse(one), '', values);
    } catch {
      broken.push({ line, why: 'no-json' });
      continue;
    }
    for (const key of values.keys()) if (!heading.includes(key) && heading.length < 200) heading.push(key);
    objects.push({ line, values });
  }
  return {
    heading,
    rows: objects.map(({ line, values }) => ({ line, cells: heading.map((key) => values.get(key) ?? '') })),
    broken,
  };
}

/** { fibers: [{ loss: 0.03 }] } becomes fibers.1.loss = 0.03. */
function flatten(value: unknown, path: string, into: Map<string, string>): void {
  if (typeof value !== 'object' || value === null) {
    if (path !== '' && value !== null) into.set(path, String(value));
    return;
  }
  for (const [key, inner] of Object.entries(value)) {
    const name = Array.isArray(value) ? String(Number(key) + 1) : key;
    flatten(inner, path === '' ? name : `${path}.${name}`, into);
  }
}

function fixed(text: string, { starts, skip, heading }: Shape): CellTable {
  const lines = linesOf(text).filter(({ line }) => line > skip);
  const cut = (one: string) => starts.map((start, index) => one.slice(start, starts[index + 1]).trim());
  const rows = lines.map(({ line, text: one }) => ({ line, cells: cut(one) }));
  const [first] = heading ? rows.splice(0, 1) : [];
  return { heading: first?.cells ?? [], rows, broken: [] };
}
