import { spreadsheetFormula } from '@cordel/core';
import { spliceColumns, spliceRows, type AsBuilt } from '@cordel/core/asBuilt';
import Papa from 'papaparse';

/** One table of all closures (RFC 4180), the closure first. The mark at the start tells spreadsheets that this is UTF-8; without it they guess. */
export function csv(built: AsBuilt): string {
  const rows = [
    ['Closure', ...spliceColumns.map(({ title }) => title)],
    ...built.closures.flatMap((closure) =>
      spliceRows(closure).map((row) => [closure.site, ...row.map((cell) => cell ?? '')]),
    ),
  ];
  return `\uFEFF${Papa.unparse(rows, { newline: '\r\n', escapeFormulae: spreadsheetFormula })}\r\n`;
}
