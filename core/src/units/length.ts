import { shownNumber } from './decimals';

/** 1 in = 25.4 mm exactly, so 1 ft = 0.3048 m (NIST SP 811). */
const metersPerFoot = 0.3048;

/** A distance along the route in meters, as the project shows it: "2 960 m" or "9 711 ft". Thin groups of three, no decimals. */
export function formatChainage(meters: number, units: 'mm' | 'in'): string {
  const value = Math.round(units === 'mm' ? meters : meters / metersPerFoot);
  const grouped = String(value).replace(/\B(?=(\d{3})+$)/g, '\u00a0');
  return `${grouped}\u00a0${units === 'mm' ? 'm' : 'ft'}`;
}

/** The distance in meters, to the millimeter, that a person gave in the project's unit: meters or feet. */
export function metersFromShown(value: number, units: 'mm' | 'in'): number {
  return Math.round((units === 'mm' ? value : value * metersPerFoot) * 1000) / 1000;
}

/** The other way: meters as the number that a form shows in the project's unit, to the millimeter or the hundredth of a foot. */
export function shownFromMeters(meters: number, units: 'mm' | 'in'): number {
  return units === 'mm' ? Math.round(meters * 1000) / 1000 : Math.round((meters / metersPerFoot) * 100) / 100;
}

/** 1 in = 25.4 mm exactly (NIST SP 811). */
const millimetersPerInch = 25.4;

/** A small length, as the project shows it: "12.4 mm" or "0.488 in". */
export function formatMillimeters(millimeters: number, units: 'mm' | 'in'): string {
  const value = shownFromMillimeters(millimeters, units);
  // In inches a comma groups thousands.
  return `${units === 'mm' ? shownNumber(value) : value}\u00a0${units}`;
}

/** A small length as the number that a form shows: to the hundredth of a millimeter or the thousandth of an inch. */
export function shownFromMillimeters(millimeters: number, units: 'mm' | 'in'): number {
  return units === 'mm'
    ? Math.round(millimeters * 100) / 100
    : Math.round((millimeters / millimetersPerInch) * 1000) / 1000;
}

/** The small length in millimeters, to the thousandth, that a person gave in the project's unit. */
export function millimetersFromShown(value: number, units: 'mm' | 'in'): number {
  return Math.round((units === 'mm' ? value : value * millimetersPerInch) * 1000) / 1000;
}
