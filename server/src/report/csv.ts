import { spreadsheetFormula } from '@cordel/core';
import { spliceColumns, spliceRows, type AsBuilt } from '@cordel/core/asBuilt';
import type { Label } from '@cordel/core/labels';
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

/** Labels for a printer's own program: a row each. */
export function labelsCsv(labels: readonly Label[], address: string): string {
  const rows = [
    ['Kind', 'Site', 'Title', 'Line 1', 'Line 2', 'Address'],
    ...labels.map(({ kind, site, title, lines, path }) => [
      kind,
      site,
      title,
      lines[0] ?? '',
      lines.slice(1).join(' · '),
      `${address}${path}`,
    ]),
  ];
  return `\uFEFF${Papa.unparse(rows, { newline: '\r\n', escapeFormulae: spreadsheetFormula })}\r\n`;
}
