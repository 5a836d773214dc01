import { shownNumber } from './decimals';
import type { Units } from '../line/project';

/** 1 psi in kPa (NIST SP 811). */
const kPaPerPsi = 6.894757;

/** kPa or psi: the pressure of a project that is measured in mm or inches. */
export const pressureUnit = (units: Units) => (units === 'mm' ? 'kPa' : 'psi');

/** A pressure in kPa as a number in the project's unit: to the tenth of a kPa, the hundredth of a psi. */
export function shownPressure(kPa: number, units: Units): number {
  return units === 'mm' ? Math.round(kPa * 10) / 10 : Math.round((kPa / kPaPerPsi) * 100) / 100;
}

/** "27.6 kPa", "4 psi". */
export function formatPressure(kPa: number, units: Units): string {
  return `${shownNumber(shownPressure(kPa, units))}\u00a0${pressureUnit(units)}`;
}

/** The pressure in kPa that a person gave in the project's unit. What they meant to the hundredth of a psi, so that 5 psi are 34.47. */
export function pressureFromShown(value: number, units: Units): number {
  return units === 'mm' ? value : value * kPaPerPsi;
}
