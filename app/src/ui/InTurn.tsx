import { Children, useEffect, useState, type ReactNode } from 'react';

/** Parts that are long to draw, one a frame: the first stands at once, and no tap waits for all of them. */
export function InTurn({ children }: { children: ReactNode }) {
  const parts = Children.toArray(children);
  const [count, setCount] = useState(1);
  useEffect(() => {
    if (count >= parts.length) return;
    const frame = requestAnimationFrame(() => setCount(count + 1));
    return () => cancelAnimationFrame(frame);
  }, [count, parts.length]);
  return parts.slice(0, count);
}
