import { exactLog } from '../../exactLog';

/**
 * Loss of a splice of single-mode fibers from what is wrong with the joint, after D. Marcuse, "Loss analysis of single-mode fiber
 * splices", Bell System Technical Journal 56(5), 1977. Mode fields are taken as Gaussian. All lengths in μm; dB.
 */

const decibels = 10 / Math.LN10;

/** Loss because the two mode-field diameters differ, μm. The same in both directions; 0 when they are equal. */
export function mismatchLoss(modeField1: number, modeField2: number): number {
  return -2 * decibels * exactLog((2 * modeField1 * modeField2) / (modeField1 ** 2 + modeField2 ** 2));
}

/** Loss because the fibers lie `offset` μm beside each other. */
export function offsetLoss(modeField1: number, modeField2: number, offset: number): number {
  const [w1, w2] = [modeField1 / 2, modeField2 / 2];
  return (decibels * 2 * offset ** 2) / (w1 ** 2 + w2 ** 2);
}

/**
 * Loss because the fibers meet at an angle.
 * @param degrees the angle between them
 * @param index refractive index of the core
 * @param wavelength μm
 */
export function tiltLoss(
  modeField1: number,
  modeField2: number,
  degrees: number,
  index = 1.4677,
  wavelength = 1.31,
): number {
  const [w1, w2] = [modeField1 / 2, modeField2 / 2];
  const tilt = (degrees * Math.PI) / 180;
  return (decibels * 2 * ((Math.PI * index * w1 * w2 * tilt) / wavelength) ** 2) / (w1 ** 2 + w2 ** 2);
}
