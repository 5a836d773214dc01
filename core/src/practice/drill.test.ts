import fc from 'fast-check';
import { colorSchemes } from '../line/colorCode';
import { fiberCount, fiberName } from '../line/fiberNumber';
import { drillCables, drillLength, drillQuestion, drillScore, drillWords, type DrillQuestion } from './drill';

const question = fc
  .tuple(
    fc.integer({ min: 0, max: 1e9 }),
    fc.integer({ min: 0, max: drillLength - 1 }),
    fc.constantFrom(...drillCables),
    fc.constantFrom(...colorSchemes.map(({ id }) => id)),
  )
  .map((given) => [given, drillQuestion(...given)] as const);

test('every question has four different answers, one of them right, that look different', () => {
  fc.assert(
    fc.property(question, ([given, asked]) => {
      const { cable, choices, number } = asked;
      expect(new Set(choices).size).toBe(4);
      expect(choices).toContain(number);
      for (const one of choices) {
        expect(one).toBeGreaterThanOrEqual(1);
        expect(one).toBeLessThanOrEqual(fiberCount(cable.construction));
      }
      const looks = choices.map((one) => {
        const name = fiberName(cable, one);
        return [name.unitColor.code, name.group, name.fiberColor.code].join();
      });
      expect(new Set(looks).size).toBe(4);
      expect(drillQuestion(...given)).toEqual(asked);
    }),
  );
});

test('the right answer stands at every place, and both ways are asked', () => {
  const asked = Array.from({ length: 400 }, (_, nth) => drillQuestion(7, nth, 'all', 'tia-598-d'));
  for (const place of [0, 1, 2, 3])
    expect(asked.filter(({ choices, number }) => choices[place] === number).length).toBeGreaterThan(70);
  expect(asked.filter(({ asks }) => asks === 'where').length).toBeGreaterThan(150);
  expect(asked.filter(({ asks }) => asks === 'number').length).toBeGreaterThan(150);
});

// TIA-598-D: in a 288-fiber cable of 12-fiber tubes fiber 157 is tube 14, orange with a tracer, fiber blue.
test('how it is found: fiber 157', () => {
  const asked = Array.from({ length: 2000 }, (_, nth) => drillQuestion(1, nth, 'loose', 'tia-598-d')).find(
    ({ cable, number }) => fiberCount(cable.construction) === 288 && number === 157,
  );
  const known: DrillQuestion = asked ?? {
    ...drillQuestion(1, 0, 'loose', 'tia-598-d'),
    number: 157,
    cable: {
      id: '',
      label: '',
      schemeId: 'tia-598-d',
      siteIds: [],
      construction: {
        kind: 'stranded-tubes',
        strands: Array.from({ length: 24 }, () => ({ kind: 'tube' as const, fibers: 12 })),
      },
    },
  };
  expect(drillWords(known)).toBe(
    'Tube 14 is orange with black tracer and holds 157 to 168. 157 is number 1 in it: blue.',
  );
});

test('a score: right ones and the middle time', () => {
  const answers = [1000, 3000, 2000, 9000].map((ms, at) => ({ ms, right: at !== 3 }));
  expect(drillScore(answers)).toEqual({ right: 3, seconds: 2.5 });
  expect(drillScore([])).toEqual({ right: 0, seconds: null });
});
