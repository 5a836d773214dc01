import { useEffect, useRef } from 'react';

type Actions<A> = { readonly [Name in keyof A]: (...given: never[]) => void };

/**
 * Does one thing after another where each waits for the disk: what is asked for meanwhile, by a quick hand, is done when the one before is shown, as it
 * is then. Where that one was not kept, what was asked for after it was meant for another state, and is left.
 */
export function useTurns<A extends Actions<A>>() {
  const writing = useRef(false);
  const queue = useRef<((now: A) => void)[]>([]);
  const newest = useRef<A | null>(null);
  const offered = useRef<A | null>(null);
  useEffect(() => {
    newest.current = offered.current;
  });

  const go = (): void => {
    while (!writing.current && newest.current) {
      const next = queue.current.shift();
      if (!next) return;
      next(newest.current);
    }
  };
  return {
    /** @param kept whether what was just begun is on the disk */
    take: (kept: Promise<boolean>): void => {
      writing.current = true;
      void kept.then((done) => {
        writing.current = false;
        if (!done) queue.current = [];
        go();
      });
    },
    inTurn: (actions: A): A => {
      offered.current = actions;
      const inTurn = <Name extends keyof A>(name: Name): A[Name] =>
        ((...given: never[]) => {
          if (writing.current) queue.current.push((now) => now[name](...given));
          else actions[name](...given);
        }) as A[Name];
      return Object.fromEntries(
        Object.keys(actions).map((name) => [name, inTurn(name as keyof A)]),
      ) as unknown as A;
    },
  };
}
