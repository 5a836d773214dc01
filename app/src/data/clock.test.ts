import type * as Clock from './clock';

const now = Date.parse('2026-04-15T01:00:00.000Z');
const load = (): typeof Clock => {
  let loaded!: typeof Clock;
  jest.isolateModules(() => {
    loaded = jest.requireActual('./clock');
  });
  return loaded;
};
const heard = (offMs: number) => new Date(now + offMs).toUTCString();

beforeEach(() => {
  localStorage.clear();
  jest.useFakeTimers({ now });
});
afterEach(() => jest.useRealTimers());

test('a clock that is right, or a minute off, is left alone', () => {
  const { clockOff, hearServerTime } = load();
  hearServerTime(heard(60_000));
  expect(clockOff()).toBe(0);
  hearServerTime(null);
  hearServerTime('yesterday');
  expect(clockOff()).toBe(0);
});

test('a clock two hours off is corrected, and the seconds of a slow answer do not move the correction', () => {
  const { clockOff, correctedNow, hearServerTime } = load();
  hearServerTime(heard(2 * 3600_000));
  expect(clockOff()).toBe(2 * 3600_000);
  expect(correctedNow()).toBe(now + 2 * 3600_000);
  hearServerTime(heard(2 * 3600_000 - 5000));
  expect(clockOff()).toBe(2 * 3600_000);
});

test('when the clock was set right the correction goes', () => {
  const { clockOff, hearServerTime } = load();
  hearServerTime(heard(-3600_000));
  expect(clockOff()).toBe(-3600_000);
  hearServerTime(heard(0));
  expect(clockOff()).toBe(0);
});

test('with no network after a reload the correction is the one that was heard last', () => {
  load().hearServerTime(heard(2 * 3600_000));
  expect(load().correctedNow()).toBe(now + 2 * 3600_000);
});
