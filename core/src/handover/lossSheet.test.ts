import { attempt, cableA, cableB, closure, definition, id, subjectOf, timeOf } from '../../test/example';
import type { Fact } from '../facts';
import { lossSheet } from './lossSheet';

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
