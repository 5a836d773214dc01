import fc from 'fast-check';
import { anyConstruction } from '../../test/arbitraries';
import { cableOf, joint } from '../../test/joint';
import { limits } from '../../test/example';
import { fiberCount } from '../line/fiberNumber';
import { builtInModels } from '../plan/models/builtInModels';
import { allWork, estimateClosure, heatingOf, usualPace } from '../prepare/time/estimate';
import { nothingMeasured } from '../prepare/time/measured';
import { buildLedger } from '../splice/record/ledger';
import {
  carryingLeft,
  carryingOnly,
  chunksOf,
  crewWork,
  partsOf,
  ribbonized,
  traysLeft,
  type ClosureToDo,
  type CrewTools,
} from './work';

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
const tools = (people: number, more: Partial<CrewTools> = {}): CrewTools => ({
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
      const alone = crewWork(todo, usualPace, tools(1))!;
      // By one pair of hands it is the estimate of the time page.
      const { seconds } = estimateClosure(closure, plan, cables, left, usualPace);
      expect(alone.setUp.mean + meanOf(todo, tools(1))).toBeCloseTo(seconds, 4);
      // A second pair saves something, and never more than half; two kinds on one machine are no quicker.
      const two = meanOf(todo, tools(2));
      expect(two).toBeLessThanOrEqual(meanOf(todo, tools(1)) + 1e-6);
      expect(two).toBeGreaterThanOrEqual(meanOf(todo, tools(1)) / 2 - 1e-6);
      expect(two).toBeLessThanOrEqual(meanOf(todo, tools(2, { sameMachine: true })) + 1e-6);
      // Parts are together the whole, tray by tray all splices.
      expect(trays.reduce((sum, { singles }) => sum + singles, 0)).toBe(left.singles);
      expect(trays.reduce((sum, { ribbons }) => sum + ribbons, 0)).toBe(left.ribbons);
      const chunks = chunksOf(todo, usualPace);
      for (const window of [3, 7])
        for (const people of [1, 2]) {
          const parts = partsOf(chunks, window * 3600);
          expect(meanOf(todo, tools(people), parts)).toBeCloseTo(meanOf(todo, tools(people)), 4);
          for (const { mean, variance } of crewWork(todo, usualPace, tools(people), parts)!.parts) {
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
        expect(meanOf(needed.todo, tools(2))).toBeLessThanOrEqual(two + 1e-6);
      }
      expect(Number.isFinite(meanOf(ribbonized(todo), tools(2)))).toBe(true);
    }),
    { numRuns: 150 },
  );
  expect(carried).toBeGreaterThan(20);
});
