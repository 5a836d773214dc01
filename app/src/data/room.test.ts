import { act, renderHook } from '@testing-library/react';
import { useLittleRoom, useRoom } from './room';

const room = async (estimate: (() => Promise<StorageEstimate>) | undefined) => {
  Object.defineProperty(navigator, 'storage', { configurable: true, value: estimate && { estimate } });
  const { result, unmount } = renderHook(() => useLittleRoom());
  await act(async () => undefined);
  unmount();
  return result.current;
};

test('little room is told with how much is left; enough, or not known, is not', async () => {
  expect(await room(() => Promise.resolve({ quota: 50_000_000, usage: 45_000_000 }))).toBe(5_000_000);
  expect(await room(() => Promise.resolve({ quota: 50_000_000, usage: 60_000_000 }))).toBe(0);
  expect(await room(() => Promise.resolve({ quota: 50_000_000, usage: 1 }))).toBeNull();
  expect(await room(() => Promise.resolve({}))).toBeNull();
  expect(await room(() => Promise.reject(new Error('no')))).toBeNull();
  expect(await room(undefined)).toBeNull();
});

test('what is taken, how much may be, and whether the browser promised to keep it', async () => {
  const storage = {
    estimate: () => Promise.resolve({ quota: 50_000_000, usage: 3_000_000 }),
    persisted: () => Promise.resolve(true),
  };
  Object.defineProperty(navigator, 'storage', { configurable: true, value: storage });
  const { result, unmount } = renderHook(() => useRoom());
  await act(async () => undefined);
  expect(result.current).toEqual({ usage: 3_000_000, quota: 50_000_000, persisted: true });
  unmount();
});
