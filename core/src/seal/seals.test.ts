import fc from 'fast-check';
import { acrossOrder, endPlate, type Opening } from './seals';

const openings = (sizes: readonly number[]): Opening[] =>
  sizes.map((size, index) => ({
    number: index + 1,
    port: 'R',
    seal: { of: 'plug', port: 'R', number: index + 1 },
    guests: [],
    size,
  }));

test('eight are tightened across, as wheel nuts are (common practice)', () => {
  expect(acrossOrder(8)).toEqual([0, 4, 2, 6, 1, 5, 3, 7]);
  expect(acrossOrder(1)).toEqual([0]);
  expect(acrossOrder(2)).toEqual([0, 1]);
  expect(acrossOrder(5)).toEqual([0, 3, 2, 1, 4]);
});

test('each is tightened once, and every second one lies opposite the one before it', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 200 }), (count) => {
      const order = acrossOrder(count);
      expect([...order].sort((a, b) => a - b)).toEqual(Array.from({ length: count }, (_, index) => index));
      if (count % 2 === 0)
        for (let index = 0; index < count; index += 2)
          expect(order[index + 1]! - order[index]!).toBe(count / 2);
    }),
  );
});

test('on the drawing no opening lies over another, and all lie on the plate', () => {
  fc.assert(
    fc.property(
      fc.array(fc.double({ min: 1, max: 60, noNaN: true }), { minLength: 1, maxLength: 120 }),
      (sizes) => {
        const { spots, height } = endPlate(openings(sizes));
        expect(spots).toHaveLength(sizes.length);
        for (const { x, y, r } of spots) {
          expect(r).toBeGreaterThan(0);
          expect(x - r).toBeGreaterThanOrEqual(0);
          expect(x + r).toBeLessThanOrEqual(1);
          expect(y - r).toBeGreaterThanOrEqual(0);
          expect(y + r).toBeLessThanOrEqual(height + 1e-9);
        }
        spots.forEach((a, index) => {
          for (const b of spots.slice(index + 1))
            expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeGreaterThanOrEqual(a.r + b.r - 1e-9);
        });
      },
    ),
    { numRuns: 60 },
  );
});
