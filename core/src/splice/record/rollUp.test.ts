import fc from 'fast-check';
import { runningAllowance } from './allowance';
import { rollUp, sumTallies, tally, type TallyInput } from './rollUp';
import type { Mark } from './verdict';

const unread = (id: string, mark: Mark): TallyInput => ({
  splice: { id, left: [id], unread: true },
  verdict: { mark },
  readings: mark === 'open' ? [] : [{ loss: null }],
  measured: [],
});
const judged = (id: string, mark: Mark, ...losses: number[]): TallyInput => ({
  splice: { id, left: [id] },
  verdict: { mark },
  readings: losses.map((loss) => ({ loss })),
  measured: [],
});
const held = (losses: readonly number[]) => losses.map((loss, index) => judged(String(index), 'holds', loss));
const over = (inputs: readonly TallyInput[], limit = 0.05) =>
  rollUp(
    tally(inputs),
    Float64Array.from(inputs.flatMap((one) => one.readings.flatMap(({ loss }) => loss ?? []))).sort(),
    limit,
  );

// NIST StRD, univariate summary statistics: NumAcc1 (certified mean 10000002) and NumAcc2 (certified mean 1.2).
test('means agree with NIST StRD to their certified digits', () => {
  expect(over(held([10000001, 10000003, 10000002])).mean).toBe(10000002);
  const numAcc2 = [1.2, ...Array.from({ length: 1000 }, (_, index) => (index % 2 === 0 ? 1.1 : 1.3))];
  expect(over(held(numAcc2)).mean).toBeCloseTo(1.2, 13);
});

test('counts marks, and takes what is in the tray into the mean', () => {
  const inputs: TallyInput[] = [
    judged('a', 'holds', 0.02),
    judged('b', 'redo', 0.2),
    judged('c', 'allowed', 0.12),
    judged('d', 'open'),
    judged('e', 'owner', 0.14),
  ];
  const result = over(inputs);
  expect(result).toMatchObject({
    count: 5,
    settled: 3,
    marks: { open: 1, holds: 1, redo: 1, owner: 1, allowed: 1 },
    worst: { loss: 0.2, spliceId: 'b' },
    meanOver: true,
  });
  expect(result.mean).toBeCloseTo(0.12, 12);
  expect(result.median).toBeCloseTo(0.13, 12);
  // 0.05 · 5 − (0.02 + 0.12 + 0.14), by hand, over the two still to be spliced.
  expect(result.allowance.remaining).toBe(2);
  expect(result.allowance.mayAverage).toBeCloseTo(-0.015, 12);
});

test('nothing spliced: no mean, and all may average the limit', () => {
  const result = over([judged('a', 'open')]);
  expect(result).toMatchObject({ mean: null, median: null, p95: null, worst: null, meanOver: false });
  expect(result.allowance.mayAverage).toBeCloseTo(0.05, 12);
});

test('splices that read exactly what the allowance says bring the mean to its limit', () => {
  fc.assert(
    fc.property(
      fc.array(fc.double({ min: 0, max: 0.2, noNaN: true }), { maxLength: 40 }),
      fc.integer({ min: 1, max: 40 }),
      fc.double({ min: 0.01, max: 0.3, noNaN: true }),
      (settled, remaining, limit) => {
        const sum = settled.reduce((total, loss) => total + loss, 0);
        const planned = settled.length + remaining;
        const { mayAverage } = runningAllowance(limit, settled.length, sum, remaining);
        expect((sum + remaining * mayAverage!) / planned).toBeCloseTo(limit, 10);
      },
    ),
  );
});

test('joints without a loss, mechanical ones done or to do and ones that broke, are in no mean and give no allowance', () => {
  const read = [judged('a', 'holds', 0.06), judged('b', 'open')];
  const others = [
    unread('c', 'holds'),
    unread('d', 'open'),
    { ...judged('e', 'redo'), readings: [{ loss: null }], measured: [] },
  ];
  // 0.05 · 3 − 0.06 over the two that will be read: b, and e once more.
  expect(over([...read, ...others.slice(2)]).allowance.mayAverage).toBeCloseTo(0.045, 12);
  const result = over([...read, ...others]);
  expect(result.mean).toBeCloseTo(0.06, 12);
  expect(result.allowance).toMatchObject({ remaining: 2 });
  expect(result.allowance.mayAverage).toBeCloseTo(0.045, 12);
});

test('nothing left: no allowance', () => {
  expect(runningAllowance(0.05, 3, 0.1, 0).mayAverage).toBeNull();
});

test('trays add up to the closure', () => {
  const trays = [held([0.01, 0.02]), held([0.05]), []].map((tray) => tally(tray));
  expect(sumTallies(trays)).toMatchObject({ read: 3, settledRead: 3, worst: { loss: 0.05 } });
  expect(sumTallies(trays).loss).toBeCloseTo(0.08, 12);
});
