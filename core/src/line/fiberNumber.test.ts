import fc from 'fast-check';
import { anyConstruction } from '../../test/arbitraries';
import { constructionSchema, equalTubes, type Cable, type Construction } from './cable';
import { fiberCount, fiberName, fiberNumber, fiberPosition, fibersByColor, fiberUnits } from './fiberNumber';

const cableOf = (construction: Construction): Cable => ({
  id: '01900000-0000-7000-8000-000000000001',
  label: 'A',
  schemeId: 'tia-598-d',
  construction,
  siteIds: ['01900000-0000-7000-8000-000000000002'],
});

// Published in TIA-598-D terms: tube and fiber colors follow the same sequence, twelve fibers a tube.
test.each([
  [144, 1, 'BL', 'BL'],
  [144, 100, 'YL', 'BR'],
  [144, 144, 'AQ', 'AQ'],
  [288, 157, 'OR-BK', 'BL'],
])(
  'in a %i-fiber cable of 12-fiber tubes, fiber %i is in tube %s and is %s',
  (count, number, tube, fiber) => {
    const name = fiberName(cableOf(equalTubes(count / 12, 12)), number);
    expect([name.unitColor.code, name.fiberColor.code]).toEqual([tube, fiber]);
  },
);

test('a filler takes a place in the stranding but no number and no color', () => {
  const construction: Construction = {
    kind: 'stranded-tubes',
    strands: [{ kind: 'tube', fibers: 12 }, { kind: 'filler' }, { kind: 'tube', fibers: 12 }],
  };
  expect(fiberCount(construction)).toBe(24);
  expect(fiberPosition(construction, 13)).toEqual({ unit: 2, place: 3, group: null, fiber: 1 });
  expect(fiberName(cableOf(construction), 13).unitColor.name).toBe('orange');
});

test('colors start again in the second binder group of a 24-fiber tube', () => {
  const construction: Construction = {
    kind: 'stranded-tubes',
    strands: [{ kind: 'tube', fibers: 24, groupSize: 12 }],
  };
  const name = fiberName(cableOf(construction), 13);
  expect([name.group, name.fiber, name.fiberColor.code]).toEqual([2, 1, 'BL']);
});

test('number and position are a bijection for every construction', () => {
  fc.assert(
    fc.property(anyConstruction, (construction) => {
      const count = fiberCount(construction);
      const seen = new Set<string>();
      for (let number = 1; number <= count; number += 1) {
        const position = fiberPosition(construction, number);
        expect(fiberNumber(construction, position)).toBe(number);
        seen.add(`${position.unit}.${position.group}.${position.fiber}`);
      }
      expect(seen.size).toBe(count);
      expect(fiberUnits(construction).reduce((sum, unit) => sum + unit.fibers, 0)).toBe(count);
    }),
  );
});

test('refuses fibers and positions that the cable does not have', () => {
  const construction = equalTubes(2, 12);
  for (const number of [0, 25, -1, 1.5, Number.NaN])
    expect(() => fiberPosition(construction, number)).toThrow(RangeError);
  for (const position of [
    { unit: 3, group: null, fiber: 1 },
    { unit: 1, group: null, fiber: 13 },
    { unit: 1, group: 1, fiber: 1 },
    { unit: 0, group: null, fiber: 1 },
  ])
    expect(() => fiberNumber(construction, position)).toThrow(RangeError);
});

test('every made-up construction is one that the schema takes, unchanged', () => {
  fc.assert(
    fc.property(anyConstruction, (construction) => {
      expect(constructionSchema.parse(JSON.parse(JSON.stringify(construction)))).toEqual(construction);
    }),
  );
});

// 24 ribbons of 12 are 288 fibers (common practice); ribbon 14 repeats orange with a tracer (TIA-598-D).
test('ribbons of a central tube are counted and colored on', () => {
  const cable = cableOf({ kind: 'central-ribbon', ribbons: 24, fibersPerRibbon: 12 });
  expect(fiberCount(cable.construction)).toBe(288);
  const name = fiberName(cable, 157);
  expect([name.unitKind, name.unit, name.unitColor.code, name.fiberColor.code]).toEqual([
    'ribbon',
    14,
    'OR-BK',
    'BL',
  ]);
});

test('ribbons in stranded tubes are counted on through the cable and colored anew in each tube', () => {
  const cable = cableOf({
    kind: 'stranded-ribbon',
    strands: [
      { kind: 'tube', ribbons: 6, fibersPerRibbon: 12 },
      { kind: 'filler' },
      { kind: 'tube', ribbons: 6, fibersPerRibbon: 12 },
    ],
  });
  const name = fiberName(cable, 73);
  expect([name.unit, name.unitColor.code, name.tube!.number, name.tube!.color.code]).toEqual([
    7,
    'BL',
    2,
    'OR',
  ]);
});

// Trade: blue fiber first, orange is the spare (common practice).
test('a drop has its fibers and no tube to count', () => {
  const cable = cableOf({ kind: 'drop', shape: 'flat', fibers: 2, toningWire: true, messenger: false });
  expect([1, 2].map((number) => fiberName(cable, number).fiberColor.name)).toEqual(['blue', 'orange']);
  expect(fiberName(cable, 2).unitKind).toBe('bundle');
});

test('colors lead back to the number: every fiber is found by its own colors', () => {
  fc.assert(
    fc.property(anyConstruction, fc.nat(), (construction, seed) => {
      const cable = cableOf(construction);
      const number = (seed % fiberCount(construction)) + 1;
      const name = fiberName(cable, number);
      const found = fibersByColor(cable, {
        ...(name.tube ? { tube: name.tube.color.code } : {}),
        unit: name.unitColor.code,
        ...(name.group === null ? {} : { group: name.group }),
        fiber: name.fiberColor.code,
      });
      expect(found.map((one) => one.number)).toContain(number);
      // Colors start again with more stripes, so that within a cable nothing looks alike.
      expect(found).toHaveLength(1);
    }),
  );
});
