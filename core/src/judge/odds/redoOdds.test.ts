import fc from 'fast-check';
import { redosOfJob, type ToldRedo } from '../nights/jobs';
import { halfStep, type Tried } from '../series/tried';
import { goodJoint } from './goodJoint';
import { changed, priorBelief, RecordBuilder } from './record';
import { redoOdds, type RedoAsked } from './redoOdds';

const single: RedoAsked = {
  kind: 'single',
  fibers: 1,
  pair: 'a b',
  pairTerm: 0,
  machine: 'm',
  worst: 0.14,
  failed: 1,
  lossMax: 0.1,
};
const tried = (more: Partial<Tried> = {}): Tried => ({
  attempt: 'x',
  splice: 's',
  at: 0,
  kind: 'single',
  nth: 1,
  losses: [0.02],
  left: [0.5],
  right: [0.5],
  broke: false,
  over: false,
  pair: 'a b',
  pairTerm: 0,
  machine: 'm',
  cleaver: null,
  person: null,
  ...more,
});
const recordOf = (...list: Tried[]) => {
  const record = new RecordBuilder(() => 0.1, 1);
  list.forEach((one) => record.add(one));
  return record;
};
const times = (count: number, more?: Partial<Tried>) => Array.from({ length: count }, () => tried(more));

describe('over simulated jobs with faults', () => {
  const redos = Array.from({ length: 500 }, (_, seed) => redosOfJob(seed + 1)).flat();
  const near = (said: number) => redos.filter((one) => Math.abs(one.said - said) <= 0.025);
  const share = (list: readonly ToldRedo[]) => list.filter(({ held }) => held).length / list.length;

  // Issue: of those given 90 %, 88 to 92 hold; also for 70 and 50. The interval of the share that is measured stands beside it.
  test.each([0.9, 0.7, 0.5])('of all redos given %d, so many hold', (said) => {
    const list = near(said);
    const found = share(list);
    const error = 1.96 * Math.sqrt((found * (1 - found)) / list.length);
    expect(list.length).toBeGreaterThan(200);
    expect(Math.abs(found - said)).toBeLessThan(0.02 + error);
  });

  test('they are never worse than the base rate, in any tenth of what is said', () => {
    const base = share(redos);
    const brier = (list: readonly ToldRedo[], of: (one: ToldRedo) => number) =>
      list.reduce((sum, one) => sum + (of(one) - Number(one.held)) ** 2, 0) / list.length;
    expect(brier(redos, ({ said }) => said)).toBeLessThan(0.65 * brier(redos, () => base));
    for (let tenth = 0; tenth < 10; tenth += 1) {
      const list = redos.filter(({ said }) => Math.floor(said * 10) === tenth);
      if (list.length < 150) continue;
      expect(brier(list, ({ said }) => said)).toBeLessThanOrEqual(brier(list, () => base) + 0.003);
    }
  });
});

test('while there is no record the odds are those of the prior: exponential losses, mean 0.025 dB', () => {
  const { holds, tries } = redoOdds(single, recordOf());
  // 1 − exp(−0.105 / 0.025) = 0.985, less what is bad by itself.
  expect(holds).toBeGreaterThan(0.95);
  expect(holds).toBeLessThan(0.985);
  expect(tries).toBe(0);
});

test('the chance of one fiber is the closed form I_{y/(b + y)}(k, a): with k = 1 it is 1 − (b / (b + y))^a', () => {
  const { atMost } = goodJoint(single, recordOf());
  const [a, b, y] = [40, 40 * 0.025, 0.05 + halfStep];
  expect(atMost(0.05)).toBeCloseTo(0.995 * (1 - (b / (b + y)) ** a), 10);
});

test('where the job reads higher the odds are lower, also where only this pair does', () => {
  const low = redoOdds(single, recordOf(...times(60)));
  const high = redoOdds(single, recordOf(...times(60, { losses: [0.08] })));
  const other = redoOdds(
    { ...single, pair: 'a c' },
    recordOf(...times(60), ...times(20, { losses: [0.08], pair: 'a c' })),
  );
  expect(high.better).toBeLessThan(low.better);
  expect(high.mean).toBeGreaterThan(0.05);
  expect(other.mean).toBeGreaterThan(low.mean);
  expect(other.mean).toBeLessThan(high.mean);
});

test('each failure in a row lowers them, and one splice that holds raises them again', () => {
  const record = recordOf(...times(30));
  const bad = { losses: [0.2], over: true };
  const odds = [0, 1, 2, 3].map((failed) => {
    if (failed > 0) record.add(tried({ ...bad, nth: failed }));
    return redoOdds({ ...single, failed }, record).holds;
  });
  expect(odds).toEqual(odds.toSorted((a, b) => b - a));
  expect(odds[3]).toBeLessThan(0.35);
  record.add(tried());
  expect(redoOdds({ ...single, failed: 1 }, record).holds).toBeGreaterThan(odds[3]!);
});

test('whatever is on record, chances are chances, and a lower limit never helps', () => {
  const one = fc.record({
    losses: fc.array(fc.option(fc.double({ min: 0, max: 10, noNaN: true })), { minLength: 1, maxLength: 1 }),
    broke: fc.boolean(),
    over: fc.boolean(),
    nth: fc.integer({ min: 1, max: 4 }),
    pairTerm: fc.option(fc.double({ min: 0, max: 0.5, noNaN: true })),
  });
  fc.assert(
    fc.property(fc.array(one, { maxLength: 40 }), fc.integer({ min: 0, max: 6 }), (list, failed) => {
      const record = recordOf(...list.map((more) => tried(more)));
      const odds = (lossMax: number) => redoOdds({ ...single, failed, lossMax }, record);
      for (const { holds, better, persists } of [odds(0.1), odds(0.3)])
        for (const chance of [holds, better, persists]) {
          expect(chance).toBeGreaterThanOrEqual(0);
          expect(chance).toBeLessThanOrEqual(1);
        }
      // Once more failures are explained by a looser limit they speak the more for a cause that stays.
      if (failed < 2) expect(odds(0.1).holds).toBeLessThanOrEqual(odds(0.3).holds + 1e-12);
    }),
  );
});

test('a belief is a distribution, and goes on being one', () => {
  let belief = priorBelief;
  for (let at = 0; at < 50; at += 1) belief = changed(belief);
  expect(belief.reduce((sum, one) => sum + one, 0)).toBeCloseTo(1, 12);
});
