import { lazy, Suspense, type ComponentType } from 'react';
import { Loading } from './States';

/**
 * A screen whose script is fetched when it is first opened, so that the bench and the route are there sooner. `fetchLater` brings all of them
 * in once the first screen stands, so that nothing is missing when the network goes.
 */
export function later<P extends object>(
  what: string,
  load: () => Promise<ComponentType<P>>,
): ComponentType<P> {
  waiting.push(load);
  const Lazy = lazy(async () => ({ default: await load() }));
  return function Later(props: P) {
    return (
      <Suspense fallback={<Loading what={what} />}>
        <Lazy {...props} />
      </Suspense>
    );
  };
}

const waiting: (() => Promise<unknown>)[] = [];

/** How long the first screen has the device to itself. */
const restMs = 4000;

/**
 * Fetches every screen that is not there yet, each in a moment when there is nothing else to do. Quiet when the network is away: opening a
 * screen tries again. Returns how to call it off.
 */
export function fetchLater(): () => void {
  let off = false;
  const next = async () => {
    const load = off ? undefined : waiting.shift();
    if (!load) return;
    await load().catch(() => undefined);
    whenIdle(() => void next());
  };
  const timer = setTimeout(() => whenIdle(() => void next()), restMs);
  return () => {
    off = true;
    clearTimeout(timer);
  };
}

function whenIdle(work: () => void): void {
  // Not every browser has it.
  if ('requestIdleCallback' in window) window.requestIdleCallback(work);
  else setTimeout(work, 50);
}
