import { cableOf, joint } from '../../../test/joint';
import type { Construction } from '../../index';
import { hingeCheck } from './hingeCheck';
import { isRightAnswer, readAnswer } from './step';

const ribbons: Construction = { kind: 'central-ribbon', ribbons: 4, fibersPerRibbon: 12 };

function checks(order: string) {
  const { plan, cables } = joint(
    'Dome 96',
    [
      [cableOf(1, ribbons), 'cut'],
      [cableOf(2, ribbons), 'cut'],
    ],
    order,
  );
  return plan.splices.map((splice) => hingeCheck(splice, cables));
}
const right = (check: ReturnType<typeof hingeCheck>, text: string) =>
  isRightAnswer(check, readAnswer(check, text)!);

/** Trade: 1 meets 1 in a straight ribbon, 1 meets 12 in a reversed one; either may lie flipped, the second and third of a holder as well (common practice). */
test('every ribbon is asked, and each of the three ways to lie wrongly is caught', () => {
  const straight = checks('A R1-R4 > B R1-R4');
  expect(straight).toHaveLength(4);
  for (const check of straight) {
    expect(check.pairs!.map((pair) => pair.map(({ code }) => code).join(' ')).sort()).toEqual([
      'AQ AQ',
      'AQ BL',
      'BL AQ',
      'BL BL',
    ]);
    expect(['BL BL', 'BL AQ', 'AQ BL', 'AQ AQ'].map((text) => right(check, text))).toEqual([
      true,
      false,
      false,
      false,
    ]);
  }
  for (const check of checks('A R1-R2 > B R1-R2 reversed'))
    expect(['BL BL', 'BL AQ', 'AQ BL', 'AQ AQ'].map((text) => right(check, text))).toEqual([
      false,
      true,
      false,
      false,
    ]);
});

test('the keys change their places from slot to slot', () => {
  const firsts = checks('A R1-R4 > B R1-R4').map(({ pairs }) => pairs![0]!.map(({ code }) => code).join());
  expect(new Set(firsts).size).toBe(4);
});
