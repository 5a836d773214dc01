import fc from 'fast-check';
import { anyConstruction } from '../../test/arbitraries';
import { cableOf, joint } from '../../test/joint';
import { id, limits } from '../../test/example';
import { nightsInput, noa, pair, u1, u2, u3 } from '../../test/nightsExample';
import { tools } from '../../test/plannedNights';
import { newGear, type Machine } from '../gear';
import { fiberCount } from '../line/fiberNumber';
import { builtInModels } from '../plan/models/builtInModels';
import { allWork, estimateClosure, heatingOf, usualPace } from '../prepare/time/estimate';
import { nothingMeasured } from '../prepare/time/measured';
import { buildLedger } from '../splice/record/ledger';
import { toolsOf } from './problemOf';
import { carryingLeft, carryingOnly, ribbonized, traysLeft, type ClosureToDo } from './closureToDo';
import { chunksOf, crewWork, longestFirst, partsOf, partWords, type CrewTools } from './work';

/** Any construction in any model, all of it or a part of it spliced through, with a circuit on the first of its fibers. */
const anyToDo = fc
  .record({
    model: fc.constantFrom(...builtInModels.map(({ name }) => name)),
    construction: anyConstruction,
    share: fc.constantFrom(1, 0.5, 0.1),
    manner: fc.constantFrom('cut', 'window', 'branch') as fc.Arbitrary<'cut' | 'window' | 'branch'>,
  })
  .map(({ model, construction, share, manner }): ClosureToDo => {
    const all = fiberCount(construction);
    const last = Math.max(1, Math.floor(all * share));
    const half = Math.ceil(last / 2);
    const order = [`A 1-${half} > B 1-${half} : Clinic`];
    if (last > half) order.push(`A ${half + 1}-${last} > B ${half + 1}-${last}`);
    const cables = [1, 2].map((number) => cableOf(number, construction, { through: manner === 'window' }));
    const own = cables.map((cable) => [cable, manner] as const);
    const { closure, plan, cables: byId } = joint(model, own, order.join('\n'));
    const ledger = buildLedger(plan, [], limits);
    return {
      closure,
      plan,
      cables: byId,
      left: allWork(closure, plan, byId),
      trays: traysLeft(closure, plan, byId, ledger),
      carrying: carryingLeft(closure, plan, byId, ledger),
      measured: nothingMeasured,
      variation: null,
    };
  });

const heating = heatingOf(usualPace);
const hands = (people: number, more: Partial<CrewTools> = {}): CrewTools => ({
  people,
  single: heating,
  ribbon: heating,
  singleMachines: 1,
  ribbonMachines: 1,
  sameMachine: false,
  ...more,
});
const meanOf = (todo: ClosureToDo, own: CrewTools, parts: readonly number[] = []) =>
  crewWork(todo, usualPace, own, parts)!.parts.reduce((sum, { mean }) => sum + mean, 0);

test('for every construction in every model the work adds up, and more hands and less to do take no longer', () => {
  let carried = 0;
  fc.assert(
    fc.property(anyToDo, (todo) => {
      const { closure, plan, cables, left, trays } = todo;
      const alone = crewWork(todo, usualPace, hands(1))!;
      // By one pair of hands it is the estimate of the time page.
      const { seconds } = estimateClosure(closure, plan, cables, left, usualPace);
      expect(alone.setUp.mean + meanOf(todo, hands(1))).toBeCloseTo(seconds, 4);
      // A second pair saves something, and never more than half; two kinds on one machine are no quicker.
      const two = meanOf(todo, hands(2));
      expect(two).toBeLessThanOrEqual(meanOf(todo, hands(1)) + 1e-6);
      expect(two).toBeGreaterThanOrEqual(meanOf(todo, hands(1)) / 2 - 1e-6);
      expect(two).toBeLessThanOrEqual(meanOf(todo, hands(2, { sameMachine: true })) + 1e-6);
      // Parts are together the whole, tray by tray all splices.
      expect(trays.reduce((sum, { singles }) => sum + singles, 0)).toBe(left.singles);
      expect(trays.reduce((sum, { ribbons }) => sum + ribbons, 0)).toBe(left.ribbons);
      const chunks = chunksOf(todo, usualPace);
      for (const window of [3, 7])
        for (const people of [1, 2]) {
          const parts = partsOf(chunks, window * 3600);
          expect(meanOf(todo, hands(people), parts)).toBeCloseTo(meanOf(todo, hands(people)), 4);
          for (const { mean, variance } of crewWork(todo, usualPace, hands(people), parts)!.parts) {
            expect(mean).toBeGreaterThan(0);
            expect(Number.isFinite(variance) && variance > 0).toBe(true);
          }
        }
      // Less to splice is not longer; and what carries a circuit is a part of what is left.
      const needed = carryingOnly(todo);
      if (needed) {
        carried += 1;
        expect(needed.todo.left.singles).toBeLessThanOrEqual(left.singles);
        expect(needed.todo.left.ribbons).toBeLessThanOrEqual(left.ribbons);
        expect(needed.without).toBeGreaterThan(0);
        expect(meanOf(needed.todo, hands(2))).toBeLessThanOrEqual(two + 1e-6);
      }
      expect(Number.isFinite(meanOf(ribbonized(todo), hands(2)))).toBe(true);
    }),
    { numRuns: 150 },
  );
  expect(carried).toBeGreaterThan(20);
});

describe('what a crew does at a closure', () => {
  test('by one pair of hands it is the estimate of the time page', () => {
    const { closure, plan, cables, left } = u3;
    const { seconds } = estimateClosure(closure, plan, cables, left, usualPace);
    const work = crewWork(u3, usualPace, tools(noa))!;
    expect(work.setUp.mean + work.parts[0]!.mean).toBeCloseTo(seconds, 6);
    expect(work.secondHandSaves).toBe(0);
  });
  test('a second hand halves what hands do, as far as the machine keeps up', () => {
    const work = crewWork(u3, usualPace, tools(pair))!;
    // One cable each (20 + 8 × 4 min), 96 splices in half the time, 25 min sealing, 15 min flash test.
    expect(work.parts[0]!.mean).toBeCloseTo(52 * 60 + (96 * 150 + 40) / 2 + 40 * 60, 6);
    const slow = {
      ...tools(pair),
      single: { heaters: 1, seconds: { ...heatingOf(usualPace).seconds, 'single-60': 120 } },
    };
    // The heater takes 120 s for each sleeve, however many hands there are.
    const single = crewWork(u3, usualPace, slow)!.steps.find((step) => step.id === 'single')!;
    expect(single.mean).toBeCloseTo(96 * 120, 6);
    expect(crewWork(u3, usualPace, { ...tools(pair), people: 5 })!.parts).toEqual(work.parts);
  });
  test('whoever lacks a machine cannot do it', () => {
    expect(crewWork(u2, usualPace, tools(noa))).toBeNull();
    expect(crewWork(u2, usualPace, tools(pair))).not.toBeNull();
  });
  test('made into ribbons it is 8 ribbons, both sides glued', () => {
    const made = ribbonized(u3);
    expect(made.left).toMatchObject({ singles: 0, ribbons: 8 });
    const work = crewWork(made, usualPace, { ...tools(pair), people: 1 })!;
    expect(work.steps.find((step) => step.id === 'ribbon')!.mean).toBe(8 * 420 + 60);
    expect(work.steps.find((step) => step.id === 'ribbonize')!.mean).toBe(16 * 300);
  });
  test('longest first: at most 4/3 − 1/(3m) of the best, and 7 for the best of 6 (Graham 1969)', () => {
    expect(longestFirst([3, 3, 2, 2, 2], 2)).toBe(7);
    const best = (times: readonly number[], hands: number): number => {
      const busy = Array.from({ length: hands }, () => 0);
      const place = (at: number): number => {
        if (at === times.length) return Math.max(...busy);
        let least = Infinity;
        for (let hand = 0; hand < hands; hand += 1) {
          busy[hand]! += times[at]!;
          least = Math.min(least, place(at + 1));
          busy[hand]! -= times[at]!;
        }
        return least;
      };
      return place(0);
    };
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 40 }), { minLength: 1, maxLength: 7 }),
        fc.integer({ min: 1, max: 3 }),
        (times, hands) => {
          const least = best(times, hands);
          const found = longestFirst(times, hands);
          expect(found).toBeGreaterThanOrEqual(least);
          expect(found).toBeLessThanOrEqual(least * (4 / 3 - 1 / (3 * hands)) + 1e-9);
        },
      ),
    );
  });
});

test('the machine of the gear’s list heats as that says', () => {
  const machine = { ...(newGear('machine', id(900), 'Single 1') as Machine), heaters: 2 };
  const input = nightsInput({ machineOf: () => machine });
  const own = { ...noa, machines: [{ ...noa.machines[0]!, gearId: machine.id }] };
  expect(toolsOf(input, own, own.machines).single).toMatchObject({
    heaters: 2,
    seconds: { 'single-60': 35 },
  });
});

test('a closure that may stay open is split at cables and trays, into parts that are together the whole', () => {
  for (const todo of [u1, u2, u3]) {
    const chunks = chunksOf(todo, usualPace);
    const parts = partsOf(chunks, 4 * 3600);
    expect(parts.at(-1)).toBe(chunks.length);
    expect(parts).toEqual([...new Set(parts)].sort((a, b) => a - b));
    const whole = crewWork(todo, usualPace, tools(pair))!.parts[0]!.mean;
    const split = crewWork(todo, usualPace, tools(pair), parts)!.parts;
    expect(split.reduce((sum, { mean }) => sum + mean, 0)).toBeCloseTo(whole, 6);
  }
  const chunks = chunksOf(u3, usualPace);
  expect(partsOf(chunks, 7 * 3600).map((_, index, all) => partWords(chunks, all, index + 1))).toEqual([
    'prepare Cable 1, prepare Cable 2, cover',
    'trays 1 to 3, cover',
    'tray 4, seal',
  ]);
});
