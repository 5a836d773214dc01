import fc from 'fast-check';
import { clockTime, dayAndTime, timeOfWall, wallTime } from './times';

// Offsets of the IANA database: São Paulo has −3 h since 2019, Kathmandu +5:45, Lisbon +1 h in summer.
test.each([
  ['2026-04-15T01:00:00.000Z', 'America/Sao_Paulo', '2026-04-14T22:00'],
  ['2026-04-15T01:00:00.000Z', 'Asia/Kathmandu', '2026-04-15T06:45'],
  ['2026-07-01T23:30:00.000Z', 'Europe/Lisbon', '2026-07-02T00:30'],
  ['2026-01-01T23:30:00.000Z', 'Europe/Lisbon', '2026-01-01T23:30'],
])('at %s a clock in %s shows %s', (time, zone, wall) => {
  expect(wallTime(time, zone)).toBe(wall);
  expect(timeOfWall(wall, zone)).toBe(time);
});

test('an hour that clocks leave out lies an hour later, one that comes twice is the first', () => {
  // Lisbon: 29 March 2026 at 01:00 UTC to summer time, 25 October at 01:00 UTC back.
  expect(timeOfWall('2026-03-29T01:30', 'Europe/Lisbon')).toBe('2026-03-29T01:30:00.000Z');
  expect(timeOfWall('2026-10-25T01:30', 'Europe/Lisbon')).toBe('2026-10-25T00:30:00.000Z');
});

test.each(['', '2026-04-14', '2026-02-30T10:00', 'tonight'])('%j is no time', (wall) =>
  expect(timeOfWall(wall, 'Europe/Lisbon')).toBeNull(),
);

test('whatever the zone, what is shown is read back', () => {
  const minutes = fc.integer({ min: 0, max: 40 * 365 * 24 * 60 });
  const zone = fc.constantFrom('America/Sao_Paulo', 'Asia/Kathmandu', 'UTC', 'Asia/Tokyo', null);
  fc.assert(
    fc.property(minutes, zone, (minute, name) => {
      const time = new Date(Date.UTC(2020, 0, 1) + minute * 60_000).toISOString();
      expect(timeOfWall(wallTime(time, name), name)).toBe(time);
    }),
  );
});

test('the zone is named where its clock differs from the device’s', () => {
  const time = '2026-04-15T01:00:00.000Z';
  const own = new Intl.DateTimeFormat([], { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' });
  expect(clockTime(time, null)).toBe(own.format(new Date(time)));
  expect(clockTime(time, Intl.DateTimeFormat().resolvedOptions().timeZone)).toBe(own.format(new Date(time)));
  expect(clockTime(time, 'Asia/Kathmandu')).toBe('06:45 GMT+5:45');
  expect(dayAndTime(time, 'Asia/Kathmandu')).toBe('15 Apr 2026, 06:45 GMT+5:45');
  expect(clockTime(time, 'Nowhere/Known')).toBe(own.format(new Date(time)));
});
