import fc from 'fast-check';
import { trueLoss } from '../../machine/loss';
import { nightIds, type NightId } from './names';
import { commonSeed, practiceNight } from './plans';
import {
  act,
  actionRefusal,
  isOverNight,
  nightBegun,
  remedyNames,
  remedyOf,
  replayed,
  type NightAction,
  type NightState,
} from './play';
import { firstSaid, judgesNight, pointsOf, putRightAt, resultOf, sumOf, weights } from './score';

const five = nightIds.filter((id) => id !== 'random');
const begun = (id: NightId, seed = commonSeed) => nightBegun(practiceNight(id, seed), seed);

/** Fuses everything, does again what is over its limit, and puts nothing right. */
function carelessly(state: NightState): NightState {
  let next = state;
  while (!isOverNight(next)) {
    next = act(next, { do: 'fuse' });
    const broke = next.fused!.some((fiber) => fiber.broke);
    next = act(next, { do: broke ? 'redo' : 'accept' });
  }
  return next;
}

const actions: fc.Arbitrary<NightAction> = fc.oneof(
  fc.constantFrom<NightAction[]>(
    { do: 'fuse' },
    { do: 'accept' },
    { do: 'redo' },
    { do: 'measure' },
    { do: 'recleave', side: 'left' },
    { do: 'recleave', side: 'right' },
  ),
  fc.constantFrom(...remedyNames).map((remedy): NightAction => ({ do: 'remedy', remedy })),
  fc.constantFrom('dirt' as const, 'groove' as const).map((cause): NightAction => ({ do: 'name', cause })),
);

test('whatever is done, the same actions give the same night; nothing is counted down, and what cannot be done changes nothing', () =>
  fc.assert(
    fc.property(
      fc.constantFrom(...nightIds),
      fc.nat(1000),
      fc.array(actions, { maxLength: 40 }),
      (id, seed, list) => {
        const night = practiceNight(id, seed);
        let state = nightBegun(night, seed);
        for (const action of list) {
          const next = act(state, action);
          if (actionRefusal(state, action) !== null) expect(next).toBe(state);
          expect(next.minutes).toBeGreaterThanOrEqual(state.minutes);
          expect(next.sleeves).toBeGreaterThanOrEqual(state.sleeves);
          expect(next.slack).toBeGreaterThanOrEqual(state.slack);
          expect(next.laid).toHaveLength(next.at);
          state = next;
        }
        expect(
          replayed(
            night,
            seed,
            state.done.map(({ action }) => action),
          ),
        ).toEqual(state);
      },
    ),
    { numRuns: 60 },
  ));

test('a fiber draws the same whatever was done before it: another night with other decisions', () => {
  const one = act(begun('night-2'), { do: 'fuse' });
  const other = act(act(begun('night-2'), { do: 'remedy', remedy: 'wipe' }), { do: 'fuse' });
  expect(other.fused).toEqual(one.fused);
  // The second splice after a recleave at the first.
  const second = (state: NightState) =>
    act(act(act(state, { do: 'fuse' }), { do: 'accept' }), { do: 'fuse' });
  const plain = second(begun('night-2'));
  const again = second(act(begun('night-2'), { do: 'recleave', side: 'left' }));
  expect(again.fused![0]!.joint.offsetX).toBe(plain.fused![0]!.joint.offsetX);
  expect(plain.fused![0]!.truth).toBe(trueLoss(plain.fused![0]!.joint));
});

test.each(five)('%s: what is wrong shows from where it begins, and its remedy ends it', (id) => {
  const night = practiceNight(id, commonSeed);
  const careless = resultOf(carelessly(begun(id)));
  const remedy = remedyOf[night.cause];
  // The same hands, and the remedy as soon as it is wrong.
  let state = begun(id);
  while (!isOverNight(state)) {
    if (remedy !== null && state.at === night.from && state.tries === 0)
      state = act(state, { do: 'remedy', remedy });
    state = act(state, { do: 'fuse' });
    state = act(state, { do: state.fused!.some(({ broke }) => broke) ? 'redo' : 'accept' });
  }
  const careful = resultOf(state);
  if (remedy === null) expect(careful.mean).toBeCloseTo(careless.mean, 12);
  else {
    expect(putRightAt(state)).toBe(night.from);
    expect(careful.mean + careful.sleeves / 100).toBeLessThan(careless.mean + careless.sleeves / 100);
  }
  // A remedy before it begins ends nothing.
  const early = remedy === null ? null : act(begun(id), { do: 'remedy', remedy });
  if (early && night.from > 0) expect(early.ended).toEqual([]);
});

test.each(five)('%s: the judge finds it, names it rightly, and loses no more than who does nothing', (id) => {
  const night = practiceNight(id, commonSeed);
  const judge = judgesNight(night, commonSeed);
  expect(judge.named).toBe(night.cause);
  expect(firstSaid(judge)!.at).toBeGreaterThanOrEqual(night.from);
  const [his, careless] = [resultOf(judge), resultOf(carelessly(begun(id)))];
  // What is made again is another throw: one fiber may come out worse.
  expect(his.over).toBeLessThanOrEqual(careless.over + 1);
  expect(judgesNight(night, commonSeed)).toEqual(judge);
});

test('points: all for a night like the judge’s, and fewer for each thing that is worse', () => {
  const judge = resultOf(judgesNight(practiceNight('night-1', commonSeed), commonSeed));
  expect(sumOf(pointsOf(judge, judge))).toBe(100);
  expect(sumOf(weights)).toBe(100);
  const worse = [
    { named: false },
    { over: judge.over + 6 },
    { mean: judge.mean + 0.05 },
    { sleeves: judge.sleeves + 5 },
    { minutes: judge.minutes + 90 },
    { slack: judge.slack + 900 },
  ].map((one) => sumOf(pointsOf({ ...judge, ...one }, judge)));
  for (const points of worse) expect(points).toBeLessThan(100);
  // Better than the judge is no more than all.
  expect(sumOf(pointsOf({ ...judge, sleeves: 0, minutes: 1 }, judge))).toBe(100);
});

test('what broke cannot be left, and what is not fused cannot be redone', () => {
  let state = begun('night-3');
  expect(actionRefusal(state, { do: 'accept' })).toBe('Fuse it first.');
  while (!(state.fused?.some(({ broke }) => broke) ?? false)) {
    state = act(state, { do: 'fuse' });
    if (!state.fused!.some(({ broke }) => broke)) state = act(state, { do: 'accept' });
  }
  expect(actionRefusal(state, { do: 'accept' })).toMatch(/broke/);
  expect(actionRefusal(state, { do: 'recleave', side: 'left' })).toMatch(/fused already/);
});

test('random nights differ by their seeds, and are the same by the same one', () => {
  const causes = new Set(Array.from({ length: 60 }, (_, seed) => practiceNight('random', seed).cause));
  expect(causes.size).toBeGreaterThanOrEqual(8);
  const { weatherAt: _, ...one } = practiceNight('random', 7);
  const { weatherAt: __, ...other } = practiceNight('random', 7);
  expect(one).toEqual(other);
});
