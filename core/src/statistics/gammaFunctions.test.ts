import fc from 'fast-check';
import { jStat } from 'jstat';
import { lnGamma, regularizedBeta, regularizedGamma } from './gammaFunctions';

test.each([
  [1, 0],
  [2, 0],
  // Γ(½) = √π; Γ(6) = 5!
  [0.5, Math.log(Math.PI) / 2],
  [6, Math.log(120)],
  // Abramowitz and Stegun, table 6.1: Γ(1.5) = 0.88622 69255.
  [1.5, -0.1207822376352452],
  [171, 706.5730622457874],
])('ln Γ(%d)', (x, value) => expect(lnGamma(x)).toBeCloseTo(value, 11));

test('the incomplete beta function is a sum of binomial chances (Abramowitz and Stegun 26.5.24)', () => {
  const binomial = (n: number, k: number) => {
    let ways = 1;
    for (let at = 1; at <= k; at += 1) ways = (ways * (n - k + at)) / at;
    return ways;
  };
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 30 }).chain((n) => fc.tuple(fc.constant(n), fc.integer({ min: 1, max: n }))),
      fc.double({ min: 0.001, max: 0.999, noNaN: true }),
      ([n, k], p) => {
        let sum = 0;
        for (let j = k; j <= n; j += 1) sum += binomial(n, j) * p ** j * (1 - p) ** (n - j);
        expect(regularizedBeta(p, k, n - k + 1)).toBeCloseTo(sum, 11);
      },
    ),
  );
});

test('both agree with a library from the registry', () => {
  const shape = fc.double({ min: 0.05, max: 80, noNaN: true });
  fc.assert(
    fc.property(shape, shape, fc.double({ min: 0.001, max: 0.999, noNaN: true }), (a, b, x) => {
      expect(regularizedBeta(x, a, b)).toBeCloseTo(jStat.ibeta(x, a, b), 6);
      expect(regularizedGamma(a, b)).toBeCloseTo(jStat.lowRegGamma(a, b), 8);
    }),
    { numRuns: 500 },
  );
});

test('chi-square points of the printed tables', () => {
  // 95 % points: 3.841 (1), 18.307 (10), 124.342 (100 degrees of freedom).
  for (const [degrees, point] of [
    [1, 3.841],
    [10, 18.307],
    [100, 124.342],
  ] as const)
    expect(regularizedGamma(degrees / 2, point / 2)).toBeCloseTo(0.95, 4);
});

test('ends and nonsense', () => {
  expect([regularizedBeta(0, 2, 3), regularizedBeta(1, 2, 3), regularizedBeta(0.5, 2, 3)]).toEqual([
    0,
    1,
    expect.closeTo(0.6875, 13),
  ]);
  expect([regularizedBeta(0.5, 0, 3), regularizedGamma(-1, 2), lnGamma(0)]).toEqual([NaN, NaN, NaN]);
});
