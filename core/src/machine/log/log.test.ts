import fc from 'fast-check';
import { decodeLog, encodings, guessEncoding } from './encoding';
import { dateOrders, readTimes, type DateOrder } from './times';

declare class TextEncoder {
  encode(text: string): Uint8Array;
}
const utf8 = (text: string) => new TextEncoder().encode(text);
const utf16 = (text: string, little: boolean) =>
  Uint8Array.from(
    [...Array(text.length).keys()].flatMap((at) => {
      const code = text.charCodeAt(at);
      return little ? [code & 255, code >> 8] : [code >> 8, code & 255];
    }),
  );

describe('the encoding of a log', () => {
  const text = 'Número;Atenuação (dB);Ângulo\r\n1;0,03;0,4\r\n2;0,05;0,6\r\n';
  test.each([
    ['UTF-8', utf8(text), 'utf-8', true],
    ['UTF-8 with its mark', utf8(`\ufeff${text}`), 'utf-8', true],
    ['UTF-8 that was cut off within a character', utf8(text).slice(0, 2), 'utf-8', true],
    ['UTF-16 with its mark', utf16(`\ufeff${text}`, true), 'utf-16le', true],
    ['UTF-16 without it', utf16(text, true), 'utf-16le', true],
    ['UTF-16, the other way round', utf16(text, false), 'utf-16be', true],
    ['the Western page', Uint8Array.from([...text].map((one) => one.charCodeAt(0))), 'latin-1', false],
    ['plain letters', utf8('1;0.03'), 'utf-8', true],
    ['nothing', new Uint8Array(), 'utf-8', true],
  ] as const)('%s', (_, bytes, encoding, certain) => {
    expect(guessEncoding(bytes)).toEqual({ encoding, certain });
    if (bytes.length > 40) expect(decodeLog(bytes, encoding)).toBe(text);
  });

  test('law: whatever the bytes, it is one of the four, and they become some text', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 200 }), (bytes) => {
        const { encoding } = guessEncoding(bytes);
        expect(encodings).toContain(encoding);
        expect(typeof decodeLog(bytes, encoding)).toBe('string');
      }),
    );
  });
});

/** How a moment is written in a log. */
function written(at: number, zone: string, order: DateOrder, half: boolean, dated: boolean): string {
  const part = Object.fromEntries(
    new Intl.DateTimeFormat('en-US', {
      timeZone: zone,
      hourCycle: half ? 'h12' : 'h23',
      year: 'numeric',
      month: '2-digit',
      day: '2-digit',
      hour: '2-digit',
      minute: '2-digit',
      second: '2-digit',
    })
      .formatToParts(at)
      .map(({ type, value }) => [type, value]),
  ) as Record<string, string>;
  const { year, month, day, hour, minute, second, dayPeriod } = part;
  const date = {
    ymd: `${year}-${month}-${day}`,
    dmy: `${day}/${month}/${year}`,
    mdy: `${month}/${day}/${year}`,
  }[order];
  return `${dated ? `${date} ` : ''}${hour}:${minute}:${second}${half ? ` ${dayPeriod}` : ''}`;
}

/** Clocks in Lisbon are set ahead at 01:00 UTC on 29 March 2026 and back at 01:00 UTC on 25 October 2026 (EU rules); Phoenix sets none. */
const zones = [
  'Europe/Lisbon',
  'America/Sao_Paulo',
  'America/New_York',
  'Asia/Kolkata',
  'America/Phoenix',
  'Australia/Lord_Howe',
];
const nights = fc
  .tuple(
    fc.constantFrom(
      Date.UTC(2026, 2, 28, 20),
      Date.UTC(2026, 9, 24, 20),
      Date.UTC(2026, 2, 7, 20),
      Date.UTC(2026, 3, 15, 1),
    ),
    fc.array(fc.integer({ min: 20, max: 4 * 3600 }), { minLength: 1, maxLength: 12 }),
  )
  .map(([start, gaps]) =>
    gaps.map((_, index) => start + 1000 * gaps.slice(0, index + 1).reduce((sum, one) => sum + one, 0)),
  );

test('law: a night over midnight and over a change of clocks is read as it was, in any order of date, on 12 or 24 hours, with dates or without', () => {
  fc.assert(
    fc.property(
      nights,
      fc.constantFrom(...zones),
      fc.constantFrom<DateOrder>('ymd', 'dmy', 'mdy'),
      fc.boolean(),
      fc.boolean(),
      (night, zone, order, half, dated) => {
        const texts = night.map((at) => written(at, zone, order, half, dated));
        const [year, month, day] = written(night[0]!, zone, 'ymd', false, true).split(/[- ]/);
        const read = readTimes(texts, { order, zone }, dated ? null : `${year}-${month}-${day}`);
        read.forEach(({ at, doubt }, index) => {
          // An hour that was there twice can be told apart only by what came before it.
          if (doubt === 'twice') expect([0, 3600_000, 1800_000]).toContain(Math.abs(at! - night[index]!));
          else expect([index, at]).toEqual([index, night[index]]);
        });
        const times = read.map(({ at }) => at!);
        expect(times).toEqual([...times].sort((a, b) => a - b));
      },
    ),
    { numRuns: 300 },
  );
});

test('an hour that the clock showed twice is in doubt, and the second one is known by the row before; one that it never showed too', () => {
  const form = { order: 'ymd', zone: 'Europe/Lisbon' } as const;
  const [first, second] = readTimes(['2026-10-25 01:50', '2026-10-25 01:10'], form, null);
  expect([first, second]).toEqual([
    { at: Date.UTC(2026, 9, 25, 0, 50), doubt: 'twice' },
    { at: Date.UTC(2026, 9, 25, 1, 10), doubt: 'twice' },
  ]);
  expect(readTimes(['2026-03-29 01:30'], form, null)).toEqual([
    { at: Date.UTC(2026, 2, 29, 1, 30), doubt: 'never' },
  ]);
});

test('a time that says its own offset is taken by that, and twelve o’clock is midnight or noon', () => {
  const form = { order: 'dmy', zone: 'America/Sao_Paulo' } as const;
  const at = (text: string) => readTimes([text], form, '2026-04-15')[0]!.at;
  expect(at('2026-04-15T01:02:03Z')).toBe(Date.UTC(2026, 3, 15, 1, 2, 3));
  expect(at('2026-04-15T01:02:03.250+02:00')).toBe(Date.UTC(2026, 3, 14, 23, 2, 3, 250));
  // 3 h behind Greenwich.
  expect(at('12:05 AM')).toBe(Date.UTC(2026, 3, 15, 3, 5));
  expect(at('12:05 p.m.')).toBe(Date.UTC(2026, 3, 15, 15, 5));
  expect(at('15.04.26 23h10')).toBe(Date.UTC(2026, 3, 16, 2, 10));
});

test.each(['', 'no', '25:00', '13:00 PM', '0:30 AM', '31/04/2026 10:00', '12:60', '2026-13-01 10:00'])(
  '“%s” is no time',
  (text) =>
    expect(readTimes([text], { order: 'dmy', zone: 'UTC' }, '2026-04-15')).toEqual([
      { at: null, doubt: null },
    ]),
);

test('the order of day and month is told by a day above 12, else by dates that do not go back', () => {
  expect(dateOrders(['2026-04-15 10:00'])).toEqual(['ymd']);
  expect(dateOrders(['15/04/2026', '03/05/2026'])).toEqual(['dmy']);
  expect(dateOrders(['04/15/2026', '05/03/2026'])).toEqual(['mdy']);
  // 1 September and 1 October, or 9 and 10 January: neither goes back, and the person is asked.
  expect(dateOrders(['01/09/2026', '01/10/2026'])).toEqual(['dmy', 'mdy']);
  expect(dateOrders(['11/04/2026', '12/04/2026', '01/05/2026'])[0]).toBe('dmy');
  expect(dateOrders(['no date'])).toEqual([]);
});
