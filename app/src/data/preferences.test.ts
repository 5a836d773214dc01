import { formatLoss, writeDecimalsWith } from '@cordel/core';
import { act, renderHook } from '@testing-library/react';
import { setPreferences, useDecimalSign } from './preferences';

afterEach(() => {
  jest.restoreAllMocks();
  setPreferences({ decimalSign: 'device' });
  writeDecimalsWith('.');
});

test.each([
  ['en-US', '.', '0.05'],
  ['pt-BR', ',', '0,05'],
  ['de', ',', '0,05'],
] as const)(
  'numbers are written as the language %s writes them, until a person says otherwise',
  (language, sign, shown) => {
    jest.spyOn(navigator, 'language', 'get').mockReturnValue(language);
    const { result } = renderHook(() => useDecimalSign());
    expect([result.current, formatLoss(0.05)]).toEqual([sign, shown]);
    act(() => setPreferences({ decimalSign: '.' }));
    expect([result.current, formatLoss(0.05)]).toEqual(['.', '0.05']);
    act(() => setPreferences({ decimalSign: ',' }));
    expect([result.current, formatLoss(0.05)]).toEqual([',', '0,05']);
  },
);
