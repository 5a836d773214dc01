import fc from 'fast-check';
import { limits } from '../../test/example';
import { factVersion, type Fact } from '../facts';
import { JudgeKeeper } from './keeper';

const id = (number: number) => `01962d00-0000-7000-8000-${String(number).padStart(12, '0')}`;
const closureId = id(900);
const context = { limits, cables: new Map() };
const timeOf = (minute: number) => new Date(Date.UTC(2026, 3, 15, 1, minute)).toISOString();
const start = (number: number, minute: number) => ({
  id: id(number),
  madeAt: timeOf(minute),
  by: 'Iara',
  device: null,
});
const end = (cable: number, fiber: number) => [
  { cableId: id(cable), from: fiber, to: fiber, side: 'low' as const },
];
const gear = { machine: { id: id(1), label: 'Single 1' } };

function attempt(number: number, minute: number, fiber: number, loss: number): Fact {
  return {
    ...start(number, minute),
    v: factVersion('attempt'),
    kind: 'attempt',
    subject: { on: 'splice', closureId, left: end(800, fiber), right: end(801, fiber) },
    body: {
      source: 'hand',
      simulated: true,
      gear,
      readings: [{ loss, cleaveLeft: 0.5, cleaveRight: 0.4 }],
      proofTestFailed: false,
      note: '',
    },
  };
}
function takenBack(number: number, minute: number, fiber: number, about: number): Fact {
  return {
    ...start(number, minute),
    v: factVersion('correction'),
    kind: 'correction',
    subject: { on: 'splice', closureId, left: end(800, fiber), right: end(801, fiber) },
    body: { attemptId: id(about), result: null, because: 'taken-back', reason: '' },
  } as unknown as Fact;
}
function calibration(number: number, minute: number, temperature: number): Fact {
  return {
    ...start(number, minute),
    v: factVersion('calibration'),
    kind: 'calibration',
    subject: { on: 'gear', closureId, gearId: id(1), label: 'Single 1' },
    body: { passed: true, conditions: { temperature, humidity: 60, pressure: 96 }, note: '' },
  };
}
function colder(number: number, minute: number): Fact {
  return {
    ...start(number, minute),
    v: factVersion('weather'),
    kind: 'weather',
    subject: { on: 'gear', closureId, gearId: id(1), label: 'Single 1' },
    body: { conditions: { temperature: 8, humidity: null, pressure: null }, note: '' },
  };
}
function answered(number: number, minute: number, rule: string): Fact {
  return {
    ...start(number, minute),
    v: factVersion('pattern-answer'),
    kind: 'pattern-answer',
    subject: { on: 'closure', closureId },
    body: { rule, about: 'temperature', machine: id(1), answer: 'dismissed', note: 'It is warm in the van.' },
  };
}

const night: readonly Fact[] = [
  calibration(1, 0, 20),
  ...Array.from({ length: 12 }, (_, at) => attempt(10 + at, 3 + 3 * at, at + 1, at === 5 ? 0.14 : 0.02)),
  attempt(40, 19, 6, 0.03),
  takenBack(41, 25, 8, 17),
  colder(42, 38),
  attempt(43, 41, 13, 0.05),
];

const told = (keeper: JudgeKeeper) =>
  JSON.stringify([[...keeper.judge.record.first], keeper.judge.lastNights()]);

test('what it says depends on the set of facts, not on how they came', () => {
  const whole = new JudgeKeeper(context);
  whole.take(night);
  expect(whole.judge.lastNights()[0]!.said).toMatchObject({
    strength: { rule: 'conditions', about: 'temperature' },
  });
  fc.assert(
    fc.property(
      fc.shuffledSubarray([...night], { minLength: night.length }),
      fc.array(fc.integer({ min: 1, max: 5 })),
      (order, groups) => {
        const keeper = new JudgeKeeper(context);
        let at = 0;
        for (const size of [...groups, night.length]) {
          keeper.take(order.slice(at, at + size));
          // Some come twice.
          keeper.take(order.slice(0, at));
          at += size;
        }
        expect(told(keeper)).toBe(told(whole));
      },
    ),
  );
});

test('one after the other as they are made is the same as all at once', () => {
  const whole = new JudgeKeeper(context);
  whole.take(night);
  const keeper = new JudgeKeeper(context);
  for (const fact of night) keeper.take([fact]);
  expect(told(keeper)).toBe(told(whole));
});

test('an answer makes it quiet', () => {
  const keeper = new JudgeKeeper(context);
  keeper.take([...night, answered(60, 45, 'conditions')]);
  expect(keeper.judge.lastNights()[0]!.said).toBeNull();
});
