import type { Conditions } from '../facts';

/** What an arc forgets between calibrations. All numbers invented. */
export interface Wear {
  /** Arcs on the electrodes since they were new, and since the last calibration that passed. */
  readonly electrodeArcs: number;
  readonly arcsSinceCalibration: number;
  /** Where the last calibration left ln p. */
  readonly calibratedTo: number;
  /** The weather then. */
  readonly calibratedAt: Weather;
  /** Ends cleaved at the blade's position. */
  readonly bladeCleaves: number;
}

export type Weather = { readonly [K in keyof Conditions]: number };

/** 20 °C, 50 %, the standard atmosphere at sea level. */
export const mildWeather: Weather = { temperature: 20, humidity: 50, pressure: 101.325 };

export const newWear: Wear = {
  electrodeArcs: 0,
  arcsSinceCalibration: 0,
  calibratedTo: 0,
  calibratedAt: mildWeather,
  bladeCleaves: 0,
};

/** ln p for each arc, °C, point of humidity and kPa from what it was at the calibration. */
const perArc = -0.000_07;
const perDegree = 0.01;
const perHumidity = -0.000_8;
const perKiloPascal = 0.012;
/** Above this electrodes spit: ln p strays from arc to arc. */
export const electrodeLife = 4000;

/** Natural logarithm of the arc's power over what it should be, as far as it follows from wear and weather. */
export function arcOf(
  { arcsSinceCalibration, calibratedTo, calibratedAt }: Wear,
  { temperature, humidity, pressure }: Weather,
): number {
  return (
    calibratedTo +
    perArc * arcsSinceCalibration +
    perDegree * (temperature - calibratedAt.temperature) +
    perHumidity * (humidity - calibratedAt.humidity) +
    perKiloPascal * (pressure - calibratedAt.pressure)
  );
}

/** How much the power strays from arc to arc, as a standard deviation of ln p. */
export function arcSpread({ electrodeArcs }: Pick<Wear, 'electrodeArcs'>): number {
  return 0.01 + 0.2 * Math.max(0, electrodeArcs / electrodeLife - 1);
}

/** What a blade's position adds to the mean angle of a cleave, degrees: nothing until it has cleaved this often, then slowly more. */
const bladeLasts = 2500;
export function bladeAngle({ bladeCleaves }: Pick<Wear, 'bladeCleaves'>): number {
  return Math.max(0, bladeCleaves - bladeLasts) * 0.000_4;
}
