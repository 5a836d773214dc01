import { useCallback, useEffect, useRef } from 'react';

/** A handler that stays the same function while what it does is always the newest: for what is drawn once and goes on calling it. */
export function useLatest<Given extends unknown[]>(handler: (...given: Given) => void): typeof handler {
  const newest = useRef(handler);
  useEffect(() => {
    newest.current = handler;
  });
  return useCallback((...given: Given) => newest.current(...given), []);
}
