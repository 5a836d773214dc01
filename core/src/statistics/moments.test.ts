import fc from 'fast-check';
import * as simple from 'simple-statistics';
import { moments, regressionLine } from './moments';

/** NIST Statistical Reference Datasets, univariate summary statistics, with their certified values. */
describe('NIST StRD', () => {
  const alternating = (middle: number) => [
    middle,
    ...Array.from({ length: 1000 }, (_, at) => middle + (at % 2 === 0 ? -0.1 : 0.1)),
  ];
  test.each<[string, readonly number[], number, number]>([
    ['NumAcc1', [10000001, 10000003, 10000002], 10000002, 1],
    ['NumAcc2', alternating(1.2), 1.2, 0.1],
    ['NumAcc3', alternating(1000000.2), 1000000.2, 0.1],
    ['NumAcc4', alternating(10000000.2), 10000000.2, 0.1],
  ])('%s', (_, values, mean, deviation) => {
    const found = moments(values);
    expect(found.mean! / mean).toBeCloseTo(1, 14);
    // The values themselves are not exact in binary; so many digits they have.
    expect(found.deviation! / deviation).toBeCloseTo(1, 7);
  });

  test('Norris: linear regression', () => {
    // y and x
    const points = [
      [0.1, 0.2],
      [338.8, 337.4],
      [118.1, 118.2],
      [888.0, 884.6],
      [9.2, 10.1],
      [228.1, 226.5],
      [668.5, 666.3],
      [998.5, 996.3],
      [449.1, 448.6],
      [778.9, 777.0],
      [559.2, 558.2],
      [0.3, 0.4],
      [0.1, 0.6],
      [778.1, 775.5],
      [668.8, 666.9],
      [339.3, 338.0],
      [448.9, 447.5],
      [10.8, 11.6],
      [557.7, 556.0],
      [228.3, 228.1],
      [998.0, 995.8],
      [888.8, 887.6],
      [119.6, 120.2],
      [0.3, 0.3],
      [0.6, 0.3],
      [557.6, 556.8],
      [339.3, 339.1],
      [888.0, 887.2],
      [998.5, 999.0],
      [778.9, 779.0],
      [10.2, 11.1],
      [117.6, 118.3],
      [228.9, 229.2],
      [668.4, 669.1],
      [449.2, 448.9],
      [0.2, 0.5],
    ];
    const line = regressionLine(
      points.map(([, x]) => x!),
      points.map(([y]) => y!),
    )!;
    expect(line.intercept).toBeCloseTo(-0.262323073774029, 11);
    expect(line.slope).toBeCloseTo(1.00211681802045, 13);
  });
});

test('they are those of a library from the registry', () => {
  fc.assert(
    fc.property(fc.array(fc.double({ min: -1e3, max: 1e3, noNaN: true }), { minLength: 2 }), (values) => {
      const found = moments(values);
      expect(found.mean).toBeCloseTo(simple.mean(values), 9);
      expect(found.deviation).toBeCloseTo(simple.sampleStandardDeviation(values), 9);
    }),
  );
});

test('too few', () => {
  expect(moments([])).toEqual({ mean: null, deviation: null });
  expect(moments([2])).toEqual({ mean: 2, deviation: null });
  expect([regressionLine([1], [2]), regressionLine([], []), regressionLine([1, 1], [2, 3])]).toEqual([
    null,
    null,
    null,
  ]);
});
