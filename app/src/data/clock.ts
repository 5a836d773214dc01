import { z } from 'zod';
import { storedValue } from './stored';

/** Less than that is how long an answer takes, and nobody's mistake. ms */
const tolerated = 3 * 60_000;

/**
 * ms to be added to this device's clock. Kept: with no network after a reload the clock is as wrong as it was, and what is made then must not stand before what was made
 * earlier.
 */
const kept = storedValue('clock-off', z.number(), 0);
/** Where the device has no room to keep it. */
let unkept: number | null = null;
const off = () => unkept ?? kept.get();

/**
 * Compares this device's clock with the server's, by the Date of an answer. What is made after that carries the correction.
 * @param serverDate as in the header Date; whole seconds
 */
export function hearServerTime(serverDate: string | null): void {
  const server = serverDate === null ? NaN : Date.parse(serverDate);
  if (!Number.isFinite(server)) return;
  const difference = server - Date.now();
  const next = Math.abs(difference) > tolerated ? Math.round(difference / 1000) * 1000 : 0;
  // An answer that took a few seconds does not move the correction back and forth.
  if (Math.abs(next - off()) < 60_000 && (next === 0) === (off() === 0)) return;
  try {
    kept.set(next);
    unkept = null;
  } catch {
    unkept = next;
  }
}

/** ms to be added to this device's clock; 0 where it is right, or the server was not heard of. */
export function clockOff(): number {
  return off();
}

/** The time by which everything recorded is reckoned, ms since 1970: this device's, corrected where it is known to be wrong. */
export function correctedNow(): number {
  return Date.now() + off();
}

export function useClockOff(): number {
  const shown = kept.use();
  return unkept ?? shown;
}
