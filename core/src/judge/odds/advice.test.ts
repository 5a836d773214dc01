import fc from 'fast-check';
import { draws } from '../../machine/draws';
import { advise, meanOverChance, type Choice, type Situation } from './advice';
import { usualWeights } from '../../limits/weights';
import { costsOf, type Costs } from './costs';

const bad: Situation = {
  bad: true,
  mustGo: false,
  holds: [0.9, 0.7, 0.5],
  redosLeft: 4,
  triesLeft: 2,
  minutes: 6,
  minutesLeft: 120,
  meanOver: { stays: 0, redone: 0 },
  measuredHolds: null,
};
const usual = costsOf(usualWeights);

test('a redo that nearly always holds is done, one that hardly ever does is left to the owner', () => {
  expect(advise(bad, usual).choice).toBe('redo');
  expect(advise({ ...bad, holds: [0.05, 0.03, 0.02] }, usual).choice).toBe('owner');
  expect(advise({ ...bad, bad: false }, usual).choice).toBe('leave');
});

test('what turns it: no fiber, no time, no tries, weights', () => {
  for (const more of [{ redosLeft: 0 }, { minutesLeft: 5 }, { triesLeft: 0 }])
    expect(advise({ ...bad, ...more }, usual).costs.redo).toBeUndefined();
  const half: Situation = { ...bad, holds: [0.35, 0.2, 0.1], redosLeft: 1 };
  expect(advise(half, usual).choice).toBe('owner');
  expect(advise(half, costsOf({ time: 'plenty', over: 'usual', slack: 'plenty' })).choice).toBe('redo');
  expect(advise(bad, costsOf({ time: 'short', over: 'tolerable', slack: 'short' })).choice).not.toBe('redo');
});

test('a reading that holds is made again only where the tray’s mean would not hold', () => {
  const holds = { ...bad, bad: false };
  expect(advise({ ...holds, meanOver: { stays: 0.9, redone: 0.1 } }, usual).choice).toBe('redo');
  expect(advise({ ...holds, meanOver: { stays: 0.1, redone: 0.02 } }, usual).choice).toBe('leave');
});

test('what is broken can’t stay, and with nothing left somebody has to be asked', () => {
  expect(advise({ ...bad, mustGo: true, holds: [0.01, 0.01, 0.01] }, usual).choice).toBe('redo');
  expect(advise({ ...bad, mustGo: true, redosLeft: 0 }, usual)).toMatchObject({
    choice: 'owner',
    flipsAt: null,
  });
});

test('measured first where an estimate can’t be trusted', () => {
  const sure = { ...bad, holds: [0.1, 0.1, 0.1] as const, measuredHolds: 0.8 };
  expect(advise(sure, usual).choice).toBe('measure');
  expect(advise({ ...sure, measuredHolds: 0.05 }, usual).choice).not.toBe('measure');
});

/** In steps of a twentieth: 0 and 1 are among them, and none of the others is so rare that 1500 games may miss it. */
const chance = fc.integer({ min: 0, max: 20 }).map((twentieths) => twentieths / 20);
const situations = fc.record({
  bad: fc.boolean(),
  mustGo: fc.boolean(),
  holds: fc.tuple(chance, chance, chance),
  redosLeft: fc.option(fc.integer({ min: 0, max: 5 })),
  triesLeft: fc.integer({ min: 0, max: 4 }),
  minutes: fc.double({ min: 1, max: 30, noNaN: true }),
  minutesLeft: fc.option(fc.double({ min: 0, max: 200, noNaN: true })),
  meanOver: fc.record({ stays: chance, redone: chance }),
  measuredHolds: fc.option(chance),
}) satisfies fc.Arbitrary<Situation>;
const weights = fc.record({
  time: fc.constantFrom('plenty' as const, 'usual' as const, 'short' as const),
  over: fc.constantFrom('tolerable' as const, 'usual' as const, 'never' as const),
  slack: fc.constantFrom('plenty' as const, 'usual' as const, 'short' as const),
});

/** Plays a choice out: what it costs this once. After a redo that failed whatever is cheapest in expectation is done, as the advice assumes. */
function played(
  at: Situation,
  costs: Costs,
  choice: Choice,
  own: ReturnType<typeof draws>,
  done = 0,
): number {
  const mean = (share: number) => (own.chance(share) ? costs.meanOver : 0);
  if (choice === 'leave') return (at.bad || done > 0 ? costs.over : 0) + mean(at.meanOver.stays);
  if (choice === 'owner') return costs.owner + mean(at.meanOver.stays);
  if (choice === 'measure') {
    if (own.chance(at.measuredHolds!)) return costs.measure + mean(at.meanOver.stays);
    const rest = { ...at, measuredHolds: null };
    return costs.measure + played(rest, costs, advise(rest, costs).choice, own);
  }
  const last = at.redosLeft !== null && at.redosLeft === done + 1;
  const itself = at.minutes * costs.minute + costs.sleeve + (last ? costs.lastSlack : costs.slack);
  if (own.chance(at.holds[done]!)) return itself + mean(at.meanOver.redone);
  const left = {
    ...at,
    bad: true,
    mustGo: false,
    measuredHolds: null,
    holds: [at.holds[done + 1] ?? 0, at.holds[done + 2] ?? 0, 0] as const,
    redosLeft: at.redosLeft === null ? null : at.redosLeft - done - 1,
    triesLeft: done < 2 ? at.triesLeft - done - 1 : 0,
    minutesLeft: at.minutesLeft === null ? null : at.minutesLeft - at.minutes * (done + 1),
  };
  const next = advise(left, costs).choice;
  return (
    itself +
    (next === 'redo' ? played(at, costs, 'redo', own, done + 1) : played(left, costs, next, own, done + 1))
  );
}

test('both choices played out many times cost what is said of them', () => {
  const own = draws(12, 'played');
  fc.assert(
    fc.property(situations, weights, (at, words) => {
      const costs = costsOf(words);
      const { costs: said } = advise(at, costs);
      for (const choice of Object.keys(said) as Choice[]) {
        // With nothing left it is the owner's; that is said, not played.
        if (at.mustGo && choice === 'owner') continue;
        let [sum, square] = [0, 0];
        const times = 1500;
        for (let n = 0; n < times; n += 1) {
          const cost = played(at, costs, choice, own);
          sum += cost;
          square += cost * cost;
        }
        const mean = sum / times;
        const error = Math.sqrt(Math.max(0, square / times - mean * mean) / times);
        expect(Math.abs(mean - said[choice]!)).toBeLessThan(5 * error + 1e-6);
      }
    }),
    { numRuns: 60, seed: 7 },
  );
});

test('where it flips both cost the same: a little likelier, and it is the redo', () => {
  fc.assert(
    fc.property(situations, weights, (at, words) => {
      const costs = costsOf(words);
      const { flipsAt, choice } = advise(at, costs);
      if (flipsAt === null || at.holds[0] === 0) return;
      expect(choice === 'redo').toBe(at.holds[0] > flipsAt || Math.abs(at.holds[0] - flipsAt) < 1e-9);
    }),
  );
});

test('the chance that a mean ends over its limit', () => {
  // Nothing to come: it is or it is not.
  expect(meanOverChance(0.05, { sum: 1.2, fibers: 24 }, 0, 0.02)).toBe(0);
  expect(meanOverChance(0.05, { sum: 1.21, fibers: 24 }, 0, 0.02)).toBe(1);
  // As far over as under: half.
  expect(meanOverChance(0.05, { sum: 0.6, fibers: 12 }, 12, 0.05)).toBeCloseTo(0.5, 12);
  // Played out with exponential losses.
  const own = draws(3, 'mean');
  let over = 0;
  for (let n = 0; n < 20_000; n += 1) {
    let sum = 0.5;
    for (let fiber = 0; fiber < 16; fiber += 1) sum += -0.04 * Math.log(1 - own.uniform());
    if (sum / 24 > 0.05) over += 1;
  }
  expect(Math.abs(meanOverChance(0.05, { sum: 0.5, fibers: 8 }, 16, 0.04) - over / 20_000)).toBeLessThan(
    0.03,
  );
});
