import fc from 'fast-check';
import { anyConstruction } from '../../test/arbitraries';
import type { Construction } from './cable';
import { crossSection } from './crossSection';
import { fiberUnits } from './fiberNumber';

const stranded = (count: number): Construction => ({
  kind: 'stranded-tubes',
  strands: Array.from({ length: count }, () => ({ kind: 'tube' as const, fibers: 12 })),
});

test('tubes lie inside the sheath and not in each other, up to the largest cable', () => {
  fc.assert(
    fc.property(fc.oneof(fc.integer({ min: 1, max: 60 }), fc.constantFrom(144, 288, 576)), (count) => {
      const { tubes, rods } = crossSection(stranded(count));
      expect(tubes).toHaveLength(count);
      expect(Math.max(...tubes.map(({ x, y, r }) => Math.hypot(x, y) + r))).toBeLessThanOrEqual(1);
      const circles = [...tubes, ...rods];
      let closest = Infinity;
      circles.forEach((a, index) => {
        for (let other = index + 1; other < circles.length; other += 1) {
          const b = circles[other]!;
          closest = Math.min(closest, Math.hypot(a.x - b.x, a.y - b.y) - a.r - b.r);
        }
      });
      expect(closest).toBeGreaterThanOrEqual(-1e-9);
    }),
    { numRuns: 40 },
  );
});

test('every tube and ribbon of a cable is drawn once, fillers without a number', () => {
  fc.assert(
    fc.property(anyConstruction, (construction) => {
      const { tubes, ribbons } = crossSection(construction);
      const units = fiberUnits(construction);
      const drawn =
        ribbons.length > 0 ? ribbons.map((one) => one.unit) : tubes.flatMap((one) => one.tube ?? []);
      expect(drawn).toEqual(units.map((unit) => unit.unit));
      if ('strands' in construction)
        expect(tubes.map((one) => one.tube === null)).toEqual(
          construction.strands.map((strand) => strand.kind === 'filler'),
        );
      for (const { x, y, width, height } of ribbons)
        for (const [cx, cy] of [
          [x, y],
          [x + width, y + height],
        ])
          expect(Math.hypot(cx!, cy!)).toBeLessThanOrEqual(1);
    }),
  );
});

test('the first tube lies at the top and the next one clockwise', () => {
  const [first, second] = crossSection(stranded(8)).tubes;
  expect(first!.y).toBeLessThan(0);
  expect(first!.x).toBeCloseTo(0);
  expect(second!.x).toBeGreaterThan(0);
});
