import {
  attempt,
  cableA,
  cableB,
  closure,
  definition,
  id,
  measuredLoss,
  subjectOf,
  timeOf,
} from '../../test/example';
import type { Fact } from '../facts';
import { lossSheet, spreadsheetFormula } from './lossSheet';

const sheetOf = (...facts: Parameters<typeof lossSheet>[1][number][]) => {
  const { header, rows } = lossSheet(definition, facts, [closure.id]);
  return rows.map((row) => Object.fromEntries(header.map((name, index) => [name, row[index]])));
};

test('one row per planned fiber, with units in the headers', () => {
  const { header, rows } = lossSheet(definition, [], [closure.id]);
  expect(rows).toHaveLength(24);
  expect(rows.every((row) => row.length === header.length)).toBe(true);
  expect(header).toEqual(
    expect.arrayContaining(['Estimated loss (dB)', 'Cleave left (deg)', 'Distance (m)']),
  );
});

/** Somebody spliced on with a machine whose calibration was due. */
const wentOnAt = (minute: number, label: string): Fact => ({
  v: 2,
  id: id(900),
  kind: 'went-on',
  madeAt: timeOf(minute),
  by: null,
  device: null,
  subject: { on: 'gear', closureId: closure.id, gearId: id(71), label },
  body: { about: 'calibration', rules: ['session'], note: '' },
});

test('says who meets whom, where, and how it was judged', () => {
  const row = sheetOf(
    attempt(6, 0.2, { minute: 60 }),
    wentOnAt(61, 'Single 1'),
    attempt(6, 0.04, {
      minute: 62,
      cleaveLeft: 0.6,
      by: 'Iara',
      note: 'ok, now',
      gear: { machine: { id: id(71), label: 'Single 1' } },
    }),
  )[6]!;
  expect(row).toMatchObject({
    Site: 'Joint',
    'Distance (m)': '500',
    Tray: '1',
    Slot: '7',
    'Left cable': 'A',
    'Left tube': '2',
    'Left fiber': '7',
    'Left colors': 'OR BL',
    'Right cable': 'B',
    Verdict: 'Holds',
    Tries: '2',
    'Estimated loss (dB)': '0.04',
    'Limit (dB)': '0.10',
    'Cleave left (deg)': '0.6',
    'Cleave right (deg)': '',
    By: 'Iara',
    Machine: 'Single 1',
    Cleaver: '',
    'Passed over': 'calibration due',
    Note: 'ok, now',
  });
});

test('lists what is not planned any more, even when the cable no longer has the fiber', () => {
  const end = (cableId: string, fiber: number) => ({ cableId, fiber, side: 'end' as const });
  const gone = attempt(0, 0.05, {
    subject: subjectOf({ left: [end(cableA.id, 99)], right: [end(cableB.id, 2)] }),
  });
  const rows = sheetOf(gone);
  expect(rows).toHaveLength(25);
  expect(rows[24]).toMatchObject({
    Tray: '',
    Verdict: 'Not planned (Holds)',
    'Left fiber': '99',
    'Estimated loss (dB)': '0.05',
  });
});

test('of no closure, nothing', () => expect(lossSheet(definition, [], []).rows).toEqual([]));

test('what was measured stands beside the estimate, each direction and what follows', () => {
  const one = attempt(2, 0.04);
  const [first, second] = [
    measuredLoss(one, { fromLeft: 0.2, fromRight: -0.06 }),
    measuredLoss(one, { fromLeft: -0.01, fromRight: null }),
  ];
  const { header, rows } = lossSheet(definition, [one, first], [closure.id]);
  expect(rows.every((row) => row.length === header.length)).toBe(true);
  expect(sheetOf(one, first)[2]).toMatchObject({
    'Estimated loss (dB)': '0.04',
    'Measured loss (dB)': '0.07',
    'Measured from left (dB)': '0.20',
    'Measured from right (dB)': '-0.06',
    'Measured with': 'OTDR, 1550 nm',
    'Limit (dB)': '0.10',
  });
  // From one end there is no loss.
  expect(sheetOf(one, second)[2]).toMatchObject({
    'Measured loss (dB)': '',
    'Measured from left (dB)': '-0.01',
  });
});

test('a number below 0 is no formula to a spreadsheet, and everything else that begins like one is', () => {
  for (const cell of ['-0.06', '-3']) expect(spreadsheetFormula.test(cell)).toBe(false);
  for (const cell of ['-1+2', '-cmd', '=1', '@x', '+1', '\tx', '\r=1', '-0.06\n=1'])
    expect(spreadsheetFormula.test(cell)).toBe(true);
});
