import { useEffect, useState } from 'react';
import { z } from 'zod';
import { storedValue } from './stored';

/** A clock that runs on whatever the screen shows, also over a reload: what is kept is when it ends. */
const timerSchema = z.object({
  id: z.string(),
  label: z.string(),
  seconds: z.number(),
  /** ms since 1970 */
  endsAt: z.number(),
});
export type Timer = z.infer<typeof timerSchema>;

const timers = storedValue<readonly Timer[]>('timers', z.array(timerSchema), []);

/** Starts a clock, or starts the one of this id again. */
export function startTimer(id: string, label: string, seconds: number): void {
  const timer = { id, label, seconds, endsAt: Date.now() + seconds * 1000 };
  timers.set([...timers.get().filter((one) => one.id !== id), timer]);
}

export function stopTimer(id: string): void {
  timers.set(timers.get().filter((one) => one.id !== id));
}

export const useTimers = timers.use;

/** The time, told again every second until the last of these clocks is done. */
export function useNow(running: readonly Timer[]): number {
  const [now, setNow] = useState(Date.now);
  useEffect(() => {
    const last = Math.max(0, ...running.map((timer) => timer.endsAt));
    const tell = () => {
      const next = Date.now();
      setNow(next);
      if (next >= last) clearInterval(clock);
    };
    const clock = setInterval(tell, 1000);
    // What was told last may be long ago.
    const first = setTimeout(tell);
    return () => {
      clearInterval(clock);
      clearTimeout(first);
    };
  }, [running]);
  return now;
}

/** Seconds left; 0 when it is done. */
export function secondsLeft(timer: Timer, now: number): number {
  return Math.max(0, Math.min(timer.seconds, Math.ceil((timer.endsAt - now) / 1000)));
}

/** "1:05" */
export function clockWords(seconds: number): string {
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;
}
