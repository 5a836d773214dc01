import fc from 'fast-check';
import { exactExp } from './exactExp';
import { exactLog } from './exactLog';

test('is the exponential, to the last place or the one before it', () => {
  fc.assert(
    fc.property(fc.double({ min: -700, max: 709, noNaN: true }), (x) => {
      const [own, other] = [exactExp(x), Math.exp(x)];
      expect(Math.abs(own - other)).toBeLessThanOrEqual(2 ** -52 * other * 1.5);
    }),
    { numRuns: 5000 },
  );
});

// Digits from the handbook of Abramowitz and Stegun, table 4.4 and section 4.2.
test.each([
  [1, 2.718281828459045],
  [0, 1],
  [-1, 0.36787944117144233],
  [10, 22026.465794806718],
  [0.5, 1.6487212707001282],
])('exp %d', (x, y) => expect(Math.abs(exactExp(x) / y - 1)).toBeLessThanOrEqual(2 ** -52));

test('it is the inverse of the logarithm', () => {
  fc.assert(
    fc.property(fc.double({ min: -600, max: 600, noNaN: true }), (x) => {
      expect(exactLog(exactExp(x))).toBeCloseTo(x, 10);
    }),
  );
});

test('beyond what a number holds', () => {
  expect([exactExp(710), exactExp(-746), exactExp(NaN), exactExp(Infinity), exactExp(-Infinity)]).toEqual([
    Infinity,
    0,
    NaN,
    Infinity,
    0,
  ]);
});
