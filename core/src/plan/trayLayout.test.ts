import fc from 'fast-check';
import { cableA, cables, closure } from '../../test/example';
import { planClosure, unitsOnTray } from './closurePlan';
import type { PlannedSplice } from './order';
import { layOutTrays } from './trayLayout';

/** Splices of units with the given sizes, in order. */
function splicesOf(unitSizes: readonly number[]): PlannedSplice[] {
  return unitSizes.flatMap((size, unit) =>
    Array.from({ length: size }, (_, index) => ({
      id: `${unit}.${index}`,
      kind: 'single' as const,
      left: [{ cableId: String(unit), fiber: index + 1, side: 'end' as const }],
      right: [{ cableId: 'B', fiber: index + 1, side: 'end' as const }],
      circuit: null,
    })),
  );
}
const unitKey = (splice: PlannedSplice) => splice.left[0]!.cableId;

test('two tubes of twelve to a tray of 24', () => {
  const { placed } = layOutTrays(splicesOf(Array(8).fill(12)), Array(4).fill({ singleSlots: 24 }), unitKey);
  expect(placed.map((splice) => splice.tray)).toEqual([1, 2, 3, 4].flatMap((tray) => Array(24).fill(tray)));
  expect(placed[24]).toMatchObject({ id: '2.0', tray: 2, slot: 1 });
});

test('a tube that does not fit into the rest of a tray goes whole to the next', () => {
  const { placed } = layOutTrays(splicesOf([8, 8]), [{ singleSlots: 12 }, { singleSlots: 12 }], unitKey);
  expect(placed.map((splice) => splice.tray)).toEqual([...Array(8).fill(1), ...Array(8).fill(2)]);
});

test('what has no slot is told, not dropped', () => {
  const plan = planClosure({ ...closure, trays: [{ singleSlots: 12 }] }, cables);
  expect(plan.unplaced).toHaveLength(12);
  expect(plan.findings.map((finding) => finding.code)).toEqual(['over-capacity']);
  expect(plan.findings[0]!.message).toContain('12 of 24');
});

test('a tray names its tubes once each, in order', () => {
  const plan = planClosure(closure, cables);
  expect(unitsOnTray(plan.trays[1]!, cables)).toEqual([
    { cableId: cableA.id, unit: 3 },
    { cableId: cableA.id, unit: 4 },
  ]);
});

test('never double-books, never exceeds a tray, keeps order, splits only units larger than a tray', () => {
  const sizes = fc.array(fc.integer({ min: 1, max: 30 }), { maxLength: 12 });
  const trays = fc.array(
    fc.integer({ min: 1, max: 30 }).map((singleSlots) => ({ singleSlots })),
    { minLength: 1, maxLength: 12 },
  );
  fc.assert(
    fc.property(sizes, trays, (unitSizes, trayList) => {
      const splices = splicesOf(unitSizes);
      const { placed, unplaced } = layOutTrays(splices, trayList, unitKey);
      expect([...placed.map((one) => one.id), ...unplaced.map((one) => one.id)]).toEqual(
        splices.map((one) => one.id),
      );
      const places = placed.map((one) => one.tray * 1000 + one.slot);
      expect(places).toEqual([...new Set(places)].sort((a, b) => a - b));
      for (const one of placed) {
        expect(one.slot).toBeGreaterThanOrEqual(1);
        expect(one.slot).toBeLessThanOrEqual(trayList[one.tray - 1]!.singleSlots);
      }
      const smallest = Math.min(...trayList.map((tray) => tray.singleSlots));
      unitSizes.forEach((size, unit) => {
        const own = placed.filter((one) => unitKey(one) === String(unit));
        if (size <= smallest && own.length === size) expect(new Set(own.map((one) => one.tray)).size).toBe(1);
      });
    }),
  );
});
