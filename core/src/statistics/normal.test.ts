import fc from 'fast-check';
import { normalCdf, normalQuantile } from './normal';

// Abramowitz and Stegun, table 26.1.
test.each([
  [0, 0.5],
  [1, 0.841344746068543],
  [1.96, 0.97500210485178],
  [-3, 0.00134989803163],
])('Φ(%d)', (z, p) => {
  expect(normalCdf(z)).toBeCloseTo(p, 13);
});

test('the quantile is its inverse', () => {
  fc.assert(
    fc.property(fc.double({ min: -8, max: 6, noNaN: true }), (z) => {
      expect(normalQuantile(normalCdf(z))).toBeCloseTo(z, 6);
    }),
  );
  expect([normalQuantile(0), normalQuantile(1), normalQuantile(2)]).toEqual([-Infinity, Infinity, NaN]);
  expect(normalQuantile(0.975)).toBeCloseTo(1.959963984540054, 13);
});
