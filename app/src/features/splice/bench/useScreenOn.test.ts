import { act, renderHook } from '@testing-library/react';
import { useScreenOn } from './useScreenOn';

/** Locks that were asked for and are still held. */
let held = 0;
const request = jest.fn(async () => {
  held += 1;
  return { release: async () => void (held -= 1) };
});
let visibility: DocumentVisibilityState = 'visible';

beforeEach(() => {
  held = 0;
  request.mockClear();
  visibility = 'visible';
  Object.defineProperty(navigator, 'wakeLock', { value: { request }, configurable: true });
  Object.defineProperty(document, 'visibilityState', { get: () => visibility, configurable: true });
});
const turn = (next: DocumentVisibilityState) =>
  act(async () => {
    visibility = next;
    document.dispatchEvent(new Event('visibilitychange'));
  });

test('the screen stays on while the bench is shown, and again after the phone was locked', async () => {
  const { unmount } = renderHook(() => useScreenOn(true));
  await act(async () => undefined);
  expect(held).toBe(1);
  // The browser lets go by itself.
  held = 0;
  await turn('hidden');
  expect(request).toHaveBeenCalledTimes(1);
  await turn('visible');
  expect(held).toBe(1);
  await act(async () => unmount());
  expect(held).toBe(0);
  await turn('visible');
  expect(held).toBe(0);
});

test('nobody who does not want it is kept awake, and a device that refuses is no trouble', async () => {
  const { rerender } = renderHook(({ wanted }) => useScreenOn(wanted), { initialProps: { wanted: false } });
  await act(async () => undefined);
  expect(request).not.toHaveBeenCalled();
  request.mockRejectedValueOnce(new DOMException('saving power', 'NotAllowedError') as never);
  await act(async () => rerender({ wanted: true }));
  expect([request.mock.calls.length, held]).toEqual([1, 0]);
});
