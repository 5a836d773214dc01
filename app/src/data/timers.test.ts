import type * as Timers from './timers';

/** Clocks with the time of day in hand. */
const start = Date.UTC(2026, 3, 15, 1, 0, 0);

beforeEach(() => {
  localStorage.clear();
  jest.resetModules();
  jest.useFakeTimers({ now: start });
});
afterEach(() => jest.useRealTimers());

/** The clocks as a freshly loaded page finds them. */
const load = (): typeof Timers => {
  let loaded!: typeof Timers;
  jest.isolateModules(() => {
    loaded = jest.requireActual('./timers');
  });
  return loaded;
};
const kept = () =>
  JSON.parse(localStorage.getItem('cordel.timers') ?? '[]') as { id: string; endsAt: number }[];

test('a clock is kept by when it ends, so a reload changes nothing', () => {
  load().startTimer('a', 'Adhesive dries', 60);
  expect(kept()).toMatchObject([{ id: 'a', endsAt: start + 60_000 }]);
  jest.setSystemTime(start + 45_000);
  const { secondsLeft } = load();
  expect(secondsLeft(kept()[0] as never, Date.now())).toBe(15);
});

test('what is left is counted in whole seconds, never below 0 and never above the whole', () => {
  const { secondsLeft } = load();
  const timer = { id: 'a', label: '', seconds: 60, endsAt: start + 60_000 };
  expect(
    [start - 5000, start, start + 59_001, start + 60_000, start + 90_000].map((now) =>
      secondsLeft(timer, now),
    ),
  ).toEqual([60, 60, 1, 0, 0]);
});

test('starting a clock again begins anew, and stopping the last leaves nothing', () => {
  const { startTimer, stopTimer } = load();
  startTimer('a', 'Heater', 40);
  jest.setSystemTime(start + 30_000);
  startTimer('a', 'Heater', 40);
  expect(kept()).toMatchObject([{ endsAt: start + 70_000 }]);
  startTimer('b', 'Cooling', 30);
  stopTimer('a');
  expect(kept()).toMatchObject([{ id: 'b' }]);
  stopTimer('b');
  expect(kept()).toEqual([]);
});

test('what cannot be read is dropped, not shown', () => {
  localStorage.setItem('cordel.timers', '[{"id":1}]');
  const { startTimer } = load();
  startTimer('a', 'Heater', 40);
  expect(kept()).toHaveLength(1);
});

test('a clock reads like one', () => {
  const { clockWords } = load();
  expect([0, 5, 65, 600].map(clockWords)).toEqual(['0:00', '0:05', '1:05', '10:00']);
});
