import fc from 'fast-check';
import { attempt, factAfter, spliceAt, timeOf } from '../../../test/example';
import type { Fact } from '../../facts';
import { heaterLane, sleevesOf } from './heaterLane';

const sleeve = (name: string, second: number, seconds = 35) => ({
  spliceId: name,
  since: second * 1000,
  seconds,
});
const one = { heaters: 1, coolSeconds: 30 };

test('a sleeve is heated, cools, and is ready', () => {
  const at = (second: number) =>
    heaterLane([sleeve('a', 0)], one, second * 1000).map(({ phase, left }) => `${phase} ${left}`);
  expect(at(0)).toEqual(['heating 35']);
  expect(at(34.2)).toEqual(['heating 1']);
  expect(at(35)).toEqual(['cooling 30']);
  expect(at(64.9)).toEqual(['cooling 1']);
  expect(at(65)).toEqual(['ready 0']);
});

test('the next one waits for the heater, and not where there are two', () => {
  const two = [sleeve('a', 0), sleeve('b', 10)];
  expect(heaterLane(two, one, 12_000).map(({ phase, left }) => [phase, left])).toEqual([
    ['heating', 23],
    ['waiting', 23],
  ]);
  expect(heaterLane(two, { ...one, heaters: 2 }, 12_000).map((place) => place.phase)).toEqual([
    'heating',
    'heating',
  ]);
});

test('never more are heated than the heater takes, each for as long as its program says, none before it was ready', () => {
  fc.assert(
    fc.property(
      fc.array(fc.record({ since: fc.nat(400), seconds: fc.integer({ min: 5, max: 60 }) }), {
        minLength: 1,
        maxLength: 8,
      }),
      fc.integer({ min: 1, max: 3 }),
      (drafts, heaters) => {
        const sleeves = drafts.map(({ since, seconds }, index) => sleeve(String(index), since, seconds));
        const heated = new Map<string, number>();
        for (let second = 0; second < 1100; second += 1) {
          const lane = heaterLane(sleeves, { heaters, coolSeconds: 30 }, second * 1000);
          const hot = lane.filter((place) => place.phase === 'heating');
          expect(hot.length).toBeLessThanOrEqual(heaters);
          for (const { spliceId, since } of hot) {
            expect(second * 1000).toBeGreaterThanOrEqual(since);
            heated.set(spliceId, (heated.get(spliceId) ?? 0) + 1);
          }
        }
        for (const { spliceId, seconds } of sleeves) expect(heated.get(spliceId)).toBe(seconds);
      },
    ),
    { numRuns: 30 },
  );
});

test('what is in the lane: the last minutes’ tries with a sleeve, each splice once', () => {
  const old = attempt(0, 0.04, { minute: 10 });
  const first = attempt(1, 0.3, { minute: 25 });
  const again = attempt(1, 0.05, { minute: 28 });
  const broke = attempt(2, null, { minute: 28 });
  const wrong = attempt(3, 0.04, { minute: 29 });
  const forgotten = attempt(4, 0.04, { minute: 29, sleeveForgotten: true });
  const back: Fact = {
    ...factAfter(wrong),
    kind: 'correction',
    body: {
      attemptId: wrong.id,
      result: null,
      reason: 'mistake',
    },
  };
  const facts: Fact[] = [
    old,
    first,
    again,
    broke,
    wrong,
    forgotten,
    back,
    attempt(5, 0.03, { minute: 29, by: 'Davi' }),
  ];
  const now = Date.parse(timeOf(30));
  expect(sleevesOf(facts, now, () => true).map((one) => one.spliceId)).toEqual([
    spliceAt(1).id,
    spliceAt(5).id,
  ]);
  expect(sleevesOf(facts, now, (fact) => fact.by !== 'Davi')).toEqual([
    { spliceId: spliceAt(1).id, since: Date.parse(again.madeAt) },
  ]);
});

test('a try that was taken back leaves the sleeve of the one before in its place', () => {
  const first = attempt(1, 0.02, { minute: 27 });
  const second = attempt(1, 0.09, { minute: 29 });
  const back: Fact = {
    ...factAfter(second),
    kind: 'correction',
    body: { attemptId: second.id, result: null, because: 'taken-back', note: '' },
  } as unknown as Fact;
  const now = Date.parse(timeOf(30));
  for (const facts of [
    [first, second, back],
    [back, second, first],
  ])
    expect(sleevesOf(facts, now, () => true)).toEqual([
      { spliceId: spliceAt(1).id, since: Date.parse(first.madeAt) },
    ]);
});
