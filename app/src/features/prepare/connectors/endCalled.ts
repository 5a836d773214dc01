import { entryKey, type Closure, type FiberEnd } from '@cordel/core';

/** "C 1", "A+ 25": as the order calls an end. */
export function endCalled({ entries }: Pick<Closure, 'entries'>, { cableId, fiber, side }: FiberEnd): string {
  const index = entries.findIndex((entry) => entry.cableId === cableId);
  const key = index < 0 ? '?' : entryKey(entries[index]!, index);
  return `${key}${side === 'low' ? '-' : side === 'high' ? '+' : ''} ${fiber}`;
}
