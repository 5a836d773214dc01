import { useEffect } from 'react';

/**
 * Keeps the screen on as long as the bench is shown. The browser lets go of it whenever the page is hidden, so it is asked for again when somebody comes
 * back. Where there is none, or the device saves power, the screen goes dark as it always does.
 */
export function useScreenOn(wanted: boolean): void {
  useEffect(() => {
    if (!wanted || !('wakeLock' in navigator)) return;
    let gone = false;
    let lock: WakeLockSentinel | null = null;
    const ask = async () => {
      if (document.visibilityState !== 'visible') return;
      const next = await navigator.wakeLock.request('screen').catch(() => null);
      if (gone) void next?.release();
      else lock = next;
    };
    void ask();
    const again = () => void ask();
    document.addEventListener('visibilitychange', again);
    return () => {
      gone = true;
      document.removeEventListener('visibilitychange', again);
      void lock?.release();
    };
  }, [wanted]);
}
