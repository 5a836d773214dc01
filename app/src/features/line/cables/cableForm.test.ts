import type { Cable, Construction } from '@cordel/core';
import { cableOfForm, constructionOf, emptyCable, formOfCable } from './cableForm';

const id = '01900000-0000-7000-8000-000000000001';
const site = '01900000-0000-7000-8000-000000000002';
const cableOf = (construction: Construction): Cable => ({
  id,
  label: 'A',
  schemeId: 'tia-598-d',
  construction,
  siteIds: [site],
  fiberType: 'g652d',
  excess: 0.02,
});

const tube = (fibers: number) => ({ kind: 'tube' as const, fibers });
const filler = { kind: 'filler' as const };

test.each<Construction>([
  { kind: 'stranded-tubes', strands: [tube(12), filler, tube(12), tube(12), filler] },
  { kind: 'stranded-tubes', strands: [tube(12), tube(6), tube(24)] },
  {
    kind: 'stranded-tubes',
    strands: [
      { ...tube(24), groupSize: 12 },
      { ...tube(24), groupSize: 12 },
    ],
  },
  { kind: 'central-ribbon', ribbons: 12, fibersPerRibbon: 24 },
  {
    kind: 'stranded-ribbon',
    strands: [
      { kind: 'tube', ribbons: 6, fibersPerRibbon: 12 },
      filler,
      { kind: 'tube', ribbons: 4, fibersPerRibbon: 12 },
    ],
  },
  { kind: 'drop', shape: 'round', fibers: 4, toningWire: false, messenger: true },
  { kind: 'pigtails', fibers: 24, bufferMicrometers: 250 },
])('the form of a cable leads back to the same cable: $kind', (construction) => {
  const cable = cableOf(construction);
  expect(cableOfForm(formOfCable(cable, 'mm'), id, 'mm')).toEqual({ cable, troubles: {} });
});

test('everything else about a cable goes through the form too', () => {
  const cable: Cable = {
    ...cableOf({ kind: 'central-ribbon', ribbons: 2, fibersPerRibbon: 8 }),
    ownScheme: {
      id: 'own',
      name: 'Yard',
      source: 'made by hand',
      sequence: ['red', 'blue'],
      tracer: 'black',
      tracerOn: { black: 'yellow' },
    },
    modeField: 8.6,
    groupIndex: 1.468,
    diameter: 11.5,
    sheathMarks: { first: 3, last: 1207.5 },
    live: [{ from: 1, to: 8, circuit: 'Ring north' }],
  };
  expect(cableOfForm(formOfCable(cable, 'mm'), id, 'mm').cable).toEqual(cable);
});

test.each([
  [{ count: 'eight' }, 'count', 'Give how many as a whole number from 1 up.'],
  [{ each: '12, 12' }, 'each', 'Give one number for all 8 tubes, or 8 numbers; there are 2.'],
  [{ each: '99' }, 'each', 'A tube has at most 24 fibers.'],
  [{ fillers: '11' }, 'fillers', 'There are 9 positions, so no filler at 11.'],
  [{ fillers: '2, 2' }, 'fillers', 'A position stands there twice.'],
  [{ diameter: 'thick' }, 'diameter', 'Give a number, or leave it empty.'],
  [{ diameter: '99' }, 'diameter', 'At most 60 mm.'],
  [{ markFirst: '12' }, 'markLast', 'Give the marks at both ends, or none.'],
  [{ live: 'ring' }, 'live', 'Line 1: write fibers and circuit, like 133-144 District ring.'],
  [{ siteIds: [] }, 'siteIds', 'Pick the sites it runs through.'],
  [{ label: '' }, 'label', 'Give it a name.'],
  [
    { schemeId: 'own', ownSequence: ['red' as const, 'red' as const] },
    'ownSequence',
    'red stands at 1 and at 2. Two fibers of one color cannot be told apart.',
  ],
])('says at the field what is wrong with %j', (change, field, message) => {
  const { cable, troubles } = cableOfForm(
    { ...emptyCable, label: 'A', siteIds: [site], ...change },
    id,
    'mm',
  );
  expect(cable).toBeUndefined();
  expect(troubles).toEqual({ [field]: message });
});

test('a decimal comma is taken', () => {
  const { cable } = cableOfForm({ ...emptyCable, label: 'A', siteIds: [site], diameter: '12,4' }, id, 'mm');
  expect(cable!.diameter).toBe(12.4);
});

test('a cable larger than any is refused before it is drawn', () =>
  expect(constructionOf({ ...emptyCable, count: '100000' }).troubles.count).toContain('more than any'));

test('a project in feet and inches is asked and answered in them', () => {
  const cable: Cable = {
    ...cableOf({ kind: 'pigtails', fibers: 12, bufferMicrometers: 900 }),
    diameter: 12.7,
    sheathMarks: { first: 304.8, last: 609.6 },
  };
  const form = formOfCable(cable, 'in');
  expect([form.diameter, form.markFirst, form.markLast]).toEqual(['0.5', '1000', '2000']);
  expect(cableOfForm(form, id, 'in').cable).toEqual(cable);
});

test('what nobody touched keeps its length to the last digit, in inches too', () => {
  const cable: Cable = {
    ...cableOf({ kind: 'pigtails', fibers: 12, bufferMicrometers: 900 }),
    diameter: 12.4,
    sheathMarks: { first: 40, last: 1252.333 },
  };
  const form = formOfCable(cable, 'in');
  expect(cableOfForm(form, id, 'in', cable).cable).toEqual(cable);
  const touched = cableOfForm({ ...form, diameter: '0.5' }, id, 'in', cable).cable!;
  expect([touched.diameter, touched.sheathMarks]).toEqual([12.7, cable.sheathMarks]);
});
