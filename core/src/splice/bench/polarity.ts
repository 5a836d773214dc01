import type { Cable } from '../../line/cable';
import type { ColorMark } from '../../line/colorCode';
import { fiberName } from '../../line/fiberNumber';
import type { PlannedSplice } from '../../plan/order/order';

/** Which fiber meets which in one ribbon splice, by the numbers they have in their ribbons. */
export interface RibbonPair {
  readonly left: { readonly fiber: number; readonly color: ColorMark };
  readonly right: { readonly fiber: number; readonly color: ColorMark };
}

export interface RibbonPolarity {
  readonly pairs: readonly RibbonPair[];
  /** 1 meets 1, or 1 meets the last. null where it is neither: such a ribbon cannot be loaded. */
  readonly polarity: 'straight' | 'reversed' | null;
  /** The fibers that lie at the hinge when both holders are loaded with the left ribbon's first fiber there. */
  readonly hinge: RibbonPair;
}

/** How a ribbon splice lies in its holders. Throws RangeError for a fiber that its cable does not have. */
export function ribbonPolarity(
  splice: Pick<PlannedSplice, 'left' | 'right'>,
  cables: ReadonlyMap<string, Cable>,
): RibbonPolarity {
  const side = (end: PlannedSplice['left'][number]) => {
    const name = fiberName(cables.get(end.cableId)!, end.fiber);
    return { fiber: name.fiber, color: name.fiberColor };
  };
  const pairs = splice.left.map((end, index) => ({ left: side(end), right: side(splice.right[index]!) }));
  const steps = splice.right.slice(1).map((end, index) => end.fiber - splice.right[index]!.fiber);
  const polarity = steps.every((step) => step === 1)
    ? ('straight' as const)
    : steps.every((step) => step === -1)
      ? ('reversed' as const)
      : null;
  return { pairs, polarity, hinge: pairs[0]! };
}
