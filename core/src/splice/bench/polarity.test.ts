import fc from 'fast-check';
import { cableOf, joint } from '../../../test/joint';
import { ribbonSizes, type Construction } from '../../index';
import { ribbonPolarity } from './polarity';

const ribbons = (count: number, size: (typeof ribbonSizes)[number]): Construction => ({
  kind: 'central-ribbon',
  ribbons: count,
  fibersPerRibbon: size,
});
const polarityOf = (size: (typeof ribbonSizes)[number], ribbon: number, reversed: boolean) => {
  const { plan, cables } = joint(
    'Dome 288',
    [
      [cableOf(1, ribbons(12, size)), 'cut'],
      [cableOf(2, ribbons(12, size)), 'cut'],
    ],
    `A R${ribbon} > B R${ribbon}${reversed ? ' reversed' : ''}`,
  );
  return ribbonPolarity(plan.splices[0]!, cables);
};

test('straight, blue meets blue at the hinge; reversed for a method B channel, 1 meets 12 (common practice)', () => {
  const straight = polarityOf(12, 3, false);
  expect(straight.polarity).toBe('straight');
  expect([straight.hinge.left.color.code, straight.hinge.right.color.code]).toEqual(['BL', 'BL']);
  const reversed = polarityOf(12, 3, true);
  expect(reversed.polarity).toBe('reversed');
  expect([reversed.hinge.left.color.code, reversed.hinge.right.color.code]).toEqual(['BL', 'AQ']);
  expect(reversed.pairs.map(({ left, right }) => `${left.fiber}-${right.fiber}`).slice(0, 2)).toEqual([
    '1-12',
    '2-11',
  ]);
});

test('for every size: each fiber meets one, straight keeps the number, reversed mirrors it', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...ribbonSizes),
      fc.integer({ min: 1, max: 12 }),
      fc.boolean(),
      (size, ribbon, flipped) => {
        const { pairs, polarity } = polarityOf(size, ribbon, flipped);
        expect(polarity).toBe(flipped ? 'reversed' : 'straight');
        expect(pairs.map(({ left }) => left.fiber)).toEqual(
          Array.from({ length: size }, (_, index) => index + 1),
        );
        for (const { left, right } of pairs)
          expect(right.fiber).toBe(flipped ? size + 1 - left.fiber : left.fiber);
      },
    ),
  );
});
