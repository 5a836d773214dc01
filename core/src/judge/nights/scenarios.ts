import { draws } from '../../machine/draws';
import { usualFaults, type Faults } from '../../machine/faults';
import type { Weather } from '../../machine/wear';
import type { Cause } from '../watch/causes';
import type { NightPlan } from './workedNight';

/** A kind of night, of which many are worked with different seeds. */
export interface Scenario {
  readonly name: string;
  readonly kind: 'single' | 'ribbon';
  /** null: nothing is wrong. */
  readonly cause: Cause | null;
  /** The splice at which it begins, from 0. */
  readonly from: number;
  readonly plan: (seed: number) => NightPlan;
}

/** A mild night: it cools by 3 °C, by that or a little more or less. */
function mildNight(seed: number, splices: number): (splice: number) => Weather {
  const own = draws(seed, 'weather');
  const [warmer, wetter] = [own.normal(), own.normal()];
  return (splice) => ({
    temperature: 18 + warmer - (3 * splice) / splices,
    humidity: 60 + 2 * wetter + (8 * splice) / splices,
    pressure: 96.4 + 0.1 * warmer,
  });
}

/** The same, cold: by which hands and jaws get cold. */
const coldNight = (seed: number, splices: number) => (splice: number) => ({
  ...mildNight(seed, splices)(splice),
  temperature: 6,
});

/** As in the demo: after a while it gets cold and wet by the river. */
const fallingNight =
  (from: number) =>
  (splice: number): Weather =>
    splice < from
      ? { temperature: 21, humidity: 64, pressure: 96.4 }
      : { temperature: 11, humidity: 82, pressure: 96.4 };

function night(
  kind: 'single' | 'ribbon',
  splices: number,
  faultsAt: (splice: number) => Faults = () => ({}),
  weather: (seed: number) => (splice: number) => Weather = (seed) => mildNight(seed, splices),
): (seed: number) => NightPlan {
  return (seed) => ({
    seed,
    kind,
    fibers: kind === 'single' ? 1 : 12,
    splices,
    pairs: [
      [9.2, 9.2],
      [9.2, 9.2],
    ],
    people: ['One', 'Two'],
    faultsAt,
    weatherAt: weather(seed),
    // The limits for a feeder.
    lossMax: kind === 'single' ? 0.1 : 0.12,
    cleaveMax: 1,
    tries: 3,
  });
}

const clean = (kind: 'single' | 'ribbon', splices: number): Scenario => ({
  name: kind === 'single' ? `${splices} single fibers` : `${splices} ribbons of 12`,
  kind,
  cause: null,
  from: 0,
  plan: night(kind, splices),
});

/** Nights in which nothing is wrong. */
export const cleanNights: readonly Scenario[] = [
  clean('single', 96),
  clean('single', 200),
  clean('ribbon', 24),
  clean('ribbon', 48),
  {
    ...clean('single', 96),
    name: '96 single fibers in the cold',
    plan: night('single', 96, undefined, (seed) => coldNight(seed, 96)),
  },
];

const fault = (
  kind: 'single' | 'ribbon',
  cause: Cause,
  faults: Faults,
  from = 0,
  more: Partial<Scenario> = {},
): Scenario => {
  const splices = kind === 'single' ? 80 : 24;
  const [name] = Object.keys(faults) as (keyof Faults)[];
  return {
    name: name!,
    kind,
    cause,
    from,
    plan: night(kind, splices, (splice) => (splice < from ? {} : faults)),
    ...more,
  };
};

const both = ['single', 'ribbon'] as const;

/** Each fault of the simulated machine, at the strength at which a crew would notice it in a night. */
export const faultyNights: readonly Scenario[] = [
  fault('ribbon', 'groove', { dirtyGroove: usualFaults.dirtyGroove }, 4),
  ...both.flatMap((kind) => [
    fault(kind, 'dirt', { dust: usualFaults.dust }),
    fault(kind, 'blade', { wornBlade: usualFaults.wornBlade }),
    fault(kind, 'holder', { badHolder: usualFaults.badHolder }),
    fault(kind, 'electrodes', { oldElectrodes: usualFaults.oldElectrodes }),
    fault(kind, 'program', { wrongProgram: usualFaults.wrongProgram }),
    fault(kind, 'stripper', { coldStripper: usualFaults.coldStripper }, 0, {
      plan: night(
        kind,
        kind === 'single' ? 80 : 24,
        () => ({ coldStripper: usualFaults.coldStripper }),
        (seed) => coldNight(seed, 80),
      ),
    }),
    // The second pair of cables is of another fiber than the plan says.
    fault(kind, 'fiber', { mixedFiber: usualFaults.mixedFiber }, kind === 'single' ? 40 : 12),
    {
      name: 'arc drift of the demo’s size',
      kind,
      cause: 'arc' as const,
      from: kind === 'single' ? 36 : 12,
      plan: night(kind, kind === 'single' ? 80 : 24, undefined, () =>
        fallingNight(kind === 'single' ? 36 : 12),
      ),
    },
  ]),
];

/** The same drift where nobody looks at the weather: what the losses alone say. */
export const unseenDrift: Scenario = {
  name: 'arc drift of the demo’s size, weather not looked at',
  kind: 'single',
  cause: 'arc',
  from: 36,
  plan: (seed) => ({ ...night('single', 96, undefined, () => fallingNight(36))(seed), weatherKnown: false }),
};
