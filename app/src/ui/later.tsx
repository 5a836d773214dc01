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

/** Fetches, one after the other, every screen that is not there yet. Quiet when the network is away: opening a screen tries again. */
export async function fetchLater(): Promise<void> {
  for (const load of waiting.splice(0)) await load().catch(() => undefined);
}
