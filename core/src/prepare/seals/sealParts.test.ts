import fc from 'fast-check';
import { cableOf, joint } from '../../../test/joint';
import { equalTubes, type Closure } from '../../index';
import { diameterOfCircumference, sealPlan } from './sealParts';
import { prepareFindingWords } from '../words';

const cable = (diameter: number | undefined, through = false) =>
  cableOf(1, equalTubes(2, 12), { through, ...(diameter === undefined ? {} : { diameter }) });

/** The shape of such a table (common practice): seal M for 11–16.4 mm, in it two spacers for 13–14 mm, a small clip and clamp. */
const ports: NonNullable<Closure['ports']> = [
  {
    name: 'M',
    count: 2,
    from: 11,
    to: 16.4,
    express: false,
    parts: [
      { part: 'Seal M', kind: 'seal', from: 11, to: 16.4, count: 1 },
      { part: 'Spacer', kind: 'spacer', from: 13, to: 14, count: 2 },
      { part: 'Small anti-twist clip', kind: 'clip', from: 11, to: 14, count: 1 },
      { part: 'Small hose clamp', kind: 'clamp', from: 11, to: 14, count: 1 },
    ],
  },
  {
    name: 'E',
    count: 2,
    from: 10,
    to: 20,
    express: true,
    parts: [{ part: 'Grommet', kind: 'grommet', from: 10, to: 20, count: 1, slit: true }],
  },
];

function seal(diameter: number | undefined, measured?: number, through = false) {
  const one = cable(diameter, through);
  const { closure, cables } = joint('Dome 96', [[one, through ? 'express' : 'cut']], '', { ports });
  return sealPlan(closure, cables, new Map(measured === undefined ? [] : [[one.id, measured]]));
}
const codes = (plan: ReturnType<typeof seal>) => plan.cables[0]!.findings.map((finding) => finding.code);
const parts = (plan: ReturnType<typeof seal>) =>
  plan.cables[0]!.parts.map(({ part, count }) => `${count} ${part}`);

test('42.7 mm around are 13.59 mm across (geometry)', () => {
  expect(diameterOfCircumference(42.7)).toBeCloseTo(13.592, 3);
});

test('all parts whose range holds the cable are taken, ranges within ranges', () => {
  expect(parts(seal(13.59))).toEqual([
    '1 Seal M',
    '2 Spacer',
    '1 Small anti-twist clip',
    '1 Small hose clamp',
  ]);
  expect(parts(seal(15))).toEqual(['1 Seal M']);
  expect(parts(seal(11))).toEqual(['1 Seal M', '1 Small anti-twist clip', '1 Small hose clamp']);
  expect(parts(seal(16.4))).toEqual(['1 Seal M']);
});

test('ports that nothing uses get a plug each', () => {
  expect(seal(13.59).plugs).toEqual([
    { port: 'M', count: 1 },
    { port: 'E', count: 2 },
  ]);
});

test('a cable that goes through takes a slit seal, and its slit is kept off the seams', () => {
  const plan = seal(13, undefined, true);
  expect(plan.cables[0]!.port!.name).toBe('E');
  expect(codes(plan)).toEqual(['slit']);
});

test('no range that fits is told, with the nearest one', () => {
  const plan = seal(22);
  expect(codes(plan)).toEqual(['no-seal']);
  expect(prepareFindingWords(plan.cables[0]!.findings[0]!, 'mm').replace(/\u00a0/g, ' ')).toContain(
    'The nearest is E, 10 mm to 20 mm. Do not force it',
  );
});

test.each([
  ['zero', 0, 'diameter'],
  ['NaN', NaN, 'diameter'],
  ['inches entered as mm', 12.4 / 25.4, 'diameter-unit'],
  ['mm entered as inches', 12.4 * 25.4, 'diameter-unit'],
  ['a circumference', 12.4 * Math.PI, 'circumference'],
  ['another cable', 16, 'other-cable'],
])('%s is told', (_, measured, code) => {
  expect(codes(seal(12.4, measured))).toContain(code);
});

test('a thin cable is reminded of a bushing (common practice: under 1/2 in), a thick one is not; where the table is known, it says so', () => {
  const hinted = (diameter: number, parts: boolean) => {
    const own = parts ? ports : ports.map(({ parts: _, ...port }) => port);
    const one = cable(diameter);
    const { closure, cables } = joint('Dome 96', [[one, 'cut']], '', { ports: own });
    return codes(sealPlan(closure, cables, new Map())).includes('bushing');
  };
  expect([hinted(12.6, false), hinted(12.8, false), hinted(12.6, true)]).toEqual([true, false, false]);
});

test('nobody knows how thick it is: measure', () => {
  expect(codes(seal(undefined))).toEqual(['no-diameter']);
});

test('drops share a grommet that holds several, and a new one is begun when it is full', () => {
  const drops = [1, 2, 3].map((number) =>
    cableOf(
      number,
      { kind: 'drop', shape: 'flat', fibers: 1, toningWire: true, messenger: false },
      { diameter: 4 },
    ),
  );
  const grommet: NonNullable<Closure['ports']> = [
    {
      name: 'Drop',
      count: 2,
      from: 2,
      to: 8,
      express: false,
      parts: [{ part: 'Grommet', kind: 'grommet', from: 2, to: 8, count: 1, slit: true, holds: 2 }],
    },
  ];
  const { closure, cables } = joint(
    'Drop joint 4',
    drops.map((drop) => [drop, 'drop'] as const),
    '',
    { ports: grommet },
  );
  const plan = sealPlan(closure, cables, new Map());
  expect(plan.cables.every(({ port }) => port?.name === 'Drop')).toBe(true);
  expect(plan.plugs).toEqual([]);
  expect(plan.cables[0]!.findings.map(({ code }) => code)).toEqual(
    expect.arrayContaining(['shared', 'round-first', 'slit']),
  );
});

test('whatever the cables, no port is used more often than it is there, and every cable has a port or a finding', () => {
  fc.assert(
    fc.property(fc.array(fc.double({ min: 1, max: 30, noNaN: true }), { maxLength: 8 }), (diameters) => {
      const own = diameters.map((diameter, index) => cableOf(index + 1, equalTubes(1, 12), { diameter }));
      const { closure, cables } = joint(
        'Dome 288',
        own.map((one) => [one, 'cut'] as const),
        '',
      );
      const plan = sealPlan(closure, cables, new Map());
      for (const port of closure.ports!) {
        const used = plan.cables.filter((one) => one.port?.name === port.name).length;
        const plugs = plan.plugs.find((plug) => plug.port === port.name)?.count ?? 0;
        expect(used + plugs).toBe(port.count);
      }
      for (const one of plan.cables)
        if (one.port) {
          expect(one.port.from).toBeLessThanOrEqual(one.diameter! + 0.05);
          expect(one.port.to).toBeGreaterThanOrEqual(one.diameter! - 0.05);
          expect(one.parts.some(({ kind }) => kind === 'seal')).toBe(true);
        } else expect(one.findings.some(({ severity }) => severity === 'error')).toBe(true);
    }),
  );
});
