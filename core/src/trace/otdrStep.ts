/**
 * How much the step at a splice differs from its true loss when an OTDR looks at it from one end: the far fiber scatters back more or
 * less light than the near one, by the ratio of their mode-field diameters (μm). dB; negative is a "gainer". The average from both ends
 * is the true loss.
 */
export function oneWayStep(nearModeField: number, farModeField: number): number {
  return 10 * Math.log10(farModeField / nearModeField);
}
