import fc from 'fast-check';
import { attempt, cableA, cableB, closure, definition, id, limits, plan } from '../../../test/example';
import { buildLedger, type Cable, type Fact, type ProjectDefinition } from '../../index';
import { fiberDistances } from './distance';
import { find, findIndex } from './find';

const facts: Fact[] = [attempt(0, 0.02), attempt(7, 0.09), attempt(13, 0.31)];
const index = findIndex(
  definition,
  new Map([[closure.id, { ledger: buildLedger(plan, facts, limits), facts }]]),
);
const slots = (query: string) => find(index, query).hits.map(({ tray, slot }) => `${tray}.${slot}`);

test('by cable and fiber, by tray and slot, by colors as codes and words, by verdict; all words have to be there', () => {
  // Cable A has tubes of 6: fiber 8 is tube 2, orange, fiber 2, orange.
  expect(slots('A 8')).toEqual(['1.8']);
  expect(slots('tray 1 slot 8')).toEqual(['1.8']);
  expect(slots('or or')).toContain('1.8');
  expect(slots('orange blue joint')).toContain('1.7');
  expect(slots('redo')).toEqual(['2.2']);
  expect(slots('A 25')).toEqual([]);
  expect(slots('')).toEqual([]);
});

test('the worst stands first, what nobody read last', () => {
  expect(slots('joint').slice(0, 4)).toEqual(['2.2', '1.8', '1.1', '1.2']);
  expect(find(index, 'joint', 5)).toMatchObject({ count: 24 });
});

test('accents and case do not matter, a number is not found in another', () => {
  const accented: ProjectDefinition = {
    ...definition,
    sites: definition.sites.map((site) => (site.id === id(12) ? { ...site, name: 'São João' } : site)),
  };
  const own = findIndex(
    accented,
    new Map([[closure.id, { ledger: buildLedger(plan, [], limits), facts: [] }]]),
  );
  expect(find(own, 'sao JOAO 2').hits.map(({ left }) => left)).toEqual(['A 2 BL OR']);
  expect(find(own, 'joão').count).toBe(24);
  expect(find(index, 'A 2').hits.map(({ left }) => left)).toEqual(['A 2 BL OR']);
});

describe('a distance', () => {
  const cables = (more: Partial<Cable>) => [
    { ...cableA, ...more },
    { ...cableB, ...more },
  ];
  const at = (meters: number, more: Partial<Cable> = {}, marks = new Map<string, Map<string, number>>()) =>
    fiberDistances(id(11), definition.sites, cables(more), marks).get(id(12))!.meters - meters;

  test('by the numbers on the sheath, longer by the excess: 40 to 552 m and 2 % are 522.24 m of fiber (by hand)', () => {
    const marks = new Map([
      [
        cableA.id,
        new Map([
          [id(11), 40],
          [id(12), 552],
        ]),
      ],
    ]);
    expect(at(522.24, { excess: 0.02 }, marks)).toBeCloseTo(0, 9);
  });

  test('by the route where no numbers are known: 500 m and what is stored, with its uncertainty', () => {
    const { meters, uncertainty } = fiberDistances(
      id(11),
      definition.sites,
      cables({ excess: 0.01 }),
      new Map(),
    ).get(id(12))!;
    // One end of the stretch lies in a closure: 15 ± 15 m are stored there (common practice).
    expect(meters).toBeCloseTo(515 * 1.01, 9);
    expect(uncertainty).toBeCloseTo(500 * 0.005 + 15 * 1.01, 9);
  });

  test('leads to the closure that may be meant, from either end, with the splices in it; and tells the nearest where none is', () => {
    const near = find(index, '0.52 km from hub');
    expect(near.distance!.at.map(({ site }) => site.name)).toEqual(['Joint']);
    expect(near.hits[0]).toMatchObject({ tray: 2, slot: 2, worst: 0.31 });
    expect(find(index, '420 m from Cabinet A 8').hits.map(({ slot }) => slot)).toEqual([8]);
    const far = find(index, '2 km');
    expect([far.distance!.at, far.distance!.nearest.map(({ site }) => site.name), far.count]).toEqual([
      [],
      ['Joint'],
      0,
    ]);
    expect(find(index, '1706 ft').distance!.at).toHaveLength(1);
  });

  test('a reflectometer that was set to another index shows another length: 522 m at 1.48 are 526.4 m at 1.4677', () => {
    expect(find(index, '522 m n 1.48').distance!.meters).toBeCloseTo((522 * 1.48) / 1.4677, 6);
  });

  test('whatever the true excess and slack within their bounds, the closure is among those that may be meant', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 0.04, noNaN: true }),
        fc.double({ min: 0, max: 30, noNaN: true }),
        (excess, slack) => {
          const fiber = (500 + slack) * (1 + excess);
          expect(find(index, `${fiber.toFixed(1)} m`).distance!.at.map(({ site }) => site.name)).toEqual([
            'Joint',
          ]);
        },
      ),
    );
  });
});

test('anything can be typed', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'binary', maxLength: 60 }), (query) => {
      const { hits, count } = find(index, query);
      expect(hits.length).toBeLessThanOrEqual(Math.min(50, count));
    }),
  );
});

test('what is in a closure that has no ledger is not found', () => {
  expect(find(findIndex(definition, new Map()), 'A 8').count).toBe(0);
});
