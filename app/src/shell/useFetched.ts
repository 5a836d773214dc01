import { useEffect, useState } from 'react';

import type * as FetchedLater from '../features/fetchedLater';

type Fetched = typeof FetchedLater;
let loaded: Fetched | null = null;

/**
 * What is fetched once the first screen stands, for a screen that uses more of it than a component; null until it is there. Quiet when the network is
 * away: the screen works without, and `again` (anything that changes now and then) tries anew.
 */
export function useFetched(again: unknown): Fetched | null {
  const [fetched, setFetched] = useState(loaded);
  useEffect(() => {
    if (fetched) return;
    let gone = false;
    void import('../features/fetchedLater').then(
      (all) => {
        loaded = all;
        if (!gone) setFetched(() => all);
      },
      () => undefined,
    );
    return () => {
      gone = true;
    };
  }, [fetched, again]);
  return fetched;
}
