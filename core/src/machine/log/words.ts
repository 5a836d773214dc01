import { shownNumber } from '../../units/decimals';
import type { LogField } from './mapping';
import type { MatchWhat } from './matchLog';
import type { LogFinding } from './rows';

/** What is said of a machine's log, in English, in one place. */

export const logFieldWords: Readonly<Record<LogField, string>> = {
  splice: 'Number of the splice',
  time: 'Time',
  date: 'Date',
  fiber: 'Fiber in the splice',
  loss: 'Loss',
  cleaveLeft: 'Cleave left',
  cleaveRight: 'Cleave right',
  offset: 'Axis offset',
  gap: 'Gap',
  proofTest: 'Proof test',
  program: 'Program',
  label: 'Label',
};

export const matchWords: Readonly<Record<MatchWhat, string>> = {
  known: 'On record',
  agrees: 'Agrees',
  fills: 'Fills a gap',
  differs: 'Differs',
  extra: 'Extra row',
  missing: 'Missing',
};

/** What is wrong with a line, where, and what to do. */
export function logFindingWords({ line, why, cell, field }: LogFinding): string {
  const where = `Line ${line}`;
  const what = field ? logFieldWords[field].toLowerCase() : '';
  switch (why) {
    case 'no-number':
      return `${where}: “${cell}” is no number for ${what}. Check the decimal sign and what the column holds.`;
    case 'range':
      return `${where}: ${shownNumber(cell)} is no ${what} of a splice. Check the unit and the decimal sign.`;
    case 'time':
      return `${where}: “${cell}” is no time. Check the order of day and month.`;
    case 'fiber':
      return `${where}: “${cell}” is no fiber of a splice; 1 to 24 are.`;
    case 'double-fiber':
      return `${where}: fiber ${cell} stands twice in this splice.`;
    case 'missing-fiber':
      return `${where}: fiber ${cell} of this splice is missing.`;
    case 'cells':
      return `${where} has fewer cells than the others.`;
    case 'no-json':
      return `${where} is no JSON, or only a part of one.`;
    case 'open-quote':
      return `${where}: a quotation mark is open.`;
    case 'cut-off':
      return `${where} is cut off: the file was not written to its end. Copy it from the machine once more.`;
  }
}
