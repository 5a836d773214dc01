import fc from 'fast-check';
import { attempt, cableA, cableB, factAfter, id, limits, subjectOf } from '../../../test/example';
import { endsOfRuns, runsOf, type FiberEnd } from '../../plan/fiberEnd';
import type { SpliceFact } from '../../facts';
import { spliceHistory, spliceOrder } from './history';
import { asPlanned } from './orientation';
import type { Reading } from './reading';
import { judgeSplice } from './verdict';

const ends = (cableId: string, from: number, to: number) => endsOfRuns([{ cableId, from, to, side: 'end' }]);
const readings = (count: number): Reading[] =>
  Array.from({ length: count }, (_, index) => ({
    loss: index / 100,
    cleaveLeft: 0.5,
    cleaveRight: 1 + index / 10,
  }));
const made = (left: readonly FiberEnd[], right: readonly FiberEnd[], sidesUnknown?: true) =>
  attempt(0, 0.02, {
    subject: { ...subjectOf({ left, right }), ...(sidesUnknown ? { sidesUnknown } : {}) },
    readings: readings(left.length),
  });
const bodyOf = (fact: SpliceFact) => (fact.kind === 'attempt' ? fact.body.readings : []);

test('a reversed ribbon that is named from its other side keeps each fiber’s reading, and its angles change sides', () => {
  const [left, right] = [ends(cableA.id, 1, 12), ends(cableB.id, 12, 1)];
  const fact = made(left, right);
  // The same pairs: B 1 … 12 meets A 12 … 1.
  const swapped = { left: ends(cableB.id, 1, 12), right: ends(cableA.id, 12, 1) };
  const turned = bodyOf(asPlanned(fact, swapped));
  expect(turned.map((one) => one.loss)).toEqual([...bodyOf(fact)].reverse().map((one) => one.loss));
  expect(turned[0]).toEqual({ loss: 0.11, cleaveLeft: 2.1, cleaveRight: 0.5 });
});

test('where the fact is written as it is planned, it is the same object', () => {
  const [left, right] = [ends(cableA.id, 1, 12), ends(cableB.id, 1, 12)];
  const fact = made(left, right);
  expect(asPlanned(fact, { left, right })).toBe(fact);
});

test('of a fact whose sides are not known the angles stay where they were', () => {
  const [left, right] = [ends(cableA.id, 3, 3), ends(cableB.id, 3, 3)];
  const fact = made(left, right, true);
  expect(bodyOf(asPlanned(fact, { left: right, right: left }))).toEqual(bodyOf(fact));
});

test('turning round and back again changes nothing', () =>
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 24 }), fc.boolean(), (count, reversed) => {
      const left = ends(cableA.id, 1, count);
      const right = reversed ? ends(cableB.id, count, 1) : ends(cableB.id, 1, count);
      const fact = made(left, right);
      const other = { left: right, right: left };
      const once = asPlanned(fact, other);
      const back = asPlanned(
        { ...once, subject: { ...once.subject, left: runsOf(right), right: runsOf(left) } } as SpliceFact,
        { left, right },
      );
      expect(bodyOf(back)).toEqual(bodyOf(fact));
    }),
  ));

test('a correction counts after its attempt even where the clock that made it was hours slow', () => {
  const high = attempt(0, 0.3, { minute: 200 });
  const taken: SpliceFact = {
    ...factAfter(high),
    madeAt: '2026-04-14T20:00:00.000Z',
    kind: 'correction',
    body: { attemptId: high.id, result: null, reason: 'misread' },
  };
  const allowed: SpliceFact = {
    ...factAfter(high),
    id: id(1),
    madeAt: '2026-04-14T19:00:00.000Z',
    v: 3,
    kind: 'owner-answer',
    body: { attemptId: high.id, answer: 'allow', note: '' },
  };
  const judge = (...facts: SpliceFact[]) => judgeSplice(spliceHistory(spliceOrder(facts)), 'single', limits);
  expect(judge(taken, high).mark).toBe('open');
  expect(judge(allowed, high).mark).toBe('allowed');
  expect(spliceOrder([allowed, high]).map((fact) => fact.kind)).toEqual(['attempt', 'owner-answer']);
});
