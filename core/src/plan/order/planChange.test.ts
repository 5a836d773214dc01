import { cables, closure, plan, spliceAt } from '../../../test/example';
import { planClosure } from '../trays/closurePlan';
import { planChange } from './planChange';

const line = closure.order[0]!;
const facts = [spliceAt(0).id, spliceAt(23).id, spliceAt(23).id];
const shorter = planClosure(
  { ...closure, order: [{ ...line, left: { ...line.left, to: 12 }, right: { ...line.right!, to: 12 } }] },
  cables,
);

test('tells which spliced fibers would leave the plan, each once, and which come back', () => {
  expect(planChange(plan, shorter, facts)).toEqual({
    leaving: [spliceAt(23).id],
    moving: [],
    returning: [],
  });
  expect(planChange(shorter, plan, facts).returning).toEqual([spliceAt(23).id]);
});

test('tells what would lie elsewhere, and what would have no slot', () => {
  const other = planClosure({ ...closure, trays: [{ singleSlots: 6 }, { singleSlots: 12 }] }, cables);
  expect(planChange(plan, other, facts).moving).toEqual([
    { spliceId: spliceAt(23).id, from: { tray: 2, slot: 12 }, to: null },
  ]);
});

test('no change, nothing to say', () =>
  expect(planChange(plan, planClosure(closure, cables), facts)).toEqual({
    leaving: [],
    moving: [],
    returning: [],
  }));
