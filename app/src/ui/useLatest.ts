import { useCallback, useLayoutEffect, useRef } from 'react';

/** A handler that stays the same function while what it does is always the newest: for what is drawn once and goes on calling it. */
export function useLatest<Given extends unknown[], Result>(
  handler: (...given: Given) => Result,
): typeof handler {
  const newest = useRef(handler);
  // As soon as it stands: what is under way goes on with it.
  useLayoutEffect(() => {
    newest.current = handler;
  });
  return useCallback((...given: Given) => newest.current(...given), []);
}
