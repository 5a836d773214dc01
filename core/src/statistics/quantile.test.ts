import fc from 'fast-check';
import { max, median, min } from 'simple-statistics';
import { quantileSorted } from './quantile';

// Microsoft's documentation of PERCENTILE.INC: {1, 2, 3, 4} at 0.3 is 1.9.
test('agrees with the spreadsheet function', () => {
  expect(quantileSorted([1, 2, 3, 4], 0.3)).toBeCloseTo(1.9, 12);
});

// NumPy's documentation of percentile: the median of 10, 7, 4, 3, 2, 1 is 3.5.
test('agrees with NumPy', () => {
  expect(quantileSorted([1, 2, 3, 4, 7, 10], 0.5)).toBe(3.5);
});

test('its middle and ends are those of simple-statistics', () => {
  fc.assert(
    fc.property(fc.array(fc.double({ min: 0, max: 10, noNaN: true }), { minLength: 1 }), (values) => {
      const sorted = [...values].sort((a, b) => a - b);
      expect(quantileSorted(sorted, 0.5)).toBeCloseTo(median(values), 10);
      expect(quantileSorted(sorted, 0)).toBe(min(values));
      expect(quantileSorted(sorted, 1)).toBe(max(values));
    }),
  );
});

test('has nothing to say of nothing', () => {
  expect(quantileSorted([], 0.5)).toBeNull();
});
