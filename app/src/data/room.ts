import { useEffect, useState } from 'react';

/** From here on somebody is told: a night of splices takes about one. bytes */
const scarce = 20_000_000;
const everySoOften = 60_000;

/** How many bytes the browser still has for Cordel on this device where that is little; null where it is enough, or not known. */
export function useLittleRoom(): number | null {
  const [left, setLeft] = useState<number | null>(null);
  useEffect(() => {
    let gone = false;
    const look = async () => {
      const { quota, usage } = (await navigator.storage?.estimate?.().catch(() => null)) ?? {};
      if (!gone) setLeft(quota === undefined || usage === undefined ? null : quota - usage);
    };
    void look();
    const timer = setInterval(() => void look(), everySoOften);
    return () => {
      gone = true;
      clearInterval(timer);
    };
  }, []);
  return left !== null && left < scarce ? Math.max(0, left) : null;
}
