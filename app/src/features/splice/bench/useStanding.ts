import type { SpliceState } from '@cordel/core';
import { router } from 'expo-router';
import { useEffect, useRef, useState } from 'react';
import { useLatest } from '../../../ui/useLatest';

/** How long one must have stood still before the address follows. Changing it takes the router longer than a verdict may take. */
const followMs = 600;

interface Place {
  readonly tray: number;
  readonly slot: number;
}

/**
 * Where on the cord one stands. The address says it, so that a link, a reload and the back button work; but a move is shown at once and
 * the address follows a moment later. An address that changes by itself wins.
 */
export function useStanding({ tray, slot }: Place): Place & { go: (state: SpliceState) => void } {
  const address = `${tray}.${slot}`;
  const [moved, setMoved] = useState({ address, tray, slot });
  const follow = useRef<ReturnType<typeof setTimeout>>(undefined);
  const standing = useRef(true);
  useEffect(() => {
    standing.current = true;
    return () => {
      standing.current = false;
      // Also when the address changed by itself: an older move must not pull one back.
      clearTimeout(follow.current);
    };
  }, [address]);

  // A reading that is being put on the disk moves on from the address as it is then; who left meanwhile is not called back.
  const go = useLatest(({ splice }: SpliceState) => {
    if (!standing.current) return;
    setMoved({ address, tray: splice.tray, slot: splice.slot });
    clearTimeout(follow.current);
    follow.current = setTimeout(
      () => router.setParams({ tray: String(splice.tray), slot: String(splice.slot) }),
      followMs,
    );
  });
  // Until the address has followed, it is still the one that was left.
  const here = moved.address === address ? moved : { tray, slot };
  return { tray: here.tray, slot: here.slot, go };
}
