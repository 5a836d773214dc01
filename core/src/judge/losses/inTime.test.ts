import { attempt, closure, id, limits, plan, timeOf } from '../../../test/example';
import { factVersion, type Fact } from '../../facts';
import { draws } from '../../machine/draws';
import { rankSumChance } from '../../statistics/rankSum';
import { buildLedger } from '../../splice/record/ledger';
import { calibrationRule, inTime, timeline } from './inTime';

const gear = { machine: { id: id(71), label: 'Single 1' } };
const losses = (list: readonly number[], minute = 0) =>
  list.map((loss, index) => attempt(index % 24, loss, { minute: minute + index, gear, by: 'Iara' }));
const calibratedAt = (minute: number, passed = true): Fact => ({
  v: factVersion('calibration'),
  id: id(800 + minute),
  kind: 'calibration',
  madeAt: timeOf(minute),
  by: null,
  device: null,
  subject: { on: 'gear', closureId: closure.id, gearId: gear.machine.id, label: 'Single 1' },
  body: { passed, conditions: { temperature: 12, humidity: null, pressure: null }, note: '' },
});
const chart = (facts: readonly Fact[], wanted: () => boolean = () => true) =>
  inTime(timeline([{ closureId: closure.id, facts, ledger: buildLedger(plan, facts, limits) }]), wanted);

test('every try stands once in the order of time, those that were made again too, with what happened between', () => {
  const facts = [...losses([0.02, 0.14]), attempt(1, 0.03, { minute: 9 }), calibratedAt(5)];
  const { points, marks } = chart(facts.reverse());
  expect(points.map(({ loss }) => Math.round(loss * 100) / 100)).toEqual([0.02, 0.14, 0.03]);
  expect(marks.map(({ before, event }) => [before, event.what])).toEqual([[2, 'calibrated']]);
  expect(points[0]).toMatchObject({ person: 'Iara', machine: id(71), kind: 'single' });
  expect(chart(facts, () => false).points).toEqual([]);
});

// By hand, on the fourth root of loss + 0.005: levels 0.4 and 0.5 in turn have the middle 0.45 and moving ranges of 0.1.
test('middle and deviation are those of a chart of single values', () => {
  const of = (level: number) => level ** 4 - 0.005;
  const { limits: drawn, points } = chart(losses([0.4, 0.5, 0.4, 0.5, 0.4, 0.5].map(of)));
  expect(drawn[0]!.middle).toBeCloseTo(of(0.45), 9);
  expect(drawn[0]!.upper).toBeCloseTo(of(0.45 + (3 * 0.1) / 1.128), 9);
  expect(points[1]!.z).toBeCloseTo((0.05 / 0.1) * 1.128, 9);
});

test('eight in a row on one side are marked, and one far out', () => {
  const low = Array.from({ length: 20 }, (_, index) => (index % 2 === 0 ? 0.01 : 0.03));
  const high = Array.from({ length: 9 }, (_, index) => (index % 2 === 0 ? 0.04 : 0.06));
  const { points } = chart(losses([...low, ...high]));
  expect(points.slice(0, 20).flatMap(({ rules }) => rules)).not.toContain('beyond-3');
  expect(points.at(-1)!.rules).toContain('eight');
  const out = chart(losses([...low, 0.9]));
  expect(out.points.at(-1)!.rules).toContain('beyond-3');
});

test('all the same is no chart: nothing is marked', () => {
  const { points } = chart(losses([0.02, 0.02, 0.02, 0.02]));
  expect(points.every(({ rules, z }) => rules.length === 0 && z === 0)).toBe(true);
});

describe('after a calibration', () => {
  const before = [0.05, 0.06, 0.07, 0.08, 0.09, 0.1, 0.11, 0.12];
  const after = [0.01, 0.02, 0.03, 0.04, 0.005, 0.015, 0.025, 0.035];

  test('it is better where losses sank, worse where they rose, and by chance what chance does', () => {
    const told = (one: readonly number[], other: readonly number[]) =>
      chart([...losses(one), calibratedAt(20), ...losses(other, 21)]).calibrations;
    expect(told(before, after)[0]).toMatchObject({
      says: 'better',
      before: { count: 8 },
      after: { count: 8 },
    });
    expect(told(after, before)[0]!.says).toBe('worse');
    expect(told(before, [...before].reverse())[0]!.says).toBe('no-difference');
    // No rank of one is above one of the other: by counting 2 of C(16, 8) = 12870.
    expect(rankSumChance(8, 8, 36) * 2).toBeCloseTo(2 / 12870, 12);
    expect(told(before, after)[0]!.chance).toBeLessThan(0.002);
  });

  // By the rule's own word 1 in 20; with readings in steps of 0.01 a little less is to be expected, and 600 nights say it to ± 1.8 points.
  test('a calibration that does nothing is called one that did in about 1 of 20', () => {
    let called = 0;
    const nights = 600;
    for (let night = 0; night < nights; night += 1) {
      const own = draws(night, 'calibration that does nothing');
      const good = () => Math.round(-2.5 * Math.log(1 - own.uniform())) / 100;
      const list = Array.from({ length: 24 }, good);
      const { calibrations } = chart([
        ...losses(list.slice(0, 12)),
        calibratedAt(20),
        ...losses(list.slice(12), 21),
      ]);
      if (calibrations[0]!.says !== 'no-difference') called += 1;
    }
    expect(called / nights).toBeGreaterThan(0.02);
    expect(called / nights).toBeLessThan(calibrationRule.errorRate + 0.018);
  });

  test('while few are made it is not told, and one that failed is none', () => {
    expect(
      chart([...losses(before), calibratedAt(20), ...losses(after.slice(0, 7), 21)]).calibrations,
    ).toEqual([]);
    expect(chart([...losses(before), calibratedAt(20, false), ...losses(after, 21)]).calibrations).toEqual(
      [],
    );
  });

  test('only what lies between two calibrations is compared', () => {
    const facts = [
      ...losses(after),
      calibratedAt(20),
      ...losses(before, 21),
      calibratedAt(40),
      ...losses(after, 41),
    ];
    expect(chart(facts).calibrations.map(({ says }) => says)).toEqual(['worse', 'better']);
  });
});
