import type { Limits } from './limits';

export interface LimitsPreset {
  readonly id: string;
  readonly name: string;
  /** What it is and where the numbers come from, for the person who picks it. */
  readonly about: string;
  readonly limits: Limits;
}

export const limitsPresets: readonly LimitsPreset[] = [
  {
    id: 'feeder',
    name: 'Feeder, tight',
    about:
      'For long feeder and backbone routes: 0.10 dB a splice and 0.05 dB on average, ribbons a little looser. Common practice, no published source.',
    limits: {
      singleMax: 0.1,
      ribbonFiberMax: 0.12,
      trayMean: 0.05,
      closureMean: 0.05,
      cleaveAngleMax: 1,
      tries: 3,
    },
  },
  {
    id: 'distribution',
    name: 'Distribution',
    about:
      'For distribution and drops, where the budget is wider: 0.15 dB a splice and 0.10 dB on average. Common practice, no published source.',
    limits: {
      singleMax: 0.15,
      ribbonFiberMax: 0.2,
      trayMean: 0.1,
      closureMean: 0.1,
      cleaveAngleMax: 1.5,
      tries: 3,
    },
  },
  {
    id: 'tia-568',
    name: 'TIA-568 ceiling',
    about:
      'TIA-568.3 allows 0.3 dB for any splice. It names no mean, so the means are 0.3 dB as well; angle and tries are common practice. A ceiling for premises cabling, loose for outside plant.',
    limits: {
      singleMax: 0.3,
      ribbonFiberMax: 0.3,
      trayMean: 0.3,
      closureMean: 0.3,
      cleaveAngleMax: 2,
      tries: 3,
    },
  },
];
