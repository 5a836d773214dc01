import fc from 'fast-check';
import { exactExp } from '../exactExp';
import { exactLog } from '../exactLog';
import { draws } from '../machine/draws';
import { Chances, crewSpread, together } from './chance';

/** So many nights are played out. */
const nights = 10_000;

/** A gamma variable of whole shape: the sum of so many exponential ones. */
function gamma(shape: number, mean: number, uniform: () => number): number {
  let sum = 0;
  for (let at = 0; at < shape; at += 1) sum -= exactLog(1 - uniform());
  return (sum / shape) * mean;
}

test.each([
  ['the shortest there is: set up, one cable, seal, test', [11, 16, 16, 25], [1200, 2400, 1500, 900], 0.15],
  ['a night of three closures', [9, 9, 16], [5400, 7200, 4800], 0.15],
  [
    'ninety splices and a seal',
    [...Array.from({ length: 90 }, () => 4), 9],
    [...Array.from({ length: 90 }, () => 160), 1500],
    0.1,
  ],
  ['a slow crew or a quick one', [25, 25, 25, 25], [4000, 4000, 4000, 4000], 0.3],
] as const)(
  'the chance is that of 10 000 nights played out, within 2 points: %s',
  (name, shapes, means, spread) => {
    const random = draws(7, name);
    const played: number[] = [];
    for (let night = 0; night < nights; night += 1) {
      const factor = exactExp(spread * random.normal() - (spread * spread) / 2);
      let sum = 0;
      for (const [step, shape] of shapes.entries()) sum += gamma(shape, means[step]!, random.uniform);
      played.push(1200 + factor * sum);
    }
    const work = together(
      ...shapes.map((shape, step) => ({ mean: means[step]!, variance: means[step]! ** 2 / shape })),
    );
    const stretch = { fixed: 1200, ...work };
    const chances = new Chances(spread);
    for (const at of [0.7, 0.85, 0.95, 1, 1.05, 1.15, 1.3, 1.6]) {
      const limit = 1200 + work.mean * at;
      const share = played.filter((one) => one <= limit).length / nights;
      expect(Math.abs(chances.within(limit, stretch) - share)).toBeLessThan(0.02);
      const over = played.reduce((sum, one) => sum + Math.max(0, one - limit), 0) / nights;
      expect(Math.abs(chances.beyond(limit, stretch) - over)).toBeLessThan(0.02 * work.mean);
    }
  },
);

const stretches = fc.record({
  fixed: fc.integer({ min: 0, max: 3600 }),
  mean: fc.integer({ min: 60, max: 40_000 }),
  variance: fc.integer({ min: 1, max: 4_000_000 }),
});

test('a chance grows with the time, falls with the work, and its quantile leads back to it', () => {
  const chances = new Chances(crewSpread.usual);
  fc.assert(
    fc.property(
      stretches,
      fc.integer({ min: 0, max: 60_000 }),
      fc.integer({ min: 1, max: 3600 }),
      (stretch, at, more) => {
        const chance = chances.within(at, stretch);
        expect(chance).toBeGreaterThanOrEqual(0);
        expect(chance).toBeLessThanOrEqual(1);
        expect(chances.within(at + more, stretch)).toBeGreaterThanOrEqual(chance);
        expect(chances.within(at, { ...stretch, mean: stretch.mean + more })).toBeLessThanOrEqual(
          chance + 1e-9,
        );
        expect(chances.beyond(at, stretch)).toBeGreaterThanOrEqual(
          Math.max(0, stretch.fixed + stretch.mean - at) - 1,
        );
        const quantile = chances.quantile(0.9, stretch);
        expect(chances.within(quantile, stretch)).toBeGreaterThanOrEqual(0.9);
        expect(chances.within(quantile - 1, stretch)).toBeLessThanOrEqual(0.9);
      },
    ),
  );
});

test('work that is sure, and none at all', () => {
  const chances = new Chances(0);
  const sure = { fixed: 60, mean: 600, variance: 0 };
  expect([chances.within(660, sure), chances.within(659, sure), chances.beyond(600, sure)]).toEqual([
    1, 0, 60,
  ]);
  expect([
    chances.within(60, { fixed: 60, mean: 0, variance: 0 }),
    chances.within(59, { fixed: 60, mean: 0, variance: 0 }),
  ]).toEqual([1, 0]);
});
