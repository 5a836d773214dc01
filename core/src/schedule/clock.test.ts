import fc from 'fast-check';
import { nights } from '../../test/nightsExample';
import { zone } from '../../test/plannedNights';
import { clockAfter, dayMinute } from './clock';
import { nightsAfter } from './setup';

test('a time of day is found in every zone, over a change of clocks too', () => {
  fc.assert(
    fc.property(
      fc.constantFrom('America/Sao_Paulo', 'Europe/Lisbon', 'Asia/Kathmandu', 'Australia/Lord_Howe', null),
      fc.integer({ min: Date.parse('2026-01-01T00:00:00Z'), max: Date.parse('2027-01-01T00:00:00Z') }),
      fc.integer({ min: 0, max: 1439 }),
      (where, time, minute) => {
        const found = clockAfter(time, minute, where);
        expect(found).toBeGreaterThanOrEqual(time - 60_000);
        expect(found - time).toBeLessThanOrEqual(26 * 3_600_000);
        // An hour that is left out lies nowhere; all others are met.
        const off = Math.abs(dayMinute(found, where) - minute);
        expect([0, 30, 60]).toContain(off);
      },
    ),
    { numRuns: 300 },
  );
});

test('further nights follow the last one, a day after each other', () => {
  const mixed = [nights[2]!, nights[0]!, nights[1]!];
  expect(nightsAfter(mixed, 2, zone)).toEqual([
    { opens: '2026-04-18T01:00:00.000Z', closes: '2026-04-18T08:00:00.000Z' },
    { opens: '2026-04-19T01:00:00.000Z', closes: '2026-04-19T08:00:00.000Z' },
  ]);
  expect(nightsAfter([], 2, zone)).toEqual([]);
  // 22:00 to 05:00 in Lisbon, where clocks are set back an hour that night: 21:00 to 05:00 in UTC, then 22:00 to 05:00.
  const autumn = { opens: '2026-10-24T21:00:00.000Z', closes: '2026-10-25T05:00:00.000Z' };
  expect(nightsAfter([autumn], 1, 'Europe/Lisbon')).toEqual([
    { opens: '2026-10-25T22:00:00.000Z', closes: '2026-10-26T05:00:00.000Z' },
  ]);
});
