import { draws } from '../../machine/draws';
import { usualFaults, type Faults } from '../../machine/faults';
import type { Weather } from '../../machine/wear';
import type { Cause } from '../../judge/watch/causes';
import { nightIds, type NightId } from './names';

/** A night at the simulated machine in which something is wrong that nobody tells. */
export interface PracticeNight {
  readonly id: NightId;
  readonly kind: 'single' | 'ribbon';
  /** Of a splice. */
  readonly fibers: number;
  readonly splices: number;
  /** What is wrong, from which splice on (from 0), and what the simulated machine makes of it. */
  readonly cause: Cause;
  readonly from: number;
  readonly faults: Faults;
  readonly weatherAt: (splice: number) => Weather;
}

const mild: Weather = { temperature: 18, humidity: 60, pressure: 96.4 };
/** It cools a little, as nights do. */
const mildNight = (splice: number): Weather => ({ ...mild, temperature: Math.round(18 - splice / 12) });
/** It gets cold and wet by the river. */
const falling =
  (from: number) =>
  (splice: number): Weather =>
    splice < from ? { ...mild, temperature: 21 } : { temperature: 10, humidity: 84, pressure: 96.4 };
const cold = (): Weather => ({ ...mild, temperature: 5 });

const single = { kind: 'single', fibers: 1 } as const;
const ribbon = { kind: 'ribbon', fibers: 12 } as const;

/** Five of rising difficulty: what is wrong shows plainly, then less so, and in the last one a redo does not help. */
const five: readonly PracticeNight[] = [
  {
    id: 'night-1',
    ...ribbon,
    splices: 12,
    cause: 'groove',
    from: 3,
    faults: { dirtyGroove: { position: 4, offset: 1.1 } },
    weatherAt: mildNight,
  },
  {
    id: 'night-2',
    ...single,
    splices: 18,
    cause: 'holder',
    from: 4,
    faults: { badHolder: { side: 'right', angle: 0.9 } },
    weatherAt: mildNight,
  },
  {
    id: 'night-3',
    ...ribbon,
    splices: 10,
    cause: 'stripper',
    from: 2,
    faults: { coldStripper: usualFaults.coldStripper },
    weatherAt: cold,
  },
  {
    id: 'night-4',
    ...single,
    splices: 24,
    cause: 'arc',
    from: 10,
    faults: {},
    weatherAt: falling(10),
  },
  {
    id: 'night-5',
    ...single,
    splices: 24,
    cause: 'fiber',
    from: 10,
    faults: { mixedFiber: 7.8 },
    weatherAt: mildNight,
  },
];

/** Causes that a random night draws from, with what the simulated machine makes of each. */
const drawn: readonly { readonly cause: Cause; readonly faults: Faults }[] = [
  { cause: 'groove', faults: { dirtyGroove: usualFaults.dirtyGroove } },
  { cause: 'dirt', faults: { dust: 0.12 } },
  { cause: 'blade', faults: { wornBlade: usualFaults.wornBlade } },
  { cause: 'holder', faults: { badHolder: usualFaults.badHolder } },
  { cause: 'electrodes', faults: { oldElectrodes: usualFaults.oldElectrodes } },
  { cause: 'program', faults: { wrongProgram: usualFaults.wrongProgram } },
  { cause: 'stripper', faults: { coldStripper: usualFaults.coldStripper } },
  { cause: 'fiber', faults: { mixedFiber: 7.8 } },
  { cause: 'arc', faults: {} },
];

/** The night of an id; a random one is what its seed draws, the same each time. */
export function practiceNight(id: NightId, seed: number): PracticeNight {
  if (id !== 'random') return five[nightIds.indexOf(id)]!;
  const own = draws(seed, 'practice night');
  const one = drawn[Math.floor(own.uniform() * drawn.length)]!;
  const ofRibbons = one.cause === 'groove' || (one.cause !== 'arc' && own.chance(0.5));
  const splices = ofRibbons ? 12 : 24;
  const from = Math.floor(own.uniform() * (splices / 2));
  const dirty = one.faults.dirtyGroove;
  return {
    id,
    ...(ofRibbons ? ribbon : single),
    splices,
    cause: one.cause,
    from,
    faults: dirty
      ? { dirtyGroove: { ...dirty, position: 1 + Math.floor(own.uniform() * 12) } }
      : one.faults.badHolder
        ? { badHolder: { ...one.faults.badHolder, side: own.chance(0.5) ? 'left' : 'right' } }
        : one.faults,
    weatherAt: one.cause === 'arc' ? falling(from) : one.cause === 'stripper' ? cold : mildNight,
  };
}

/** The seed of the five, so that everybody works the same nights. */
export const commonSeed = 20_260_415;
