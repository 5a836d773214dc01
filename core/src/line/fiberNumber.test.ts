import fc from 'fast-check';
import { constructionSchema, equalTubes, type Cable, type Construction } from './cable';
import { fiberCount, fiberName, fiberNumber, fiberPosition, fiberUnits } from './fiberNumber';

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

const strand = fc.oneof(
  {
    weight: 4,
    arbitrary: fc.record({ kind: fc.constant('tube' as const), fibers: fc.integer({ min: 1, max: 24 }) }),
  },
  {
    weight: 2,
    arbitrary: fc.record({
      kind: fc.constant('tube' as const),
      fibers: fc.integer({ min: 1, max: 24 }),
      groupSize: fc.integer({ min: 1, max: 12 }),
    }),
  },
  { weight: 1, arbitrary: fc.constant({ kind: 'filler' as const }) },
);
const anyConstruction = fc
  .array(strand, { minLength: 1, maxLength: 40 })
  .filter((strands) => strands.some((one) => one.kind === 'tube'))
  .map((strands) => constructionSchema.parse({ kind: 'stranded-tubes', strands }));

test('number and position are a bijection for every construction', () => {
  fc.assert(
    fc.property(anyConstruction, (construction) => {
      const count = fiberCount(construction);
      const seen = new Set<string>();
      for (let number = 1; number <= count; number += 1) {
        const position = fiberPosition(construction, number);
        expect(fiberNumber(construction, position)).toBe(number);
        seen.add(`${position.place}.${position.group}.${position.fiber}`);
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
