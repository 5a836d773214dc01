import fc from 'fast-check';
import { attempt, cables, closure, id, limits, plan, spliceAt } from '../../../test/example';
import { planClosure } from '../../plan/trays/closurePlan';
import { buildLedger } from '../record/ledger';
import { alongTheCord, inWorkOrder, nextSplice, type WorkOrder } from './workOrder';

/** Four lines: two tubes of A, the second one first on the trays, and a circuit in the middle of each. */
const line = (number: number, from: number, to: number, circuit: string | null) => ({
  ...closure.order[0]!,
  id: id(600 + number),
  left: { cableId: id(1), side: 'end' as const, from, to },
  right: { cableId: id(2), side: 'end' as const, from, to },
  circuit,
});
const mixed = planClosure(
  {
    ...closure,
    order: [line(1, 7, 9, null), line(2, 10, 12, 'Ring'), line(3, 1, 4, null), line(4, 5, 6, 'Ring')],
  },
  cables,
);
const empty = buildLedger(mixed, [], limits);
const fibers = (order: WorkOrder) => inWorkOrder(empty, order).map((state) => state.splice.left[0]!.fiber);

test('by tray it goes along the cord, by tube along the left cable', () => {
  expect(fibers({ by: 'tray' })).toEqual(alongTheCord(empty).map((state) => state.splice.left[0]!.fiber));
  expect(fibers({ by: 'tube' })).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]);
});

test('one circuit comes before the rest', () => {
  const circuits = inWorkOrder(empty, { by: 'circuit', circuit: 'Ring' }).map(
    (state) => state.splice.circuit,
  );
  expect(circuits.slice(0, 5)).toEqual(Array(5).fill('Ring'));
  expect(circuits.slice(5)).toEqual(Array(7).fill(null));
  // From a splice of another circuit one is led to the first of the wanted one that is open.
  const other = alongTheCord(empty).find((state) => state.splice.circuit === null)!;
  expect(nextSplice(empty, other.splice.id, { by: 'circuit', circuit: 'Ring' })!.splice.circuit).toBe('Ring');
});

test('only what is to be redone, and nothing where nothing is', () => {
  const ledger = buildLedger(plan, [attempt(3, 0.3), attempt(9, 0.4), attempt(1, 0.02)], limits);
  const redo: WorkOrder = { by: 'redo' };
  expect(nextSplice(ledger, null, redo)!.splice.id).toBe(spliceAt(3).id);
  expect(nextSplice(ledger, spliceAt(3).id, redo)!.splice.id).toBe(spliceAt(9).id);
  expect(nextSplice(ledger, spliceAt(9).id, redo)!.splice.id).toBe(spliceAt(3).id);
  expect(nextSplice(buildLedger(plan, [attempt(3, 0.3)], limits), spliceAt(3).id, redo)).toBeNull();
  expect(nextSplice(buildLedger(plan, [], limits), null, redo)).toBeNull();
});

test('where somebody else stands is passed by, as long as there is another', () => {
  const ledger = buildLedger(plan, [], limits);
  const taken = new Set([spliceAt(1).id, spliceAt(2).id]);
  expect(nextSplice(ledger, spliceAt(0).id, undefined, taken)!.splice.id).toBe(spliceAt(3).id);
  const last = buildLedger(
    plan,
    plan.splices.flatMap((_, index) => (index === 5 || index === 7 ? [] : [attempt(index, 0.02)])),
    limits,
  );
  expect(nextSplice(last, spliceAt(5).id, undefined, new Set([spliceAt(7).id]))!.splice.id).toBe(
    spliceAt(7).id,
  );
});

test('walking on from any splice comes by every open one, in any order of work', () => {
  const orders: WorkOrder[] = [
    { by: 'tray' },
    { by: 'tube' },
    { by: 'circuit', circuit: 'Ring' },
    { by: 'circuit', circuit: 'Gone' },
  ];
  fc.assert(
    fc.property(fc.constantFrom(...orders), fc.nat(11), (order, start) => {
      let at = alongTheCord(empty)[start]!.splice.id;
      const visited = new Set([at]);
      // With one circuit first the walk stays in it while anything of it is open.
      const expected = order.by === 'circuit' && order.circuit === 'Ring' ? 5 : 12;
      for (let step = 0; step < 12; step += 1) visited.add((at = nextSplice(empty, at, order)!.splice.id));
      expect(visited.size).toBeGreaterThanOrEqual(expected);
    }),
  );
});
