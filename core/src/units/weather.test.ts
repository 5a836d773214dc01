import fc from 'fast-check';
import {
  airFromShown,
  degreesFromShown,
  formatAir,
  formatTemperature,
  shownDegrees,
  shownTemperature,
  temperatureFromShown,
} from './weather';

test('water freezes at 32 °F, boils at 212 °F, and −40 is the same on both scales', () => {
  expect([0, 100, -40].map((celsius) => shownTemperature(celsius, 'in'))).toEqual([32, 212, -40]);
  expect(formatTemperature(20, 'in')).toBe('68\u00a0°F');
});

test('the standard atmosphere is 29.92 inches of mercury (NIST SP 811)', () => {
  expect(formatAir(101.325, 'in')).toBe('29.92\u00a0inHg');
  expect(airFromShown(29.92, 'in')).toBeCloseTo(101.32, 2);
  expect(formatAir(101.325, 'mm')).toBe('101.33\u00a0kPa');
});

test('law: what is shown and given back is the same to half a hundredth, in either unit', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -60, max: 90, noNaN: true }),
      fc.constantFrom('mm' as const, 'in' as const),
      (value, units) => {
        expect(Math.abs(temperatureFromShown(shownTemperature(value, units), units) - value)).toBeLessThan(
          0.0051,
        );
        expect(Math.abs(degreesFromShown(shownDegrees(value, units), units) - value)).toBeLessThan(0.0051);
      },
    ),
  );
});
