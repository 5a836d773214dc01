import {
  formatChainage,
  formatMillimeters,
  metersFromShown,
  millimetersFromShown,
  shownFromMeters,
} from './length';

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

// 1 in = 25.4 mm exactly; 1 ft = 0.3048 m exactly (NIST SP 811). 1/2 in is 12.7 mm.
test('small lengths are shown and taken in the project’s unit', () => {
  expect(formatMillimeters(12.7, 'in')).toBe('0.5\u00a0in');
  expect(formatMillimeters(12.4, 'mm')).toBe('12.4\u00a0mm');
  expect(millimetersFromShown(0.5, 'in')).toBe(12.7);
  expect(shownFromMeters(304.8, 'in')).toBe(1000);
});
