import type { Cable } from '../../line/cable';
import type { ColorMark } from '../../line/colorCode';
import type { PlacedSplice } from '../../plan/trays/trayLayout';
import { ribbonPolarity } from '../../splice/bench/polarity';
import type { StepCheck } from './step';

/**
 * How a ribbon lies when both its holders are loaded: which colors lie at the hinge, left and right. Only the first and the last fiber of a side can lie there. The
 * keys stand in another order for every slot, so that nobody answers out of habit.
 */
export function hingeCheck(
  splice: Pick<PlacedSplice, 'left' | 'right' | 'slot'>,
  cables: ReadonlyMap<string, Cable>,
): StepCheck {
  const { hinge, pairs, polarity } = ribbonPolarity(splice, cables);
  const ends = [pairs[0]!, pairs.at(-1)!];
  const colors = (side: 'left' | 'right') => [...new Set(ends.map((pair) => pair[side].color))];
  const all = colors('left').flatMap((left) => colors('right').map((right) => [left, right] as const));
  const first = splice.slot % all.length;
  const [left, right] = [hinge.left.color, hinge.right.color];
  return {
    ask: `Ribbon at slot ${splice.slot}: which colors lie at the hinge, left and right?`,
    expects: 'colors',
    answer: codes(left, right),
    pairs: [...all.slice(first), ...all.slice(0, first)],
    wrong: `${codes(left, right)} belong there: ${polarity === 'reversed' ? 'this ribbon is planned reversed, so the right side begins with its last fiber' : 'both sides begin with their first fiber'}. Take the ribbon that lies the other way out and turn it over before the arc.`,
  };
}

const codes = (left: ColorMark, right: ColorMark) => `${left.code} ${right.code}`;
