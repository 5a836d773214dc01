import { attempt, closure, definition, id, cableA, cableB } from '../../test/example';
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

test('says who meets whom, where, and how it was judged', () => {
  const row = sheetOf(
    attempt(6, 0.2),
    attempt(6, 0.04, {
      cleaveLeft: 0.6,
      by: 'Iara',
      note: 'ok, now',
      gear: { machine: { id: id(71), label: 'Single 1' }, wentOn: ['calibration'] },
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
  const gone = { ...attempt(0, 0.05), spliceId: `${cableA.id}.99.end~${cableB.id}.2.end` };
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
