import type { Finding } from '../finding';
import { formatLoss, lossRefusal } from './reading';

/** What a pasted column of losses holds: one for each fiber, dB, or what is wrong with it. Nothing is taken when anything is wrong. */
export interface ReadingColumn {
  readonly losses: readonly number[];
  readonly findings: readonly Finding[];
}

/**
 * Reads a column of losses as it is copied from a table: one a line, with or without its unit, decimal point or comma. Cells beside
 * each other on one line, parted by tabs or semicolons, are taken one after the other too.
 * @param fibers how many the splice has
 */
export function readReadingColumn(text: string, fibers: number): ReadingColumn {
  const findings: Finding[] = [];
  const losses: number[] = [];
  const cells = text
    .replace(/\s+$/, '')
    .split(/\r?\n|[\t;]/)
    .map((cell) => cell.trim());
  if (cells.length === 1 && cells[0] === '')
    return {
      losses: [],
      findings: [
        {
          code: 'empty',
          severity: 'error',
          where: 'column',
          message: 'Nothing is pasted yet. Paste one loss for each fiber, one a line.',
        },
      ],
    };
  cells.forEach((cell, index) => {
    const where = `row ${index + 1}`;
    const say = (code: string, message: string) =>
      void findings.push({ code, severity: 'error', where, message });
    if (cell === '') {
      say(
        'empty-cell',
        `Row ${index + 1} is empty. Give a loss for every fiber, or record the splice as broken.`,
      );
      return;
    }
    const match = /^([+-]?\d*(?:[.,]\d*)?)\s*(.*)$/.exec(cell)!;
    const figure = Number(match[1]!.replace(',', '.'));
    const unit = match[2]!;
    if (match[1] === '' || !/\d/.test(match[1]!) || Number.isNaN(figure)) {
      say('no-number', `Row ${index + 1}, “${cell}”, is not a loss. Write it like 0.03.`);
      return;
    }
    if (unit !== '' && unit.toLowerCase() !== 'db') {
      say(
        'unit',
        `Row ${index + 1}, “${cell}”, is in “${unit}”. Losses are in dB: paste the column that has them.`,
      );
      return;
    }
    const refusal = lossRefusal(figure);
    if (refusal) say('range', `Row ${index + 1}, ${formatLoss(figure)}: ${refusal}`);
    else losses.push(figure);
  });
  if (findings.length === 0 && losses.length !== fibers)
    findings.push({
      code: 'count',
      severity: 'error',
      where: 'column',
      message: `${losses.length} ${losses.length === 1 ? 'loss is' : 'losses are'} pasted, and the splice has ${fibers} fibers. Paste ${fibers}, in the order of the left side.`,
    });
  return { losses: findings.length > 0 ? [] : losses, findings };
}
