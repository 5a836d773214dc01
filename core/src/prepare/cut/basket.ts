import { sayAt } from '../../finding';
import { fiberOf } from '../../line/fiberType';
import type { Cable } from '../../line/cable';
import type { PrepareFinding } from '../words';
import type { PreparationLengths } from './lengths';
import { coilLength } from './slack';

/** How tubes that go through lie in the slack basket. mm */
export interface BasketFit {
  /** What it takes at its widest coil. */
  readonly takes: number;
  /** What is to be coiled: all that is opened, for nothing of it is cut. */
  readonly length: number;
  /** Turns, and how wide they lie so that the length comes out even; null where it does not fit. */
  readonly coil: { readonly turns: number; readonly diameter: number } | null;
}

/**
 * The express slack that a basket takes, and how it lies in it: `length` = turns × π × diameter. null where the closure's table does not say how wide the basket is, or nothing goes
 * through.
 * @param bendRadius that the fiber bears at rest, mm
 */
export function basketFit(
  opening: number,
  { basketDiameter, basketTurns }: Pick<PreparationLengths, 'basketDiameter' | 'basketTurns'>,
  bendRadius: number,
): BasketFit | null {
  if (basketDiameter <= 0 || basketTurns <= 0) return null;
  const takes = coilLength(basketTurns, basketDiameter);
  const turn = coilLength(1, basketDiameter);
  // What is left of a binary fraction is no turn.
  const turns = Math.max(1, Math.ceil(opening / turn - 1e-9));
  const diameter = opening / coilLength(turns, 1);
  return {
    takes,
    length: opening,
    coil: turns <= basketTurns && diameter >= 2 * bendRadius ? { turns, diameter } : null,
  };
}

/** What does not lie in the basket, and how far to open so that it does. */
export function basketFindings(
  cable: Cable,
  key: string,
  fit: BasketFit | null,
  lengths: PreparationLengths,
): PrepareFinding[] {
  const findings: PrepareFinding[] = [];
  if (!fit || fit.coil) return findings;
  const { bendRadius } = fiberOf(cable).type;
  const short = fit.length <= fit.takes;
  sayAt(findings, { kind: 'cable', key })(
    'basket',
    {
      length: fit.length,
      takes: fit.takes,
      turns: lengths.basketTurns,
      diameter: lengths.basketDiameter,
      wanted: short ? coilLength(1, lengths.basketDiameter) : fit.takes,
      tight: short ? 2 * bendRadius : null,
    },
    'warning',
  );
  return findings;
}
