import fc from 'fast-check';
import { mismatchLoss, offsetLoss, tiltLoss } from './spliceLoss';

// D. Marcuse, Bell System Technical Journal 56(5), 1977: values worked out by hand from the formulas, n 1.4677, 1.31 μm.
test.each([
  ['9.2 to 8.6 μm', mismatchLoss(9.2, 8.6), 0.0197],
  ['offset 0.5 μm', offsetLoss(9.2, 9.2, 0.5), 0.0513],
  ['offset 1.0 μm', offsetLoss(9.2, 9.2, 1), 0.2052],
  ['offset 1.5 μm', offsetLoss(9.2, 9.2, 1.5), 0.4618],
  ['tilt 0.5°', tiltLoss(9.2, 9.2, 0.5), 0.0867],
  ['tilt 1.0°', tiltLoss(9.2, 9.2, 1), 0.3468],
])('%s', (_, loss, expected) => expect(loss).toBeCloseTo(expected, 4));

// J. Senior, Optical Fiber Communications, worked example (from memory): V 2.40, n 1.46, core 8 μm, NA 0.1; offset 1 μm 0.22 dB, tilt 1°
// 0.49 dB. The book's spot size is the Marcuse radius over the square root of 2; its wavelength follows from V = πdNA/λ.
test('agrees with a textbook example', () => {
  const v = 2.4;
  const radius = 4 * (0.65 + 1.619 * v ** -1.5 + 2.879 * v ** -6);
  expect(radius).toBeCloseTo(4.4, 1);
  const wavelength = (Math.PI * 8 * 0.1) / v;
  const modeField = 2 * radius;
  expect(offsetLoss(modeField, modeField, 1)).toBeCloseTo(0.22, 2);
  expect(tiltLoss(modeField, modeField, 1, 1.46, wavelength)).toBeCloseTo(0.49, 1);
});

test('is never below zero, the same from both sides, and zero for equal fibers', () => {
  const field = fc.double({ min: 4, max: 14, noNaN: true });
  fc.assert(
    fc.property(field, field, (a, b) => {
      expect(mismatchLoss(a, b)).toBeGreaterThanOrEqual(-1e-12);
      expect(mismatchLoss(a, b)).toBeCloseTo(mismatchLoss(b, a), 12);
      expect(mismatchLoss(a, a)).toBeCloseTo(0, 12);
    }),
  );
});
