import type { MeasuredLoss } from '../../facts';

type Seen = Pick<MeasuredLoss['body'], 'method' | 'fromLeft' | 'fromRight'>;

/**
 * The loss that a measurement gives, dB. By OTDR it is the mean of both directions, which takes out what the two fibers scatter differently (IEC 61280-4-2); one
 * direction alone can be far too high or below 0, and gives none. With a power meter the loss is the same either way, and one will do.
 * @returns null where the measurement gives no loss
 */
export function measuredValue({ method, fromLeft, fromRight }: Seen): number | null {
  if (fromLeft !== null && fromRight !== null) return (fromLeft + fromRight) / 2;
  return method === 'power-meter' ? (fromLeft ?? fromRight) : null;
}

/** By fiber, dB; see `measuredValue`. */
export function measuredLosses(measured: readonly (MeasuredLoss | null)[]): readonly (number | null)[] {
  return measured.map((fact) => fact && measuredValue(fact.body));
}

const methods = { otdr: 'OTDR', 'power-meter': 'power meter' } as const;

/** "OTDR, 1550 nm" */
export function measuredWith({
  method,
  wavelength,
}: {
  readonly method: keyof typeof methods;
  readonly wavelength: number;
}): string {
  return `${methods[method]}, ${wavelength} nm`;
}

/** The highest of what was measured, dB; null where nothing was. */
export function highestMeasured(measured: readonly (number | null)[]): number | null {
  let highest: number | null = null;
  for (const one of measured) if (one !== null && (highest === null || one > highest)) highest = one;
  return highest;
}
