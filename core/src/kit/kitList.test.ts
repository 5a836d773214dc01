import { cableA, cableB, closure, id } from '../../test/example';
import type { Cable } from '../line/cable';
import type { Closure } from '../plan/closure';
import { planClosure } from '../plan/trays/closurePlan';
import { readOrder } from '../plan/order/orderText';
import { kitList, sumKits, type KitDone, type KitWishes } from './kitList';

const ribbons = (number: number, label: string, count: number): Cable => ({
  ...cableA,
  id: id(number),
  label,
  construction: { kind: 'central-ribbon', ribbons: count, fibersPerRibbon: 12 },
  siteIds: [id(11), id(12)],
});

function kit(
  order: string,
  cables: Cable[],
  more: Partial<Closure> = {},
  sparePercent = 0,
  wishes: Partial<KitWishes> = {},
) {
  const entries: Closure['entries'] =
    more.entries ?? cables.map((cable) => ({ cableId: cable.id, manner: 'cut' as const }));
  const lines = readOrder(order, entries).lines.map((line, index) => ({ ...line, id: id(900 + index) }));
  const at: Closure = {
    ...closure,
    trays: Array.from({ length: 8 }, () => ({ singleSlots: 24, ribbonSlots: 12 })),
    entries,
    order: lines,
    ...more,
  };
  const byId = new Map(cables.map((cable) => [cable.id, cable]));
  return kitList(at, planClosure(at, byId), byId, { sparePercent, ...wishes });
}
const count = (lines: ReturnType<typeof kit>, item: string) =>
  lines.find((line) => line.item === item)?.count;

// Common practice, no published source: 288 fibers are 24 ribbons and leave their cable in 12 meshes.
test('288 fibers in ribbons ask for 24 ribbon sleeves and 12 meshes a cable', () => {
  const two = [ribbons(1, 'A', 24), ribbons(2, 'B', 24)];
  const lines = kit('A R1-R24 > B R1-R24', two, { kind: 'rack' });
  expect(count(lines, 'ribbon-sleeve')).toBe(24);
  expect(count(lines, 'mesh')).toBe(2 * 12);
  expect(count(lines, 'breakout')).toBe(2);
  // In a dome they coil in their own tray and go up in a tube; there are 12 to a tray.
  const dome = kit('A R1-R24 > B R1-R24', two);
  expect([count(dome, 'mesh'), count(dome, 'breakout'), count(dome, 'transport-tube')]).toEqual([
    undefined,
    undefined,
    2,
  ]);
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
  expect(count(lines, 'seal-Round-5-15')).toBe(1);
  // Nobody measured the other.
  expect(count(lines, 'seal')).toBe(1);
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

test('the kit names the parts of the seals, for each opening, and what the model has for each cable', () => {
  const parts = [
    { part: 'Seal M', kind: 'seal' as const, from: 5, to: 15, count: 1, slit: true },
    { part: 'Spacer', kind: 'spacer' as const, from: 5, to: 13, count: 2 },
  ];
  const ports = [{ name: 'Oval', count: 4, from: 5, to: 15, express: true, parts }];
  const own = {
    ports,
    parts: [
      { name: 'Bracket', count: 1, stops: '', perCable: true },
      { name: 'O-ring', count: 1, stops: '' },
    ],
  };
  const through = { ...cableA, diameter: 12, siteIds: [id(11), id(12), id(13)] };
  const cut = { ...cableB, diameter: 14 };
  const entries = [
    { cableId: through.id, manner: 'express' as const },
    { cableId: cut.id, manner: 'cut' as const },
  ];
  const lines = kit('', [through, cut], { ...own, entries });
  expect(
    ['part-Seal M', 'part-Spacer', 'model-Bracket', 'model-O-ring'].map((item) => count(lines, item)),
  ).toEqual([3, 4, 3, 1]);
  expect(count(lines, 'plug-Oval-5-15')).toBe(1);
});

test('an armored cable takes a shield connector at each sheath edge, where it is opened', () => {
  const armored = { ...cableA, construction: { ...cableA.construction, armor: true as const } };
  const shields = (order: string, done?: KitDone) =>
    count(kit(order, [armored as Cable, cableB], {}, 0, done ? { done } : {}), 'shield');
  expect(shields('A 1-12 > B 1-12')).toBe(1);
  // What stays closed, or is sealed in already, takes none.
  const through = { entries: [{ cableId: armored.id, manner: 'express' as const }] };
  expect(count(kit('', [armored as Cable], through), 'shield')).toBeUndefined();
  expect(
    shields('A 1-12 > B 1-12', {
      settled: new Set(),
      connected: new Set(),
      opened: new Set([armored.id]),
      sealed: false,
    }),
  ).toBeUndefined();
  expect(count(kit('A 1-12 > B 1-12', [cableA, cableB]), 'shield')).toBeUndefined();
});

test('schools take different parts', () => {
  const lines = (ribbonizing: 'pads' | 'block', wipe: 'dry' | 'moist') =>
    kit('A 1-12 > B 1-12 ribbonized', [cableA, cableB], {}, 0, { schools: { ribbonizing, wipe } }).map(
      ({ item }) => item,
    );
  expect(lines('pads', 'dry')).toEqual(expect.arrayContaining(['upper-pad', 'lower-pad', 'alcohol', 'wipe']));
  expect(lines('pads', 'dry').filter((item) => /swab|sponge|clip|moist/.test(item))).toEqual([]);
  expect(lines('block', 'moist')).toEqual(
    expect.arrayContaining(['sponge-pad', 'ribbon-clip', 'swab', 'moist-wipe']),
  );
  expect(lines('block', 'moist').filter((item) => /-pad$/.test(item))).toEqual(['sponge-pad']);
  expect(lines('block', 'moist')).not.toContain('alcohol');
});

test('what is done is not packed again', () => {
  const all = planClosure(
    { ...closure, entries: closure.entries },
    new Map([cableA, cableB].map((cable) => [cable.id, cable])),
  ).splices.map(({ id: own }) => own);
  const lines = (settled: number, opened: string[], sealed: boolean) =>
    kit('A 1-24 > B 1-24', [cableA, cableB], {}, 10, {
      done: {
        settled: new Set(all.slice(0, settled)),
        connected: new Set(),
        opened: new Set(opened),
        sealed,
      },
    });
  expect(lines(20, [], false)[0]).toMatchObject({ item: 'single-sleeve-60', count: 4, spare: 1 });
  expect(count(lines(20, [cableA.id], false), 'gel-wipe')).toBe(4);
  expect(count(lines(20, [cableA.id, cableB.id], false), 'seal')).toBeUndefined();
  // A finished closure asks for nothing.
  expect(lines(24, [cableA.id, cableB.id], true)).toEqual([]);
});

test('spares are the same for a closure alone and in a sum of one', () => {
  const lines = kit('A R1-R3 > B R1-R3', [ribbons(1, 'A', 3), ribbons(2, 'B', 3)], { kind: 'rack' }, 10);
  expect(
    sumKits([{ name: 'U1', lines }], { sparePercent: 10 }).map(({ item, spare }) => [item, spare]),
  ).toEqual(lines.map(({ item, spare }) => [item, spare]));
});

test('the seals of the kit follow from what was measured', () => {
  const parts = [
    { part: 'Seal S', kind: 'seal' as const, from: 5, to: 10, count: 1 },
    { part: 'Seal M', kind: 'seal' as const, from: 10, to: 15, count: 1 },
  ];
  const ports = [{ name: 'Round', count: 2, from: 5, to: 15, express: false, parts }];
  const cable = { ...cableA, diameter: 9 };
  const seals = (diameters: ReadonlyMap<string, number>) =>
    kit('', [cable], { ports }, 0, { diameters })
      .filter(({ item }) => item.startsWith('part-'))
      .map(({ name }) => name);
  expect(seals(new Map())).toEqual(['Seal S']);
  expect(seals(new Map([[cable.id, 11.2]]))).toEqual(['Seal M']);
});
