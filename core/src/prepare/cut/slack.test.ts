import fc from 'fast-check';
import { cableOf, joint } from '../../../test/joint';
import { equalTubes } from '../../index';
import { cutSheet } from './cutSheet';
import { usualLengths } from './lengths';
import { cableBendRadius, coilLength, slackOf } from './slack';
import { prepareFindingWords } from '../words';

test('a coil is π times its diameter long (geometry): 2 coils of 80 mm are 502.65 mm', () => {
  expect(coilLength(2, 80)).toBeCloseTo(502.654824574367, 9);
  expect(coilLength(1, 1 / Math.PI)).toBeCloseTo(1, 12);
});

test('a cable is bent to 20 times its diameter under load and 10 times at rest (TIA-568)', () => {
  expect(cableBendRadius(12.4)).toEqual({ underLoad: 248, atRest: 124 });
});

test('64 in opened leave 956 mm at the tray, and with 700 mm to the machine six redos of 35 mm after the first preparation', () => {
  // By hand: 1625.6 − 640 − 30 = 955.6; 955.6 − 700 − 35 = 220.6; 220.6 / 35 = 6.3.
  const slack = slackOf(1625.6, usualLengths);
  expect(slack.free).toBeCloseTo(955.6, 9);
  expect(slack.spare).toBeCloseTo(220.6, 9);
  expect(slack.redos).toBe(6);
});

/** Trade: 3 in of free ends and 1/8 in are cut away for every ribbon that is made, and it is 4 in long (common practice). */
test('loose fibers made into ribbons have fewer redos: each makes a new ribbon', () => {
  const loose = slackOf(2000, usualLengths);
  const made = slackOf(2000, usualLengths, true);
  // 2000 − 670 − 700 − 101.6 − (35 + 79.375) = 414.025; / 114.375 = 3.6.
  expect(made.spare).toBeCloseTo(414.025, 9);
  expect(made.redos).toBe(3);
  expect(made.redos).toBeLessThan(loose.redos);
});

test('what does not even leave room for the first preparation is too short', () => {
  const { spare, redos } = slackOf(670 + 700 + 34, usualLengths);
  expect(spare).toBeCloseTo(-1, 9);
  expect(redos).toBe(0);
});

test('every redo takes its length: with n redos left there is fiber for n more tries, and not for n + 1', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0, max: 5000, noNaN: true }),
      fc.double({ min: 5, max: 100, noNaN: true }),
      (stub, redo) => {
        const { spare, redos } = slackOf(stub, { ...usualLengths, redo });
        if (redos > 0) expect(redos * redo).toBeLessThanOrEqual(spare + 1e-6);
        expect((redos + 1) * redo).toBeGreaterThan(spare - 1e-6);
      },
    ),
  );
});

const bent = (coilDiameter: number, fiberType: 'g652d' | 'g657a1' | 'g657a2' | 'g657b3') => {
  const a = cableOf(1, equalTubes(1, 12), { fiberType });
  const { closure, plan } = joint(
    'Dome 96',
    [
      [a, 'cut'],
      [cableOf(2, equalTubes(1, 12)), 'cut'],
    ],
    'A 1-12 > B 1-12',
  );
  return cutSheet({ ...closure, lengths: { ...closure.lengths!, coilDiameter } }, plan, a, {
    units: 'mm',
  }).findings.map(({ code }) => code);
};

// ITU-T G.657 design radii 10, 7.5 and 5 mm; G.652 is commonly held to 30 mm (from memory).
test.each([
  ['g652d', 60, 59],
  ['g657a1', 20, 19],
  ['g657a2', 15, 14],
  ['g657b3', 10, 9],
] as const)('%s may be coiled to %d mm and not to %d', (type, allowed, tight) => {
  expect(bent(allowed, type)).not.toContain('coil-bend');
  expect(bent(tight, type)).toContain('coil-bend');
});

test('a cable loop below 20 times the diameter across is told', () => {
  const a = cableOf(1, equalTubes(1, 12), { diameter: 31 });
  const { closure, plan } = joint(
    'Dome 96',
    [
      [a, 'cut'],
      [cableOf(2, equalTubes(1, 12)), 'cut'],
    ],
    'A 1-12 > B 1-12',
  );
  const finding = cutSheet(closure, plan, a, { units: 'mm' }).findings.find(
    ({ code }) => code === 'cable-bend',
  )!;
  expect(prepareFindingWords(finding, 'mm').replace(/\u00a0/g, ' ')).toContain('620 mm or more');
});
