import type { Units } from '../line/project';
import { shownNumber } from './decimals';

/** 1 inch of mercury in kPa (NIST SP 811, conventional). */
const kPaPerInchOfMercury = 3.386389;

/** 0 °C is 32 °F, 100 °C is 212 °F. */
export function celsiusToFahrenheit(celsius: number): number {
  return celsius * 1.8 + 32;
}

export function fahrenheitToCelsius(fahrenheit: number): number {
  return (fahrenheit - 32) / 1.8;
}

/** °C or °F: the temperature of a project that is measured in mm or inches. */
export const temperatureUnit = (units: Units) => (units === 'mm' ? '°C' : '°F');

/** A temperature in °C as a number in the project's unit, to the hundredth. */
export function shownTemperature(celsius: number, units: Units): number {
  return hundredths(units === 'mm' ? celsius : celsiusToFahrenheit(celsius));
}

/** The temperature in °C that a person gave in the project's unit. */
export function temperatureFromShown(value: number, units: Units): number {
  return units === 'mm' ? value : fahrenheitToCelsius(value);
}

/** "20 °C", "68 °F". */
export function formatTemperature(celsius: number, units: Units): string {
  return `${shownNumber(shownTemperature(celsius, units))}\u00a0${temperatureUnit(units)}`;
}

/** A difference of temperatures in K as a number in the project's unit, to the hundredth. */
export function shownDegrees(kelvin: number, units: Units): number {
  return hundredths(units === 'mm' ? kelvin : kelvin * 1.8);
}

/** The difference in K that a person gave in the project's unit. */
export function degreesFromShown(value: number, units: Units): number {
  return units === 'mm' ? value : value / 1.8;
}

/** kPa or inHg: the pressure of the air, as a barometer shows it. */
export const airUnit = (units: Units) => (units === 'mm' ? 'kPa' : 'inHg');

/** The pressure of the air in kPa as a number in the project's unit, to the hundredth. */
export function shownAir(kPa: number, units: Units): number {
  return hundredths(units === 'mm' ? kPa : kPa / kPaPerInchOfMercury);
}

/** "101.33 kPa", "29.92 inHg". */
export function formatAir(kPa: number, units: Units): string {
  return `${shownNumber(shownAir(kPa, units).toFixed(2))}\u00a0${airUnit(units)}`;
}

/** The pressure of the air in kPa that a person gave in the project's unit. */
export function airFromShown(value: number, units: Units): number {
  return units === 'mm' ? value : value * kPaPerInchOfMercury;
}

const hundredths = (value: number) => Math.round(value * 100) / 100;
