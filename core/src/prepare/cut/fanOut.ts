import { isSmall, type Cable } from '../../line/cable';
import type { PlannedEnd } from '../../plan/order/order';

/** A fan-out kit takes so many fibers (common practice). */
export const fanOutFibers = 12;

/** Fan-out kits for the bare fibers among these ends, cable by cable; drops and pigtails need none. */
export function fanOutKits(ends: readonly PlannedEnd[], cables: ReadonlyMap<string, Cable>): number {
  const bare = new Map<string, number>();
  for (const { cableId } of ends)
    if (!isSmall(cables.get(cableId)!)) bare.set(cableId, (bare.get(cableId) ?? 0) + 1);
  return [...bare.values()].reduce((sum, fibers) => sum + Math.ceil(fibers / fanOutFibers), 0);
}
