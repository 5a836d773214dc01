import {
  spliceColumns,
  spliceRows,
  summaryColumns,
  summaryRows,
  type AsBuilt,
  type Cell,
  type Column,
} from '@cordel/core/asBuilt';
import type ExcelJS from 'exceljs';
import { excelJs } from './fetched';

/** Excel takes 31 characters, and none of these. */
function sheetName(site: string, taken: Set<string>): string {
  const plain =
    site
      .replace(/[\\/*?:[\]]/g, ' ')
      .replace(/^'+|'+$/g, '')
      .trim()
      .slice(0, 31) || 'Closure';
  let name = plain;
  for (let number = 2; taken.has(name.toLowerCase()); number += 1) {
    const tail = ` ${number}`;
    name = plain.slice(0, 31 - tail.length) + tail;
  }
  taken.add(name.toLowerCase());
  return name;
}

const formats: Readonly<Partial<Record<Column['kind'], string>>> = {
  loss: '0.00#',
  time: 'yyyy-mm-dd hh:mm',
};

/** Text stays text: exceljs writes no formulas from strings, so nothing that a person typed is computed. */
const valueOf = (cell: Cell, { kind }: Column) =>
  kind === 'time' && typeof cell === 'string' ? new Date(cell) : cell;

function fill(
  sheet: ExcelJS.Worksheet,
  columns: readonly Column[],
  rows: readonly (readonly Cell[])[],
): void {
  sheet.columns = columns.map(({ title, width, kind }) => ({
    header: title,
    width,
    style: formats[kind] ? { numFmt: formats[kind] } : {},
  }));
  sheet.getRow(1).font = { bold: true };
  sheet.getRow(1).alignment = { wrapText: true, vertical: 'top' };
  for (const row of rows) sheet.addRow(row.map((cell, index) => valueOf(cell, columns[index]!)));
  sheet.views = [{ state: 'frozen', ySplit: 1 }];
  sheet.autoFilter = { from: { row: 1, column: 1 }, to: { row: 1 + rows.length, column: columns.length } };
}

/** A workbook: a summary, and a sheet for each closure, with typed numbers and filters. */
export async function xlsx(
  built: AsBuilt,
  at: string,
  onProgress: (done: number, of: number) => void,
): Promise<Uint8Array> {
  const book = new (excelJs().Workbook)();
  book.creator = 'Cordel';
  book.created = new Date(at);
  // Spreadsheets keep the second name for themselves.
  const taken = new Set<string>(['summary', 'history']);
  fill(book.addWorksheet('Summary'), summaryColumns, summaryRows(built));
  built.closures.forEach((closure, index) => {
    fill(book.addWorksheet(sheetName(closure.site, taken)), spliceColumns, spliceRows(closure));
    onProgress(index + 1, built.closures.length);
  });
  return new Uint8Array(await book.xlsx.writeBuffer());
}
