import { attempt, cableA, cableB, cables, limits, measuredLoss, plan, spliceAt } from '../../../test/example';
import type { Attempt, Fact } from '../../facts';
import { buildLedger } from '../../splice/record/ledger';
import { JudgeKeeper } from '../keeper';
import { adviceLine, adviceShort, flipWords } from '../words';
import { adviceAt, type AdviceAt, type SpliceAdvice } from './adviceAt';
import { effectOf } from './effect';

const good = { cleaveLeft: 0.5, cleaveRight: 0.5 };

/** What is advised at splice `index` of the example after these facts. */
function advised(
  index: number,
  facts: readonly Fact[],
  more: Partial<Pick<AdviceAt, 'redosLeft' | 'minutesLeft' | 'cables'>> = {},
): SpliceAdvice | null {
  const ledger = buildLedger(plan, facts, limits);
  const { tray: number, id } = spliceAt(index);
  const tray = ledger.trays[number - 1]!;
  const keeper = new JudgeKeeper({ cables: more.cables ?? cables, limits });
  keeper.take(facts);
  return adviceAt({
    ledger,
    tray,
    state: tray.splices.find(({ splice }) => splice.id === id)!,
    cables,
    record: keeper.judge.record,
    redosLeft: 4,
    minutes: 5,
    minutesLeft: null,
    ...more,
  });
}
const first = (count: number, loss: (index: number) => number) =>
  Array.from({ length: count }, (_, index) => attempt(index, loss(index), good));

test('an outlier between good ones is redone: nearly all such redos hold', () => {
  const told = advised(6, [...first(6, () => 0.02), attempt(6, 0.14, good)])!;
  expect(told.advice.choice).toBe('redo');
  expect(adviceLine(told)).toMatch(/^Redo: (9 in 10|19 in 20) come out at 0\.10 or less; slack for 4\.$/);
  expect(adviceShort(told)).toMatch(/^(9 in 10|19 in 20) hold; slack for 4\.$/);
  expect(flipWords(told.advice)).toMatch(/^Asking the owner would cost about \d+ min more of the window\./);
});

test('what holds, is open, or was allowed needs no advice', () => {
  expect(advised(0, [])).toBeNull();
  expect(advised(0, [attempt(0, 0.03, good)])).toBeNull();
});

test('a reading that holds is made again where the tray’s mean would not hold', () => {
  // Eleven of 0.05 and one of 0.09: the tray's mean is 0.053, and one good redo brings it back.
  const facts = [...first(11, () => 0.05), attempt(11, 0.09, good)];
  const told = advised(11, facts)!;
  expect(told.advice.costs.leave).toBeGreaterThan(20);
  expect(['redo', 'leave']).toContain(told.advice.choice);
  const ledger = buildLedger(plan, facts, limits);
  const tray = ledger.trays[0]!;
  const effect = effectOf(ledger, tray, tray.splices[11]!);
  expect(effect.tray.with).toBeCloseTo((11 * 0.05 + 0.09) / 12, 12);
  expect(effect.tray.without).toBeCloseTo(0.05, 12);
  expect(effect).toMatchObject({ ribbonMean: null, rank: 1, tray: { over: true, mayAverage: null } });
  // The other tray's twelve fibers may average what is left: (0.05 × 24 − 0.64) / 12.
  expect(effect.closure.mayAverage).toBeCloseTo((0.05 * 24 - 0.64) / 12, 12);
});

test('with no slack, or all tries used, the owner is asked, and that is why', () => {
  const facts = [...first(6, () => 0.02), attempt(6, 0.14, good)];
  expect(adviceLine(advised(6, facts, { redosLeft: 0 })!)).toBe(
    'Ask the owner: there is no slack for another try.',
  );
  const used = [...facts, attempt(6, 0.15, good), attempt(6, 0.13, good)];
  expect(adviceLine(advised(6, used)!)).toBe('Ask the owner: all tries are used.');
  // A minute is left, and a redo takes five.
  expect(advised(6, facts, { minutesLeft: 1 })!.advice.costs.redo).toBeUndefined();
});

test('always high between two cables whose mode fields differ: measure it first, and say why', () => {
  const mixed = new Map(cables).set(cableB.id, { ...cableB, fiberType: 'g657a2', modeField: 8.0 });
  const facts = [
    ...first(8, (index) => 0.11 + (index % 3) / 100),
    attempt(8, 0.12, good),
    attempt(8, 0.12, good),
  ];
  const told = advised(8, facts, { cables: mixed })!;
  expect(told.fieldsDiffer).toBe(true);
  expect(told.odds.holds).toBeLessThan(0.3);
  expect(told.pair).toMatchObject({ count: 9 });
  expect(adviceLine(told)).toContain('9 between these cables read 0.11 to 0.13; the mode fields differ.');
  expect(told.advice.costs.measure).toBeDefined();
});

test('what broke can’t stay', () => {
  const told = advised(0, [attempt(0, null, good)])!;
  expect(Object.keys(told.advice.costs)).toEqual(['redo']);
  expect(flipWords(told.advice)).toBe('There is nothing else to choose.');
});

test('the pair is the same from both sides', () => {
  expect(cableA.id < cableB.id).toBe(true);
  const facts = [...first(8, () => 0.09), attempt(8, 0.14, good)];
  expect(advised(8, facts)!.odds.tries).toBeGreaterThan(7);
});

test('a splice that was measured over its limit is advised on as one that failed, where the owner wants measured losses', () => {
  const wanted = { ...limits, measured: true as const };
  const facts: Fact[] = first(8, () => 0.02);
  const own = facts[3] as Attempt;
  const measured = measuredLoss(own, { fromLeft: 0.2, fromRight: 0.14 });
  const advisedBy = (under: typeof limits) => {
    const ledger = buildLedger(plan, [...facts, measured], under);
    const tray = ledger.trays[spliceAt(3).tray - 1]!;
    const keeper = new JudgeKeeper({ cables, limits: under });
    keeper.take(facts);
    const record = keeper.judge.record;
    const state = tray.splices.find(({ splice }) => splice.id === spliceAt(3).id)!;
    return adviceAt({ ledger, tray, state, cables, record, redosLeft: 4, minutes: 5, minutesLeft: null });
  };
  expect(advisedBy(limits)).toBeNull();
  const told = advisedBy(wanted)!;
  expect(told.advice.choice).toBe('redo');
  // It is over by 0.07: nearly every redo is better.
  expect(told.odds.better).toBeGreaterThan(0.9);
  expect(told.advice.costs.measure).toBeUndefined();
});
