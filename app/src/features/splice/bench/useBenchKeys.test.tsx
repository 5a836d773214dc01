import { act, renderHook } from '@testing-library/react';
import { lossOfKeys, useBenchKeys } from './useBenchKeys';

test.each([
  ['7', 0.07],
  ['14', 0.14],
  ['140', 1.4],
  ['0.145', 0.145],
  ['.2', 0.2],
])('the keys %s are %p dB', (typed, loss) => expect(lossOfKeys(typed)).toBeCloseTo(loss, 12));

function bench(change: Partial<Parameters<typeof useBenchKeys>[0]> = {}) {
  const calls: unknown[] = [];
  const { result } = renderHook(() =>
    useBenchKeys({
      enabled: true,
      entering: true,
      onReading: (loss) => calls.push(loss),
      onMove: (by) => calls.push(by),
      onSkip: () => calls.push('skip'),
      onTakeBack: () => calls.push('take back'),
      onHelp: () => calls.push('help'),
      ...change,
    }),
  );
  const type = (...keys: string[]) =>
    keys.forEach((key) => act(() => void window.dispatchEvent(new KeyboardEvent('keydown', { key }))));
  return { calls, type, typed: () => result.current };
}

test('digits enter, Enter confirms', () => {
  const { calls, type, typed } = bench();
  type('1', '4');
  expect(typed()).toBe('0.14');
  type('Enter');
  expect(calls).toEqual([0.14]);
  expect(typed()).toBeNull();
  type('Enter');
  expect(calls).toEqual([0.14]);
});

test('Enter enters what was typed, also while a key of the pad has the focus; with nothing typed it presses that key', () => {
  const { calls, type } = bench();
  const key = document.body.appendChild(document.createElement('div'));
  key.addEventListener('keydown', (event) => {
    // As pressable controls do.
    event.stopPropagation();
    calls.push(`pressed by ${event.key}`);
  });
  const enter = () =>
    act(() => void key.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true })));
  type('1', '4');
  enter();
  expect(calls).toEqual([0.14]);
  enter();
  expect(calls).toEqual([0.14, 'pressed by Enter']);
  key.remove();
});

test('Backspace and Escape take digits away', () => {
  const { calls, type, typed } = bench();
  type('1', '4', 'Backspace');
  expect(typed()).toBe('0.01');
  type('Escape', 'Enter');
  expect([typed(), calls]).toEqual([null, []]);
});

test('arrows move, letters skip and take back, ? helps', () => {
  const { calls, type } = bench();
  type('ArrowDown', 'ArrowUp', 's', 'u', '?');
  expect(calls).toEqual([1, -1, 'skip', 'take back', 'help']);
});

test('a settled splice takes no digits, and a sheet takes the whole keyboard', () => {
  const settled = bench({ entering: false });
  settled.type('5', 'Enter', 'ArrowDown');
  expect(settled.calls).toEqual([1]);
  const covered = bench({ enabled: false });
  covered.type('5', 'Enter', 'ArrowDown');
  expect(covered.calls).toEqual([]);
});
