import fc from 'fast-check';
import { exactLog } from './exactLog';

test('is the logarithm, to the last place or the one before it', () => {
  fc.assert(
    fc.property(fc.double({ min: Number.MIN_VALUE, max: Number.MAX_VALUE, noNaN: true }), (x) => {
      const [own, other] = [exactLog(x), Math.log(x)];
      expect(Math.abs(own - other)).toBeLessThanOrEqual(
        2 ** -52 * Math.max(Math.abs(other), 2 ** -1022) * 1.5,
      );
    }),
    { numRuns: 5000 },
  );
});

// Digits from the handbook of Abramowitz and Stegun, table 4.2 and section 4.1.
test.each([
  [2, 0.6931471805599453],
  [10, 2.302585092994046],
  [1.5, 0.4054651081081644],
  [0.5, -0.6931471805599453],
  [1, 0],
])('ln %d', (x, ln) => expect(exactLog(x)).toBe(ln));

test('what has no logarithm', () => {
  expect([exactLog(0), exactLog(-1), exactLog(NaN), exactLog(Infinity)]).toEqual([
    -Infinity,
    NaN,
    NaN,
    Infinity,
  ]);
});
