import type { SpliceState } from '@cordel/core';
import { act, renderHook } from '@testing-library/react';
import { router } from 'expo-router';
import { useStanding } from './useStanding';

jest.mock('expo-router', () => ({ router: { setParams: jest.fn() } }));
const address = jest.mocked(router.setParams);

beforeEach(() => {
  address.mockClear();
  jest.useFakeTimers();
});
afterEach(() => jest.useRealTimers());

const at = (tray: number, slot: number) => ({ splice: { tray, slot } }) as SpliceState;
const stand = (tray: number, slot: number) =>
  renderHook((place: { tray: number; slot: number }) => useStanding(place), { initialProps: { tray, slot } });
const placeOf = ({ tray, slot }: ReturnType<typeof useStanding>) => [tray, slot];

test('a move is shown at once, and the address follows when one stands still', () => {
  const { result } = stand(3, 6);
  act(() => result.current.go(at(3, 7)));
  expect(placeOf(result.current)).toEqual([3, 7]);
  act(() => jest.advanceTimersByTime(500));
  act(() => result.current.go(at(3, 8)));
  act(() => jest.advanceTimersByTime(500));
  expect(address).not.toHaveBeenCalled();
  act(() => jest.advanceTimersByTime(100));
  expect(address.mock.calls).toEqual([[{ tray: '3', slot: '8' }]]);
});

test('an address that changes by itself wins, and an older move does not pull one back', () => {
  const { result, rerender } = stand(3, 6);
  act(() => result.current.go(at(3, 7)));
  // The back button, or a link.
  rerender({ tray: 2, slot: 19 });
  expect(placeOf(result.current)).toEqual([2, 19]);
  act(() => jest.advanceTimersByTime(1000));
  expect(address).not.toHaveBeenCalled();
  expect(placeOf(result.current)).toEqual([2, 19]);
});

test('the address that has followed is where one stands, and one goes on from there', () => {
  const { result, rerender } = stand(3, 6);
  act(() => result.current.go(at(3, 7)));
  act(() => jest.advanceTimersByTime(700));
  rerender({ tray: 3, slot: 7 });
  expect(placeOf(result.current)).toEqual([3, 7]);
  act(() => result.current.go(at(4, 1)));
  expect(placeOf(result.current)).toEqual([4, 1]);
});

test('who leaves the bench within the moment is not called back by the address', () => {
  const { result, unmount } = stand(3, 6);
  act(() => result.current.go(at(3, 7)));
  unmount();
  jest.advanceTimersByTime(1000);
  expect(address).not.toHaveBeenCalled();
});

test('a reading that was on its way to the disk while the address followed moves on at once', () => {
  const { result, rerender } = stand(3, 6);
  act(() => result.current.go(at(3, 7)));
  const { go } = result.current;
  act(() => jest.advanceTimersByTime(700));
  rerender({ tray: 3, slot: 7 });
  act(() => go(at(3, 8)));
  expect(placeOf(result.current)).toEqual([3, 8]);
});

test('a reading that is kept after one left the bench does not call one back', () => {
  const { result, unmount } = stand(3, 6);
  const { go } = result.current;
  unmount();
  go(at(3, 7));
  jest.advanceTimersByTime(1000);
  expect(address).not.toHaveBeenCalled();
});
