import { isTimeZone } from '../line/timeZone';

/** Minutes after midnight that a clock in the zone shows; null: by the zone of whoever runs this. */
export function dayMinute(time: number, zone: string | null | undefined): number {
  const parts = formatOf(zone).formatToParts(time);
  const of = (type: string) => Number(parts.find((part) => part.type === type)!.value);
  return of('hour') * 60 + of('minute');
}

/** The first time, not before this one, at which a clock in the zone shows so many minutes after midnight. ms since 1970. */
export function clockAfter(time: number, minute: number, zone: string | null | undefined): number {
  const day = 24 * 60;
  const whole = Math.floor(time / 60_000) * 60_000;
  const off = (at: number) => (((minute - dayMinute(at, zone)) % day) + day) % day;
  let found = whole + off(whole) * 60_000;
  // Clocks that are set in between: once more, by what is missing then.
  const rest = off(found);
  if (rest !== 0) found += (rest > day / 2 ? rest - day : rest) * 60_000;
  return found < time ? clockAfter(whole + 60_000, minute, zone) : found;
}

/** The same time of day so many days later, by the clocks of the zone: over a change of clocks a day is not 24 h. ms since 1970. */
export function daysLater(time: number, days: number, zone: string | null | undefined): number {
  const half = 12 * 3_600_000;
  return clockAfter(time + days * 2 * half - half, dayMinute(time, zone), zone);
}

const formats = new Map<string, Intl.DateTimeFormat>();

function formatOf(zone: string | null | undefined): Intl.DateTimeFormat {
  const key = zone ?? '';
  let format = formats.get(key);
  if (!format) {
    format = new Intl.DateTimeFormat('en-GB', {
      hour: '2-digit',
      minute: '2-digit',
      hourCycle: 'h23',
      ...(zone && isTimeZone(zone) ? { timeZone: zone } : {}),
    });
    formats.set(key, format);
  }
  return format;
}
