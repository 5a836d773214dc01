import fc from 'fast-check';
import { id } from '../../test/example';
import { countOfRuns, endsOfRuns, fiberRunSchema, runsOf, spliceId, type FiberEnd } from './fiberEnd';

const anyEnd: fc.Arbitrary<FiberEnd> = fc.record({
  cableId: fc.constantFrom(id(1), id(2)),
  fiber: fc.integer({ min: 1, max: 30 }),
  side: fc.constantFrom('end' as const, 'low' as const, 'high' as const),
});
/** Pairs in which no end is named twice. */
const anyPairs = fc
  .uniqueArray(anyEnd, {
    minLength: 2,
    maxLength: 24,
    selector: (end) => `${end.cableId}.${end.fiber}.${end.side}`,
  })
  .map((ends) => {
    const half = Math.floor(ends.length / 2);
    return ends.slice(0, half).map((left, index) => [left, ends[half + index]!] as const);
  });
const sides = (pairs: readonly (readonly [FiberEnd, FiberEnd])[]) =>
  [pairs.map(([left]) => left), pairs.map(([, right]) => right)] as const;
const idOf = (pairs: readonly (readonly [FiberEnd, FiberEnd])[]) => spliceId(...sides(pairs));

const run = (cable: number, from: number, to: number) =>
  endsOfRuns([{ cableId: id(cable), from, to, side: 'end' }]);

test('runs give back the ends they were made of, in their order', () =>
  fc.assert(
    fc.property(fc.array(anyEnd, { maxLength: 40 }), (ends) => {
      expect(endsOfRuns(runsOf(ends))).toEqual(ends);
      expect(countOfRuns(runsOf(ends))).toBe(ends.length);
      for (const one of runsOf(ends)) expect(fiberRunSchema.parse(one)).toEqual(one);
    }),
  ));

test('a ribbon is one run, up or down', () => {
  expect(runsOf(run(1, 13, 24))).toEqual([{ cableId: id(1), from: 13, to: 24, side: 'end' }]);
  expect(runsOf(run(1, 24, 13))).toEqual([{ cableId: id(1), from: 24, to: 13, side: 'end' }]);
});

test('the same pairs are the same splice, whichever side and whichever pair is named first', () =>
  fc.assert(
    fc.property(
      anyPairs.chain((pairs) =>
        fc.tuple(fc.constant(pairs), fc.shuffledSubarray(pairs, { minLength: pairs.length })),
      ),
      ([pairs, shuffled]) => {
        expect(idOf(shuffled)).toBe(idOf(pairs));
        expect(idOf(shuffled.map(([left, right]) => [right, left] as const))).toBe(idOf(pairs));
      },
    ),
  ));

test('other pairs are another splice', () =>
  fc.assert(
    fc.property(anyPairs, anyPairs, (one, other) => {
      const set = (pairs: typeof one) =>
        pairs
          .map((pair) =>
            pair
              .map((end) => JSON.stringify([end.cableId, end.fiber, end.side]))
              .sort()
              .join(),
          )
          .sort();
      expect(idOf(one) === idOf(other)).toBe(JSON.stringify(set(one)) === JSON.stringify(set(other)));
    }),
  ));

test('a ribbon has a short id; straight and reversed are two, and swapping the sides of either changes nothing', () => {
  const straight = spliceId(run(1, 1, 12), run(2, 13, 24));
  const reversed = spliceId(run(1, 1, 12), run(2, 24, 13));
  expect(straight).toBe(`${id(1)}.1-12.end~${id(2)}.13-24.end`);
  expect(reversed).toBe(`${id(1)}.1-12.end~${id(2)}.24-13.end`);
  expect(spliceId(run(2, 13, 24), run(1, 1, 12))).toBe(straight);
  expect(spliceId(run(2, 13, 24), run(1, 12, 1))).toBe(reversed);
});
