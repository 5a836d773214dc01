import fc from 'fast-check';
import * as simple from 'simple-statistics';
import { mannKendall } from './mannKendall';
import { midranks } from './ranks';
import { rankSum, rankSumChance } from './rankSum';
import { signedRank, signedRankChance } from './signedRank';

const few = fc.array(fc.integer({ min: 0, max: 9 }), { minLength: 1, maxLength: 30 });

test('middle ranks: they add up, and equal values share one', () => {
  fc.assert(
    fc.property(few, (values) => {
      const { ranks } = midranks(values);
      expect(ranks.reduce((sum, one) => sum + one, 0)).toBe((values.length * (values.length + 1)) / 2);
      values.forEach((value, at) => expect(ranks[at]).toBe(ranks[values.indexOf(value)]));
    }),
  );
});

test('the rank sum is that of a library from the registry', () => {
  fc.assert(
    fc.property(few, few, (one, others) => {
      expect(rankSum(one, others)!.sum).toBe(simple.wilcoxonRankSum(one, others));
    }),
  );
});

// Critical values of U, two-sided 5 %, of the printed tables (Mann and Whitney 1947; Milton 1964): the largest U whose chance is at most 2.5 %.
test.each([
  [5, 5, 2],
  [8, 8, 13],
  [10, 10, 23],
  [6, 12, 14],
  [20, 20, 127],
])('rank sum of %d among %d more: U is critical at %d', (m, n, critical) => {
  const offset = (m * (m + 1)) / 2;
  expect(rankSumChance(m, n, critical + offset)).toBeLessThanOrEqual(0.025);
  expect(rankSumChance(m, n, critical + 1 + offset)).toBeGreaterThan(0.025);
});

// Critical values of the signed-rank sum, two-sided 5 % (Wilcoxon and Wilcox 1964).
test.each([
  [6, 0],
  [8, 3],
  [10, 8],
  [20, 52],
  [25, 89],
])('signed ranks of %d differences: a sum is critical at %d', (n, critical) => {
  expect(signedRankChance(n, critical)).toBeLessThanOrEqual(0.025);
  expect(signedRankChance(n, critical + 1)).toBeGreaterThan(0.025);
});

/** Every order of these values. */
function* orders(values: readonly number[]): Generator<readonly number[]> {
  if (values.length <= 1) yield values;
  for (let at = 0; at < values.length; at += 1)
    for (const rest of orders(values.toSpliced(at, 1))) yield [values[at]!, ...rest];
}

/** Mean of the squares of a statistic whose mean is 0, over all orders. */
function spreadOver(values: readonly number[], of: (order: readonly number[]) => number): number {
  let [sum, square, count] = [0, 0, 0];
  for (const order of orders(values)) {
    const value = of(order);
    sum += value;
    square += value * value;
    count += 1;
  }
  expect(sum / count).toBeCloseTo(0, 12);
  return square / count;
}

describe('where nothing is different, over every order of the same values', () => {
  test.each([[[1, 2, 3, 4, 5, 6]], [[1, 1, 2, 3, 3, 3, 7]]])('%j', (values) => {
    // Their deviates have the variance 1, whatever ties there are.
    expect(spreadOver(values, (order) => mannKendall(order).s)).toBeCloseTo(mannKendall(values).variance, 9);
    expect(spreadOver(values, (order) => rankSum(order.slice(0, 3), order.slice(3))!.z)).toBeCloseTo(1, 9);
  });

  test('signs of differences', () => {
    const sizes = [1, 2, 2, 4, 5, 5, 5];
    let square = 0;
    for (let signs = 0; signs < 2 ** 7; signs += 1)
      square += signedRank([0, ...sizes.map((size, at) => (signs & (1 << at) ? size : -size))]).z ** 2;
    expect(square / 2 ** 7).toBeCloseTo(1, 9);
  });
});

test('a trend’s chance is that of the printed table (Kendall; Gilbert 1987, table A18)', () => {
  // Ten values: S of at least 21 has a chance of 0.036. From nine that rise and pairs put in wrong order.
  let [atLeast, all] = [0, 0];
  const ways = [1];
  // Ways of n values to have so many inversions: multiply by 1 + q + … + q^(n − 1).
  for (let n = 2; n <= 10; n += 1) {
    const next = new Array<number>(ways.length + n - 1).fill(0);
    ways.forEach((count, at) => {
      for (let more = 0; more < n; more += 1) next[at + more]! += count;
    });
    ways.splice(0, ways.length, ...next);
  }
  ways.forEach((count, inversions) => {
    all += count;
    if (45 - 2 * inversions >= 21) atLeast += count;
  });
  expect(atLeast / all).toBeCloseTo(0.036, 3);
  const rising = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10];
  expect(mannKendall(rising)).toMatchObject({ s: 45, variance: 125 });
  expect(mannKendall(rising.toReversed()).z).toBeCloseTo(-mannKendall(rising).z, 12);
});

test('nothing to say', () => {
  expect(rankSum([], [1])).toBeNull();
  expect(rankSum([1, 1], [1])!.z).toBe(0);
  expect(signedRank([0, 0]).z).toBe(0);
  expect(mannKendall([3, 3, 3]).z).toBe(0);
});
