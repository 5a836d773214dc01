import { TZDate } from '@date-fns/tz';

/** Name of a project's time zone; null or undefined: times are shown as on the device. */
export type ShownZone = string | null | undefined;

/** The zone that this device is set to. */
export function ownTimeZone(): string {
  return Intl.DateTimeFormat().resolvedOptions().timeZone;
}

/** The manner in which Cordel's own words are written: 24 h, the month as a word. */
const manner = 'en-GB';

/** "22:05", in the zone; with the zone's name where its clock shows something else than the device's. */
export function clockTime(time: string | number, zone: ShownZone): string {
  return shown(time, zone, { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' });
}

/** "14 Apr 2026", in the zone. */
export function dayOf(time: string | number, zone: ShownZone): string {
  const known = knownZone(zone);
  let format = dayFormats.get(known);
  if (!format) {
    format = new Intl.DateTimeFormat(manner, {
      day: 'numeric',
      month: 'short',
      year: 'numeric',
      ...(known ? { timeZone: known } : {}),
    });
    dayFormats.set(known, format);
  }
  return format.format(new Date(time));
}

/** By zone: to make one takes a hundred times as long as to write a day with it. */
const dayFormats = new Map<string | undefined, Intl.DateTimeFormat>();

/** "Tue 14 Apr", in the zone: a day that is near. */
export function weekdayOf(time: string | number, zone: ShownZone): string {
  const known = knownZone(zone);
  let format = weekdayFormats.get(known);
  if (!format) {
    format = new Intl.DateTimeFormat(manner, {
      weekday: 'short',
      day: 'numeric',
      month: 'short',
      ...(known ? { timeZone: known } : {}),
    });
    weekdayFormats.set(known, format);
  }
  return format.format(new Date(time)).replace(',', '');
}

const weekdayFormats = new Map<string | undefined, Intl.DateTimeFormat>();

/** "14 Apr 2026, 22:05", as `clockTime`. */
export function dayAndTime(time: string | number, zone: ShownZone): string {
  return `${dayOf(time, zone)}, ${clockTime(time, zone)}`;
}

function shown(time: string | number, zone: ShownZone, how: Intl.DateTimeFormatOptions): string {
  const at = new Date(time);
  const known = knownZone(zone);
  const words = new Intl.DateTimeFormat(manner, { ...how, ...(known ? { timeZone: known } : {}) }).format(at);
  if (!known || new TZDate(at, known).getTimezoneOffset() === at.getTimezoneOffset()) return words;
  const named = new Intl.DateTimeFormat([], { timeZone: known, timeZoneName: 'short' }).formatToParts(at);
  return `${words} ${named.find((part) => part.type === 'timeZoneName')?.value ?? known}`;
}

/** An older device may not know a zone that a newer one gave; it shows its own time then. */
function knownZone(zone: ShownZone): string | undefined {
  if (!zone) return undefined;
  if (!knownZones.has(zone))
    try {
      new Intl.DateTimeFormat([], { timeZone: zone });
      knownZones.set(zone, zone);
    } catch {
      knownZones.set(zone, undefined);
    }
  return knownZones.get(zone);
}

const knownZones = new Map<string, string | undefined>();

/** What a clock in the zone shows at a time, as a date-and-time field holds it: "2026-04-14T22:00". */
export function wallTime(time: string, zone: ShownZone): string {
  const at = new TZDate(new Date(time), knownZone(zone) ?? ownTimeZone());
  const two = (part: number) => String(part).padStart(2, '0');
  return `${String(at.getFullYear()).padStart(4, '0')}-${two(at.getMonth() + 1)}-${two(at.getDate())}T${two(at.getHours())}:${two(at.getMinutes())}`;
}

/**
 * The time at which a clock in the zone shows this, ISO 8601 in UTC; null when it is no date and time. Of an hour that comes twice, when clocks
 * are set back, it is the first; one that is left out lies an hour later.
 */
export function timeOfWall(wall: string, zone: ShownZone): string | null {
  const match = /^(\d{4})-(\d\d)-(\d\d)T(\d\d):(\d\d)$/.exec(wall);
  if (!match) return null;
  const [year, month, day, hour, minute] = match.slice(1).map(Number) as [
    number,
    number,
    number,
    number,
    number,
  ];
  const at = new TZDate(year, month - 1, day, hour, minute, knownZone(zone) ?? ownTimeZone());
  if (at.getMonth() !== month - 1 || at.getDate() !== day) return null;
  const found = new Date(at.getTime()).toISOString();
  const hourBefore = new Date(at.getTime() - 3_600_000).toISOString();
  return wallTime(hourBefore, zone) === wall ? hourBefore : found;
}
