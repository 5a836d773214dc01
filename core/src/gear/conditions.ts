/**
 * Air pressure at an altitude, kPa: the ICAO standard atmosphere below 11 km (ISO 2533), 101.325 · (1 − 2.25577·10⁻⁵ h)^5.25588.
 * Weather moves it by a few kPa; for "did the altitude change much" that is enough.
 * @param altitude m above the sea, −500 … 9000
 */
export function pressureAt(altitude: number): number {
  return 101.325 * (1 - 2.25577e-5 * altitude) ** 5.25588;
}

/** The altitude at which the standard atmosphere has this pressure, m. */
export function altitudeAt(pressure: number): number {
  return (1 - (pressure / 101.325) ** (1 / 5.25588)) / 2.25577e-5;
}
