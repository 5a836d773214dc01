import { cableA, cableB, closure, id } from '../../test/example';
import type { Cable } from '../line/cable';
import type { Closure } from '../plan/closure';
import { planClosure } from '../plan/trays/closurePlan';
import { readOrder } from '../plan/order/orderText';
import { kitList, sumKits } from './kitList';

const ribbons = (number: number, label: string, count: number): Cable => ({
  ...cableA,
  id: id(number),
  label,
  construction: { kind: 'central-ribbon', ribbons: count, fibersPerRibbon: 12 },
  siteIds: [id(11), id(12)],
});

function kit(order: string, cables: Cable[], more: Partial<Closure> = {}, sparePercent = 0) {
  const entries = cables.map((cable) => ({ cableId: cable.id, manner: 'cut' as const }));
  const lines = readOrder(order, entries).lines.map((line, index) => ({ ...line, id: id(900 + index) }));
  const at: Closure = {
    ...closure,
    trays: Array.from({ length: 8 }, () => ({ singleSlots: 24, ribbonSlots: 12 })),
    entries,
    order: lines,
    ...more,
  };
  const byId = new Map(cables.map((cable) => [cable.id, cable]));
  return kitList(at, planClosure(at, byId), byId, { sparePercent });
}
const count = (lines: ReturnType<typeof kit>, item: string) =>
  lines.find((line) => line.item === item)?.count;

// Common practice, no published source: 288 fibers are 24 ribbons and leave their cable in 12 meshes.
test('288 fibers in ribbons ask for 24 ribbon sleeves and 12 meshes a cable', () => {
  const lines = kit('A R1-R24 > B R1-R24', [ribbons(1, 'A', 24), ribbons(2, 'B', 24)]);
  expect(count(lines, 'ribbon-sleeve')).toBe(24);
  expect(count(lines, 'mesh')).toBe(2 * 12);
  expect(count(lines, 'single-sleeve-60')).toBeUndefined();
});

// Common practice: one soft pad a ribbon, one hard pad for two of them since it is turned over once.
test('ribbons made of loose fibers ask for pads on the side that is loose', () => {
  const lines = kit('A 1-12 > B R1 ribbonized\nA 13-24 > B R2 ribbonized', [
    cableA,
    { ...ribbons(2, 'B', 3), siteIds: cableB.siteIds },
  ]);
  expect([count(lines, 'ribbon-sleeve'), count(lines, 'upper-pad'), count(lines, 'lower-pad')]).toEqual([
    2, 2, 1,
  ]);
});

test('one sleeve a splice, spares rounded up to a piece', () => {
  const lines = kit('A 1-23 > B 1-23', [cableA, cableB], { sleeveLength: 40 }, 10);
  expect(lines[0]).toMatchObject({ item: 'single-sleeve-40', count: 23, spare: 3 });
});

test('a seal for every port used and a plug for every one unused', () => {
  const port = { name: 'Round', count: 4, from: 5, to: 15, express: false };
  const thick = { ...cableA, diameter: 12 };
  const lines = kit('A 1 > B 1', [thick, cableB], { ports: [port] }, 50);
  expect(count(lines, 'seal-Round-5-15')).toBe(2);
  expect(count(lines, 'plug-Round-5-15')).toBe(2);
  expect(lines.find((line) => line.item === 'seal-Round-5-15')!.spare).toBe(0);
});

test('the night’s kit is the sum of its closures and says which part is whose', () => {
  const one = kit('A 1-12 > B 1-12', [cableA, cableB], {}, 10);
  const night = sumKits(
    [
      { name: 'U1', lines: one },
      { name: 'U2', lines: one },
    ],
    { sparePercent: 10 },
  );
  // Ten percent of 24 are 3 to bring, not 2 for each closure.
  expect(night[0]).toMatchObject({
    count: 24,
    spare: 3,
    how: 'U1: 12 single splices, one sleeve each; U2: 12 single splices, one sleeve each',
  });
  for (const line of night) expect(line.how).not.toBe('');
});

test('an empty order asks for no sleeve', () => {
  expect(kit('', [cableA, cableB]).filter((line) => /sleeve|pad|mesh/.test(line.item))).toEqual([]);
});
