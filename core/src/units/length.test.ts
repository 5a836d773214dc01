import { formatChainage, metersFromShown } from './length';

test('groups digits and names the unit', () => {
  expect(formatChainage(2960, 'mm')).toBe('2\u00a0960\u00a0m');
  expect(formatChainage(0, 'mm')).toBe('0\u00a0m');
});

// NIST SP 811: 1 ft = 0.3048 m exactly.
test('shows feet', () => {
  expect(formatChainage(304.8, 'in')).toBe('1\u00a0000\u00a0ft');
  expect(metersFromShown(1000, 'in')).toBeCloseTo(304.8, 12);
  expect(metersFromShown(7, 'mm')).toBe(7);
});
