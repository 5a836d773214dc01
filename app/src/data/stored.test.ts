import { act, renderHook } from '@testing-library/react';
import { z } from 'zod';
import { storedValue, storedValues } from './stored';

beforeEach(() => localStorage.clear());
const size = z.number().min(1).max(2);

test('what was set is there after a reload, and told to every screen that shows it', () => {
  const value = storedValue('size', size, 1);
  const shown = [renderHook(value.use).result, renderHook(value.use).result];
  act(() => value.set(1.5));
  expect([value.get(), ...shown.map(({ current }) => current)]).toEqual([1.5, 1.5, 1.5]);
  expect(storedValue('size', size, 1).get()).toBe(1.5);
});

test.each([
  ['nothing', null],
  ['what is no JSON', '{'],
  ['what an older version kept otherwise', '"large"'],
  ['what is out of its range', '9'],
])('%s stands for the usual one', (_, kept) => {
  if (kept !== null) localStorage.setItem('cordel.size', kept);
  expect(storedValue('size', size, 1).get()).toBe(1);
});

test('what is changed in another tab is shown here', () => {
  const value = storedValue('size', size, 1);
  const { result } = renderHook(value.use);
  localStorage.setItem('cordel.size', '2');
  act(() => void window.dispatchEvent(new StorageEvent('storage', { key: 'cordel.size' })));
  expect(result.current).toBe(2);
  act(() => void window.dispatchEvent(new StorageEvent('storage', { key: 'cordel.other' })));
  expect(result.current).toBe(2);
});

test('where the disk refuses, the caller is told, and nothing looks as if it were kept', () => {
  const value = storedValue('size', size, 1);
  const full = jest.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
    throw new DOMException('full', 'QuotaExceededError');
  });
  expect(() => value.set(2)).toThrow('full');
  expect(value.get()).toBe(1);
  full.mockRestore();
});

test('one value for each id', () => {
  const endings = storedValues('ending', z.enum(['splice', 'mechanical']), 'splice');
  endings('a').set('mechanical');
  expect([endings('a').get(), endings('b').get()]).toEqual(['mechanical', 'splice']);
  expect(endings('a')).toBe(endings('a'));
});
