import { attempt, limits, plan, timeOf } from '../../../test/example';
import { buildLedger } from '../../splice/record/ledger';
import { usualPace } from './estimate';
import { benchPace } from './pace';

const window = { opens: timeOf(0), closes: timeOf(120) };
const at = { tray: 1, kind: 'single' as const };

test('by the usual pace while nothing is measured', () => {
  const ledger = buildLedger(plan, [], limits);
  // 12 on a tray, 24 in all: hands 150 s, the heater alongside, its 40 s at the end.
  expect(benchPace(ledger, [], at, usualPace, timeOf(10), window)).toEqual({
    anHour: null,
    people: 1,
    tray: 12 * 150 + 40,
    closure: 24 * 150 + 40,
    spare: 110 * 60 - (24 * 150 + 40),
  });
});

test('by this crew’s own once it is', () => {
  const facts = Array.from({ length: 10 }, (_, index) => attempt(index, 0.02, { minute: 10 + index * 3 }));
  const pace = benchPace(buildLedger(plan, facts, limits), facts, at, usualPace, timeOf(40), window);
  expect(pace).toEqual({
    anHour: 20,
    people: 1,
    tray: 2 * 180,
    closure: 14 * 180,
    spare: 80 * 60 - 14 * 180,
  });
});

test('two at a closure share it; a tray is shared by those who are on it', () => {
  const facts = [0, 1].flatMap((person) =>
    Array.from({ length: 10 }, (_, index) =>
      attempt(person * 12 + index, 0.02, { minute: 10 + index * 3, by: `Person ${person}` }),
    ),
  );
  const ledger = buildLedger(plan, facts, limits);
  expect(benchPace(ledger, facts, at, usualPace, timeOf(40), window)).toEqual({
    anHour: 40,
    people: 2,
    tray: 2 * 180,
    closure: (4 * 180) / 2,
    spare: 80 * 60 - 360,
  });
});

test('by the heater of the machine at hand', () => {
  const ledger = buildLedger(plan, [], limits);
  const slow = { heaters: 1, seconds: { 'single-40': 100, 'single-60': 300, ribbon: 60, connector: 20 } };
  const tray = (sleeveLength: 40 | 60) =>
    benchPace(ledger, [], at, usualPace, timeOf(10), window, { heating: slow, sleeveLength }).tray;
  expect([tray(40), tray(60)]).toEqual([12 * 150 + 100, 150 + 12 * 300]);
});

test('a window that is over, to come, or not there leaves nothing to spare', () => {
  const ledger = buildLedger(plan, [], limits);
  for (const [now, own] of [
    [timeOf(-1), window],
    [timeOf(120), window],
    [timeOf(10), null],
  ] as const)
    expect(benchPace(ledger, [], at, usualPace, now, own).spare).toBeNull();
  expect(benchPace(ledger, [], at, usualPace, timeOf(119), window).spare).toBeLessThan(0);
});
