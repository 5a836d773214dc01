import { clockTime } from '../../ui/times';
import { percent, spareWords } from './words';

const closes = Date.parse('2026-04-15T00:00:00.000Z');

test('what is spare is the difference of the clocks that are shown, whatever the seconds', () => {
  const late = closes + 8 * 60_000 + 40_000;
  expect(clockTime(late, 'UTC').slice(0, 5)).toBe('00:08');
  expect(spareWords({ ends: late, closes })).toBe('8 min over');
  const soon = closes - 35 * 60_000 - 20_000;
  expect(clockTime(soon, 'UTC').slice(0, 5)).toBe('23:24');
  expect(spareWords({ ends: soon, closes })).toBe('36 min spare');
});

test('nobody is sure: no chance is shown as 0 or 100 %', () => {
  expect([0, 0.004, 0.5, 0.999, 1].map(percent)).toEqual(['1 %', '1 %', '50 %', '99 %', '99 %']);
});
