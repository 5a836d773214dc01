import fc from 'fast-check';
import { ticksTo } from './ticks';

test('round steps up to what is drawn', () => {
  expect(ticksTo(0.12, 4)).toEqual([0, 0.05, 0.1, 0.15]);
  expect(ticksTo(0.05, 4)).toEqual([0, 0.02, 0.04, 0.06]);
  expect(ticksTo(1, 4)).toEqual([0, 0.5, 1]);
  expect(ticksTo(7, 4)).toEqual([0, 2, 4, 6, 8]);
  expect(ticksTo(0, 4)).toEqual([0]);
});

test('they rise evenly, and the last one is the first at or above the top', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.001, max: 1000, noNaN: true }),
      fc.integer({ min: 2, max: 8 }),
      (top, count) => {
        const ticks = ticksTo(top, count);
        expect(ticks[0]).toBe(0);
        expect(ticks.at(-1)!).toBeGreaterThanOrEqual(top * (1 - 1e-6));
        expect(ticks.at(-2)!).toBeLessThan(top);
        expect(ticks.length).toBeLessThanOrEqual(count + 2);
      },
    ),
  );
});
