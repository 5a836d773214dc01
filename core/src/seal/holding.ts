/** Zero on the Celsius scale, K (exact, SI Brochure). */
const zeroCelsius = 273.15;

/** Absolute pressure in kPa that gas at constant volume has at another temperature: p₂ = p₁ · T₂ / T₁ (Gay-Lussac; ideal gas). Temperatures in °C. */
export function atTemperature(absolute: number, celsius: number, then: number): number {
  return (absolute * (then + zeroCelsius)) / (celsius + zeroCelsius);
}

/** One reading: gauge pressure and air pressure in kPa, the temperature of the gas in °C. */
export interface HeldReading {
  readonly gauge: number;
  readonly air: number;
  readonly celsius: number;
}

export interface HoldingInput {
  readonly began: HeldReading;
  readonly read: HeldReading;
  /** h between the two; above 0. */
  readonly hours: number;
  /** What the instruments may be off by, either way: kPa and °C. */
  readonly gaugeError: number;
  readonly celsiusError: number;
  /** The most that may be lost, kPa at the temperature of the start, within so many hours. */
  readonly allowed: { readonly kPa: number; readonly hours: number };
  /** Of gas in the closure, l; null where it is not known. */
  readonly liters: number | null;
}

export interface HoldingResult {
  /** What the gauge would show now if nothing was lost, kPa. */
  readonly expected: number;
  /** Lost since, reckoned to the temperature of the start, kPa; negative where there is more than there was. */
  readonly lost: number;
  /** What that may be off by, either way, kPa: the errors of both readings, as root of the sum of squares. */
  readonly uncertainty: number;
  /** The most that a good closure may have lost by now, kPa. */
  readonly mayLose: number;
  readonly verdict: 'tight' | 'leaking' | 'cannot-tell';
  /** Why it cannot be told: the errors are still larger than what may be lost; or there is more in it than there can be. */
  readonly because: 'too-early' | 'gained' | null;
  /** h from the start until which to wait, where it cannot be told yet; null where waiting does not help. */
  readonly waitHours: number | null;
  /** Pa·m³/s; null where the volume is not known. */
  readonly leakRate: number | null;
  readonly leakRateUncertainty: number | null;
}

/** A wait of more than that is no plan, h. */
const longestWait = 14 * 24;

/**
 * Whether a closure holds its pressure: ideal gas at constant volume, absolute pressures, (g₂ + a₂) / T₂ = (g₁ + a₁) / T₁. It is tight where what was lost and its uncertainty lie within what may be
 * lost by now, leaking where it is more even with the uncertainty taken off, and else it cannot be told. The air pressures count as exact.
 */
export function holdingResult({
  began,
  read,
  hours,
  gaugeError,
  celsiusError,
  allowed,
  liters,
}: HoldingInput): HoldingResult {
  const first = began.gauge + began.air;
  const second = read.gauge + read.air;
  const kelvin = { first: began.celsius + zeroCelsius, second: read.celsius + zeroCelsius };
  const expected = atTemperature(first, began.celsius, read.celsius) - read.air;
  const back = kelvin.first / kelvin.second;
  const lost = first - second * back;
  // Partial derivatives of `lost` by each of the four readings.
  const uncertainty = Math.hypot(
    gaugeError,
    back * gaugeError,
    (second / kelvin.second) * celsiusError,
    ((second * kelvin.first) / kelvin.second ** 2) * celsiusError,
  );
  const rate = allowed.kPa / allowed.hours;
  const mayLose = rate * hours;
  const gained = lost < -uncertainty;
  const verdict = gained
    ? 'cannot-tell'
    : lost - uncertainty > mayLose
      ? 'leaking'
      : lost + uncertainty <= mayLose
        ? 'tight'
        : 'cannot-tell';
  // As long as nothing is known to be lost, a tight closure is waited for; else what is lost goes on as until now.
  const losing = lost > uncertainty ? lost / hours : 0;
  const wait = uncertainty / Math.abs(rate - losing);
  const waitHours =
    verdict === 'cannot-tell' && !gained && Number.isFinite(wait) && wait <= longestWait
      ? Math.max(wait, hours)
      : null;
  const perHour = (kPa: number) =>
    liters === null ? null : (liters / 1000) * ((kPa * 1000) / (hours * 3600));
  return {
    expected,
    lost,
    uncertainty,
    mayLose,
    verdict,
    because: verdict !== 'cannot-tell' ? null : gained ? 'gained' : 'too-early',
    waitHours,
    leakRate: perHour(lost),
    leakRateUncertainty: perHour(uncertainty),
  };
}

/** The temperature at which what is in the closure reaches a gauge pressure, °C: the sun on it may pass the stop. */
export function celsiusAtGauge({ gauge, air, celsius }: HeldReading, wanted: number): number {
  return ((wanted + air) * (celsius + zeroCelsius)) / (gauge + air) - zeroCelsius;
}
