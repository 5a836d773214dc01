import fc from 'fast-check';
import { cableOf, joint } from '../../../test/joint';
import { plainly } from '../../../test/plainly';
import { equalTubes, type Closure } from '../../index';
import { prepareFindingWords } from '../words';
import { basketFit } from './basket';
import { cutSheet } from './cutSheet';

/** Of G.652.D at rest, mm (ITU-T G.652: 30 mm). */
const bendRadius = 30;

test('a basket takes its turns times π times its coil', () => {
  // 6 × π × 200 = 3 769.9 mm; 1 626 mm: 3 turns of 172.5 mm.
  const fit = basketFit(1625.6, { basketDiameter: 200, basketTurns: 6 }, bendRadius)!;
  expect(fit.takes).toBeCloseTo(3769.911, 3);
  expect(fit.coil!.turns).toBe(3);
  expect(fit.coil!.diameter).toBeCloseTo(172.48, 2);
});

test('what is longer than all its turns does not fit, nor what would lie tighter than the fiber bears', () => {
  const basket = { basketDiameter: 100, basketTurns: 4 };
  expect(basketFit(1300, basket, bendRadius)!.coil).toBeNull();
  expect(basketFit(170, basket, bendRadius)!.coil).toBeNull();
  // Exactly its turns is no turn more.
  expect(basketFit(4 * Math.PI * 100, basket, bendRadius)!.coil).toMatchObject({ turns: 4 });
});

test('a basket whose size nobody gave is not guessed', () => {
  expect(basketFit(1626, { basketDiameter: 0, basketTurns: 4 }, bendRadius)).toBeNull();
  expect(basketFit(1626, { basketDiameter: 200, basketTurns: 0 }, bendRadius)).toBeNull();
});

test('whatever the basket: what fits is coiled without rest, not wider than it and not tighter than the fiber bears', () => {
  const numbers = fc.record({
    opening: fc.double({ min: 50, max: 10_000, noNaN: true }),
    basketDiameter: fc.integer({ min: 40, max: 500 }),
    basketTurns: fc.integer({ min: 1, max: 20 }),
  });
  fc.assert(
    fc.property(numbers, ({ opening, ...basket }) => {
      const { coil, takes } = basketFit(opening, basket, bendRadius)!;
      if (coil) {
        expect(coil.turns * Math.PI * coil.diameter).toBeCloseTo(opening, 6);
        expect(coil.diameter).toBeLessThanOrEqual(basket.basketDiameter + 1e-6);
        expect(coil.diameter).toBeGreaterThanOrEqual(2 * bendRadius);
        expect(coil.turns).toBeLessThanOrEqual(basket.basketTurns);
      } else {
        // No number of turns would do.
        for (let turns = 1; turns <= basket.basketTurns; turns += 1) {
          const wide = opening / (Math.PI * turns);
          expect(wide > basket.basketDiameter + 1e-9 || wide < 2 * bendRadius).toBe(true);
        }
        if (opening > takes + 1e-6)
          expect(opening / Math.PI / basket.basketTurns).toBeGreaterThan(basket.basketDiameter);
      }
    }),
  );
});

describe('the cut sheet of a cable that goes through', () => {
  const sheetOf = (lengths: Partial<NonNullable<Closure['lengths']>>, order = 'A- T1 > B T1') => {
    const cable = cableOf(1, equalTubes(4, 12), { through: true });
    const made = joint(
      'Dome 96',
      [
        [cable, 'express'],
        [cableOf(2, equalTubes(4, 12)), 'branch'],
      ],
      order,
    );
    const closure = { ...made.closure, lengths: { ...made.closure.lengths!, ...lengths } };
    return cutSheet(closure, made.plan, cable, { units: 'mm' });
  };
  test('says how its tubes lie in the basket', () => {
    expect(sheetOf({}).basket!.coil).toMatchObject({ turns: 3 });
    expect(sheetOf({}).findings).toEqual([]);
    // All of them are cut: nothing goes through.
    expect(sheetOf({}, 'A- T1-T4 > B T1-T4').basket).toBeNull();
    expect(sheetOf({ basketTurns: 0 }).basket).toBeNull();
  });
  test('warns where they do not, with how far to open', () => {
    const words = (lengths: Parameters<typeof sheetOf>[0]) =>
      sheetOf(lengths)
        .findings.filter(({ code }) => code === 'basket')
        .map((one) => plainly(prepareFindingWords(one, 'mm')));
    expect(words({ basketTurns: 2 })).toEqual([
      'The basket takes 2 turns of 200 mm, 1 257 mm of tubes that go through, and 1 626 mm are opened. Open by at most 1 257 mm, or store the rest elsewhere.',
    ]);
    expect(words({})).toEqual([]);
  });
  test('what it advises settles it', () => {
    for (const basketTurns of [1, 2])
      for (const basketDiameter of [120, 200]) {
        const [finding] = sheetOf({ basketTurns, basketDiameter }).findings.filter(
          ({ code }) => code === 'basket',
        );
        const { wanted } = finding!.params as { wanted: number };
        expect(basketFit(wanted, { basketTurns, basketDiameter }, bendRadius)!.coil).not.toBeNull();
      }
  });
});
