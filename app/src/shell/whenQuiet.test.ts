import { whenQuiet } from './whenQuiet';

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());
const touch = () => window.dispatchEvent(new Event('pointerdown'));

test('work begins when nobody touched the page for a while, once', () => {
  const work = jest.fn();
  whenQuiet(work, 1000);
  jest.advanceTimersByTime(900);
  touch();
  jest.advanceTimersByTime(900);
  expect(work).not.toHaveBeenCalled();
  jest.advanceTimersByTime(100);
  touch();
  jest.advanceTimersByTime(20_000);
  expect(work).toHaveBeenCalledTimes(1);
});

test('however busy somebody is, it begins at last; called off, never', () => {
  const work = jest.fn();
  whenQuiet(work, 1000);
  for (let index = 0; index < 1250; index += 1) {
    touch();
    jest.advanceTimersByTime(100);
  }
  expect(work).toHaveBeenCalledTimes(1);
  const never = jest.fn();
  whenQuiet(never, 1000)();
  jest.advanceTimersByTime(5000);
  expect(never).not.toHaveBeenCalled();
});
