/** What reads and writes CSV. It is fetched when a table is first saved or read: the bench needs none, and its first load is kept small. */
export const csvPackage = async () => (await import('papaparse')).default;

/** Rows as a file that spreadsheets open: with the mark that tells them UTF-8, without which they guess, and no cell that they would run as a formula. */
export async function csvText(
  rows: readonly (readonly unknown[])[],
  escapeFormulae: boolean | RegExp = true,
): Promise<string> {
  const papa = await csvPackage();
  return `\uFEFF${papa.unparse(rows as unknown[][], { newline: '\r\n', escapeFormulae })}\r\n`;
}
