import { sayAt } from '../../finding';
import { lossRefusal } from '../record/reading';
import type { ReadingFinding } from '../words';

/** What a pasted column of losses holds: one for each fiber, dB, or what is wrong with it. Nothing is taken when anything is wrong. */
export interface ReadingColumn {
  readonly losses: readonly number[];
  readonly findings: readonly ReadingFinding[];
}

/**
 * Reads a column of losses as it is copied from a table: one a line, with or without its unit, decimal point or comma. Cells beside
 * each other on one line, parted by tabs or semicolons, are taken one after the other too.
 * @param fibers how many the splice has
 */
export function readReadingColumn(text: string, fibers: number): ReadingColumn {
  const findings: ReadingFinding[] = [];
  const losses: number[] = [];
  const cells = text
    .replace(/\s+$/, '')
    .split(/\r?\n|[\t;]/)
    .map((cell) => cell.trim());
  if (cells.length === 1 && cells[0] === '') {
    sayAt(findings, { kind: 'column' })('empty', {});
    return { losses, findings };
  }
  cells.forEach((cell, index) => {
    const row = index + 1;
    const say = sayAt(findings, { kind: 'row', row });
    if (cell === '') {
      say('empty-cell', { row });
      return;
    }
    const match = /^([+-]?\d*(?:[.,]\d*)?)\s*(.*)$/.exec(cell)!;
    const figure = Number(match[1]!.replace(',', '.'));
    const unit = match[2]!;
    if (!/\d/.test(match[1]!) || Number.isNaN(figure)) {
      say('no-number', { row, cell });
      return;
    }
    if (unit !== '' && unit.toLowerCase() !== 'db') {
      say('unit', { row, cell, unit });
      return;
    }
    if (lossRefusal(figure)) say('range', { row, loss: figure });
    else losses.push(figure);
  });
  if (findings.length === 0 && losses.length !== fibers)
    sayAt(findings, { kind: 'column' })('count', { losses: losses.length, fibers });
  return { losses: findings.length > 0 ? [] : losses, findings };
}
