import type { Cable } from '../../line/cable';
import { unitOf } from '../../line/fiberNumber';
import type { PlannedSplice } from '../../plan/order/order';

export type SpliceSide = 'left' | 'right';

/** The sides of a ribbon splice on which loose fibers have to be made into a ribbon first. */
export function looseSides(
  { kind, left, right }: Pick<PlannedSplice, 'kind' | 'left' | 'right'>,
  cables: ReadonlyMap<string, Cable>,
): SpliceSide[] {
  if (kind !== 'ribbon') return [];
  const loose = ([end]: PlannedSplice['left']) =>
    unitOf(cables.get(end!.cableId)!.construction, end!.fiber).kind !== 'ribbon';
  return [...(loose(left) ? (['left'] as const) : []), ...(loose(right) ? (['right'] as const) : [])];
}
