import { useEffect, useState, type ComponentType } from 'react';
import { Failed, Loading } from './States';

interface Fetched<P> {
  component: ComponentType<P> | null;
}

/** Fetches a component once it is shown, and again when `again` changes; what was fetched is kept for all. */
function useComponent<P>(
  fetched: Fetched<P>,
  load: () => Promise<ComponentType<P>>,
  again: unknown,
): { there: boolean; error: Error | null } {
  const [state, setState] = useState<{ for: unknown; error: Error | null; there: boolean }>({
    for: again,
    error: null,
    there: fetched.component !== null,
  });
  const { there } = state;
  useEffect(() => {
    if (there) return;
    let gone = false;
    void load().then(
      (component) => {
        fetched.component = component;
        if (!gone) setState({ for: again, error: null, there: true });
      },
      (error: unknown) => {
        const why = error instanceof Error ? error : new Error(String(error));
        if (!gone) setState({ for: again, error: why, there: false });
      },
    );
    return () => {
      gone = true;
    };
  }, [there, fetched, load, again]);
  return { there, error: state.for === again ? state.error : null };
}

/**
 * A screen whose script is fetched when it is first opened, so that the bench and the route are there sooner. `fetchLater` brings all of them
 * in once the first screen stands, so that nothing is missing when the network goes; where it went before that, it is said, and tried again.
 */
export function later<P extends object>(
  what: string,
  load: () => Promise<ComponentType<P>>,
): ComponentType<P> {
  waiting.push(load);
  const fetched: Fetched<P> = { component: null };
  return function Later(props: P) {
    const [tries, setTries] = useState(0);
    const { error } = useComponent(fetched, load, tries);
    const Component = fetched.component;
    if (Component) return <Component {...props} />;
    if (error)
      return (
        <Failed
          error={new Error(`What shows ${what} could not be fetched: the network is away.`)}
          onRetry={() => setTries(tries + 1)}
        />
      );
    return <Loading what={what} />;
  };
}

/** The same for something that is good to have beside the work: nothing is shown until it is there, and `again` tries once more. */
export function laterOrNothing<P extends object>(
  load: () => Promise<ComponentType<P>>,
): ComponentType<P & { again: unknown }> {
  const fetched: Fetched<P> = { component: null };
  return function LaterOrNothing({ again, ...props }: P & { again: unknown }) {
    useComponent(fetched, load, again);
    const Component = fetched.component;
    return Component ? <Component {...(props as unknown as P)} /> : null;
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
