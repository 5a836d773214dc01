/** Times in a machine's log: by its own clock, in some order of day and month, in some zone. */

export type DateOrder = 'ymd' | 'dmy' | 'mdy';

export interface TimeForm {
  readonly order: DateOrder;
  /** Name in the IANA database of the zone that the machine's clock is set to. */
  readonly zone: string;
}

/** What a text says of a moment; without a date where it has only a time of day. */
interface Parts {
  readonly date: { readonly year: number; readonly month: number; readonly day: number } | null;
  /** Seconds since midnight. */
  readonly seconds: number;
  /** Minutes east of Greenwich, where the text says so itself. */
  readonly offset: number | null;
}

const clock = /(\d{1,2})[:.h](\d{2})(?:[:.m](\d{2}))?(?:[.,](\d{1,6}))?\s*([ap]\.?\s?m\.?)?/i;
const dateText = /(\d{1,4})[-/. ](\d{1,2})[-/. ](\d{1,4})/;
const offsetText = /(Z|[+-]\d{2}:?\d{2})$/i;

/** null where it is no time. */
function partsOf(text: string, order: DateOrder): Parts | null {
  const day = dateText.exec(text);
  const rest = day ? text.slice(day.index + day[0].length) : text;
  const time = clock.exec(rest);
  if (!time) return null;
  const [, hourText, minuteText, secondText = '0', fraction = '', half] = time;
  const [minute, second] = [Number(minuteText), Number(secondText)];
  let hour = Number(hourText);
  if (half) {
    if (hour < 1 || hour > 12) return null;
    hour = (hour % 12) + (/^p/i.test(half) ? 12 : 0);
  }
  if (hour > 23 || minute > 59 || second > 59) return null;
  const said = offsetText.exec(rest.trim())?.[1];
  const date = day
    ? dateOf([Number(day[1]), Number(day[2]), Number(day[3])], day[1]!.length === 4 ? 'ymd' : order)
    : null;
  if (day && !date) return null;
  return {
    date,
    seconds: hour * 3600 + minute * 60 + second + Number(`0.${fraction || '0'}`),
    offset: said === undefined ? null : minutesOf(said),
  };
}

function minutesOf(said: string): number {
  if (/^z$/i.test(said)) return 0;
  const [hours, minutes] = [Number(said.slice(1, 3)), Number(said.slice(-2))];
  return (said.startsWith('-') ? -1 : 1) * (hours * 60 + minutes);
}

function dateOf(
  [a, b, c]: readonly [number, number, number],
  order: DateOrder,
): { year: number; month: number; day: number } | null {
  const [year, month, day] = order === 'ymd' ? [a, b, c] : order === 'dmy' ? [c, b, a] : [c, a, b];
  const full = year < 100 ? 2000 + year : year;
  const made = new Date(Date.UTC(full, month - 1, day));
  // 31 April is no day.
  return made.getUTCMonth() === month - 1 && made.getUTCDate() === day && full >= 2000 && full < 2200
    ? { year: full, month, day }
    : null;
}

/** The orders in which all of these dates are days, the likeliest first: where the year leads it is said; else the one in which they do not go back. */
export function dateOrders(texts: readonly string[]): readonly DateOrder[] {
  const days = texts.flatMap((text) => {
    const found = dateText.exec(text);
    return found ? [[found[1]!, Number(found[1]), Number(found[2]), Number(found[3])] as const] : [];
  });
  if (days.length === 0) return [];
  const fits = (order: DateOrder) => {
    const read = days.map(([first, a, b, c]) => dateOf([a, b, c], first.length === 4 ? 'ymd' : order));
    if (read.some((one) => one === null)) return null;
    const numbers = read.map((one) => Date.UTC(one!.year, one!.month - 1, one!.day));
    return numbers.filter((one, index) => index > 0 && one < numbers[index - 1]!).length;
  };
  const orders = (days[0]![0].length === 4 ? ['ymd'] : ['dmy', 'mdy', 'ymd']) as readonly DateOrder[];
  return orders
    .flatMap((order) => {
      const back = fits(order);
      return back === null ? [] : [{ order, back }];
    })
    .sort((a, b) => a.back - b.back)
    .map(({ order }) => order);
}

export interface ReadTime {
  /** ms since 1970; null where the text is no time. */
  readonly at: number | null;
  /** The clock showed this time twice that day, or never. */
  readonly doubt: 'twice' | 'never' | null;
}

const formats = new Map<string, Intl.DateTimeFormat>();

/** Of moments that were asked for: clocks are changed on a quarter of an hour, so within one they are as far ahead. */
const quarter = 15 * 60_000;
const known = new Map<string, number>();

/** ms that clocks in a zone are ahead of Greenwich at a moment. */
function offsetAt(at: number, zone: string): number {
  const key = `${zone} ${Math.floor(at / quarter)}`;
  const before = known.get(key);
  if (before !== undefined) return before;
  if (known.size > 10_000) known.clear();
  const found = offsetNow(at, zone);
  known.set(key, found);
  return found;
}

function offsetNow(at: number, zone: string): number {
  let format = formats.get(zone);
  if (!format)
    formats.set(
      zone,
      (format = new Intl.DateTimeFormat('en-US', {
        timeZone: zone,
        hourCycle: 'h23',
        year: 'numeric',
        month: 'numeric',
        day: 'numeric',
        hour: 'numeric',
        minute: 'numeric',
        second: 'numeric',
      })),
    );
  const part = Object.fromEntries(format.formatToParts(at).map(({ type, value }) => [type, Number(value)]));
  const shown = Date.UTC(part.year!, part.month! - 1, part.day!, part.hour!, part.minute!, part.second!);
  return shown - Math.floor(at / 1000) * 1000;
}

const day = 24 * 3600_000;
const hour = 3600_000;

/** The moments at which clocks in a zone show a time: one, two where they are set back, none where they are set ahead. */
function momentsOf(local: number, zone: string): number[] {
  const offsets = new Set([offsetAt(local - day, zone), offsetAt(local + day, zone)]);
  return [...offsets]
    .map((offset) => local - offset)
    .filter((at) => offsetAt(at, zone) === local - at)
    .sort((a, b) => a - b);
}

/**
 * Reads the times of a log, row by row in its order. A time without a date is that of the row before, or of the next day where it would lie far back. Where clocks are set back, the later
 * of two moments is taken only if the earlier lies before the row before.
 * @param firstDay of rows without a date: "2026-04-15"; null where none is known
 */
export function readTimes(
  texts: readonly string[],
  { order, zone }: TimeForm,
  firstDay: string | null,
): ReadTime[] {
  let midnight = firstDay === null ? null : Date.parse(`${firstDay}T00:00:00Z`);
  let before = -Infinity;
  return texts.map((text) => {
    const parts = partsOf(text.trim(), order);
    if (!parts || (parts.date === null && midnight === null)) return { at: null, doubt: null };
    const { date, seconds, offset } = parts;
    if (date) midnight = Date.UTC(date.year, date.month - 1, date.day);
    const read = (from: number): ReadTime => {
      const local = from + Math.round(seconds * 1000);
      if (offset !== null) return { at: local - offset * 60_000, doubt: null };
      const moments = momentsOf(local, zone);
      // Clocks were set ahead over it: the time that it would have been.
      if (moments.length === 0) return { at: local - offsetAt(local - day, zone), doubt: 'never' };
      const later = moments.find((at) => at >= before) ?? moments.at(-1)!;
      return { at: later, doubt: moments.length > 1 ? 'twice' : null };
    };
    let found = read(midnight!);
    if (!date && found.at! < before - 6 * hour) {
      midnight = midnight! + day;
      found = read(midnight);
    }
    before = Math.max(before, found.at!);
    return found;
  });
}
