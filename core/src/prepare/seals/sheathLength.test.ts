import { definition, id } from '../../../test/example';
import { cableOf } from '../../../test/joint';
import { equalTubes } from '../../index';
import { sheathSpans } from './sheathLength';

// Hub at 0 m, joint at 500 m, cabinet at 900 m.
const cable = cableOf(1, equalTubes(2, 12), { through: true, excess: 0.02 });
const spans = (first: number, middle: number, last: number) =>
  sheathSpans(
    cable,
    definition.sites,
    new Map([
      [id(11), first],
      [id(12), middle],
      [id(13), last],
    ]),
  );

test('the cable between two numbers, and its fiber: longer by the excess', () => {
  const [one, other] = spans(40, 552, 965);
  expect(one).toMatchObject({ sheath: 512, route: 500, findings: [] });
  expect(one!.fiber).toBeCloseTo(522.24, 9);
  expect(other).toMatchObject({ sheath: 413, route: 400, findings: [] });
});

test('numbers may run down along the route', () => {
  expect(spans(965, 453, 40).map(({ sheath }) => sheath)).toEqual([512, 413]);
  expect(spans(965, 453, 40).flatMap(({ findings }) => findings)).toEqual([]);
});

test.each([
  ['less cable than route', [40, 440, 853], 'sheath-short'],
  ['far more than route and store', [40, 900, 1310], 'sheath-long'],
  ['feet entered as meters', [0, 1680, 3035], 'sheath-unit'],
  ['a number that turns back', [40, 552, 139], 'turned'],
] as const)('%s is told', (_, [first, middle, last], code) => {
  expect(spans(first, middle, last).flatMap(({ findings }) => findings.map((one) => one.code))).toContain(
    code,
  );
});

test('one number alone gives no length', () => {
  expect(sheathSpans(cable, definition.sites, new Map([[id(11), 40]]))).toEqual([]);
  expect(sheathSpans(cable, definition.sites, new Map())).toEqual([]);
});
