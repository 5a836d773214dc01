import { z } from 'zod';
import { mismatchLoss } from '../../splice/record/spliceLoss';
import { exceeds } from '../../limits/limits';
import type { FaultName, Faults } from '../../machine/faults';
import {
  cleave,
  fuse,
  seat,
  type Bench,
  type Cleave,
  type FiberPair,
  type FusedFiber,
} from '../../machine/joints';
import { newWear, type Wear, type Weather } from '../../machine/wear';
import type { Happened, Tried } from '../../judge/series/tried';
import { causes, type Cause } from '../../judge/watch/causes';
import type { PracticeNight } from './plans';

/** What can be put right at the bench, what it takes, and which fault it ends. Minutes are common practice. */
export const remedies = {
  brush: { minutes: 3, ends: 'dirtyGroove' },
  wipe: { minutes: 4, ends: 'dust' },
  blade: { minutes: 2, ends: 'wornBlade' },
  holder: { minutes: 3, ends: 'badHolder' },
  calibrate: { minutes: 4, ends: null },
  electrodes: { minutes: 12, ends: 'oldElectrodes' },
  program: { minutes: 1, ends: 'wrongProgram' },
  stripper: { minutes: 2, ends: 'coldStripper' },
} as const satisfies Readonly<Record<string, { minutes: number; ends: FaultName | null }>>;
export type Remedy = keyof typeof remedies;
export const remedyNames = Object.keys(remedies) as Remedy[];

/** What puts a cause right; nothing does where the fiber itself is another. */
export const remedyOf: Readonly<Record<Cause, Remedy | null>> = {
  dirt: 'wipe',
  groove: 'brush',
  blade: 'blade',
  holder: 'holder',
  arc: 'calibrate',
  electrodes: 'electrodes',
  program: 'program',
  stripper: 'stripper',
  fiber: null,
};

/** What somebody does, as it is kept. */
export const nightActionSchema = z.discriminatedUnion('do', [
  z.strictObject({ do: z.literal('recleave'), side: z.enum(['left', 'right']) }),
  z.strictObject({ do: z.enum(['fuse', 'redo', 'accept', 'measure']) }),
  z.strictObject({ do: z.literal('remedy'), remedy: z.enum(remedyNames) }),
  z.strictObject({ do: z.literal('name'), cause: z.enum(causes) }),
]);

/** What somebody does. */
export type NightAction =
  | { readonly do: 'recleave'; readonly side: 'left' | 'right' }
  | { readonly do: 'fuse' }
  | { readonly do: 'redo' }
  | { readonly do: 'accept' }
  /** Both ways with an OTDR: what the splice really loses. */
  | { readonly do: 'measure' }
  | { readonly do: 'remedy'; readonly remedy: Remedy }
  | { readonly do: 'name'; readonly cause: Cause };

/** Minutes that things take; common practice. */
const takes = {
  single: { prepare: 2, fuse: 1.5, recleave: 1, redo: 3 },
  ribbon: { prepare: 5, fuse: 2, recleave: 3, redo: 8 },
  measure: 15,
} as const;
/** Fiber that is used up of each end, mm; common practice. */
const uses = { recleave: 10, redo: 40 } as const;

/** The limits of a feeder. */
export const nightLimits = {
  single: 0.1,
  ribbon: 0.12,
  cleave: 1,
} as const;

/** A splice that was left in its tray. */
export interface LaidSplice {
  readonly readings: readonly (number | null)[];
  /** dB, known when the night is over. */
  readonly truths: readonly number[];
  readonly tries: number;
  readonly broke: boolean;
}

export interface NightState {
  readonly night: PracticeNight;
  readonly seed: number;
  /** The splice at hand, from 0; as many as there are: the night is over. */
  readonly at: number;
  /** Tries that were made of it. */
  readonly tries: number;
  /** How often its ends were cleaved. */
  readonly cleaved: { readonly left: number; readonly right: number };
  readonly ends: { readonly left: readonly Cleave[]; readonly right: readonly Cleave[] };
  /** After the arc; null: the ends lie in the machine. */
  readonly fused: readonly FusedFiber[] | null;
  /** It was measured: its true losses, dB. */
  readonly measured: boolean;
  readonly wear: Wear;
  readonly ended: readonly FaultName[];
  readonly minutes: number;
  /** Sleeves that lie in the bin. */
  readonly sleeves: number;
  /** Fiber of each end that was cut away, mm, over all splices. */
  readonly slack: number;
  readonly laid: readonly LaidSplice[];
  readonly told: readonly ({ readonly tried: Tried } | { readonly event: Happened })[];
  readonly done: readonly { readonly at: number; readonly action: NightAction }[];
  readonly named: Cause | null;
}

export const isOverNight = ({ at, night }: Pick<NightState, 'at' | 'night'>) => at >= night.splices;

/** Where a night begins: calibrated, with the ends of the first splice in the machine. */
export function nightBegun(night: PracticeNight, seed: number): NightState {
  const weather = night.weatherAt(0);
  const state: NightState = {
    night,
    seed,
    at: 0,
    tries: 0,
    cleaved: { left: 0, right: 0 },
    ends: { left: [], right: [] },
    fused: null,
    measured: false,
    wear: { ...newWear, calibratedAt: weather },
    ended: [],
    minutes: 0,
    sleeves: 0,
    slack: 0,
    laid: [],
    told: [{ event: { at: 0, what: 'calibrated', machine, ...weather } }],
    done: [],
    named: null,
  };
  return prepared(state);
}

const machine = 'machine';

/** What is wrong now. */
function faultsNow({ night, at, ended }: NightState): Faults {
  if (at < night.from) return {};
  return Object.fromEntries(
    Object.entries(night.faults).filter(([name]) => !ended.includes(name as FaultName)),
  );
}

function benchOf(state: NightState): Bench {
  return {
    seed: state.seed,
    aligns: state.night.kind === 'single' ? 'cores' : 'grooves',
    faults: faultsNow(state),
  };
}

function pairsOf({ night, at }: NightState): readonly FiberPair[] {
  return Array.from({ length: night.fibers }, (_, fiber) => ({
    left: { key: `l${at}.${fiber}`, modeField: 9.2 },
    right: { key: `r${at}.${fiber}`, modeField: 9.2 },
  }));
}

/** The ends of the splice at hand, cleaved for the first time. */
function prepared(state: NightState): NightState {
  if (isOverNight(state)) return state;
  const fresh = { ...state, tries: 0, cleaved: { left: 0, right: 0 }, fused: null, measured: false };
  const both = cleavedAnew(cleavedAnew(fresh, 'left'), 'right');
  return { ...both, minutes: both.minutes + takes[state.night.kind].prepare };
}

function cleavedAnew(state: NightState, side: 'left' | 'right'): NightState {
  const bench = benchOf(state);
  const nth = state.cleaved[side] + 1;
  const ends = pairsOf(state).map((pair) => cleave(bench, state.wear, side, pair[side], nth));
  return {
    ...state,
    cleaved: { ...state.cleaved, [side]: nth },
    ends: { ...state.ends, [side]: ends },
    wear: { ...state.wear, bladeCleaves: state.wear.bladeCleaves + state.night.fibers },
  };
}

/** Why something cannot be done now, or null when it can. */
export function actionRefusal(state: NightState, action: NightAction): string | null {
  if (action.do === 'name') return null;
  if (isOverNight(state)) return 'The night is over.';
  switch (action.do) {
    case 'recleave':
    case 'fuse':
      return state.fused ? 'It is fused already: leave it, or do it again.' : null;
    case 'redo':
    case 'accept':
    case 'measure':
      if (!state.fused) return 'Fuse it first.';
      if (action.do === 'accept' && state.fused.some(({ broke }) => broke))
        return 'It broke in the proof test: do it again.';
      return action.do === 'measure' && state.measured ? 'It is measured already.' : null;
    case 'remedy':
      return null;
  }
}

/** The night after something was done; as it was where that cannot be done now. The same actions give the same night, to the last digit. */
export function act(state: NightState, action: NightAction): NightState {
  if (actionRefusal(state, action) !== null) return state;
  const { kind } = state.night;
  const next = { ...state, done: [...state.done, { at: state.at, action }] };
  switch (action.do) {
    case 'name':
      return { ...next, named: action.cause };
    case 'recleave':
      return {
        ...cleavedAnew(next, action.side),
        minutes: next.minutes + takes[kind].recleave,
        slack: next.slack + uses.recleave,
      };
    case 'fuse':
      return fusedOnce(next);
    case 'measure':
      return { ...next, measured: true, minutes: next.minutes + takes.measure };
    case 'redo': {
      const again = { ...next, fused: null, measured: false };
      return {
        ...cleavedAnew(cleavedAnew(again, 'left'), 'right'),
        minutes: next.minutes + takes[kind].redo,
        slack: next.slack + 2 * uses.redo,
        sleeves: next.sleeves + 1,
      };
    }
    case 'accept':
      return prepared({
        ...next,
        at: next.at + 1,
        laid: [
          ...next.laid,
          {
            readings: next.fused!.map(({ estimate }) => estimate),
            truths: next.fused!.map(({ truth }) => truth),
            tries: next.tries,
            broke: false,
          },
        ],
      });
    case 'remedy':
      return remedied(next, action.remedy);
  }
}

function fusedOnce(state: NightState): NightState {
  const { night, at, ends, wear } = state;
  const weather = night.weatherAt(at);
  const tries = state.tries + 1;
  const bench = benchOf(state);
  const splice = `s${at}`;
  const laid = pairsOf(state).map((pair, index) => ({
    pair,
    cleaves: { left: ends.left[index]!, right: ends.right[index]! },
    seat: seat(bench, splice, index + 1, pair, tries),
  }));
  const fused = fuse(bench, wear, weather, splice, laid, tries);
  const minutes = state.minutes + takes[night.kind].fuse;
  const losses = fused.map(({ broke, estimate }) => (broke ? null : estimate));
  const mixed = at >= night.from ? (night.faults.mixedFiber ?? 9.2) : 9.2;
  const tried: Tried = {
    attempt: `${splice}.${tries}`,
    splice,
    at: minutes * 60_000,
    kind: night.kind,
    nth: tries,
    losses,
    left: ends.left.map(shownAngle),
    right: ends.right.map(shownAngle),
    broke: fused.some(({ broke }) => broke),
    over: losses.some((loss) => loss !== null && exceeds(loss, nightLimits[night.kind])),
    // What the plan says: it does not know that the fiber is another. The cable is.
    pair: mixed === 9.2 ? 'first' : 'second',
    pairTerm: mismatchLoss(9.2, 9.2),
    machine,
    cleaver: 'cleaver',
    person: null,
  };
  const seen: Happened = { at: minutes * 60_000, what: 'weather', machine, ...weather };
  return {
    ...state,
    tries,
    fused,
    minutes,
    wear: {
      ...wear,
      electrodeArcs: wear.electrodeArcs + 1,
      arcsSinceCalibration: wear.arcsSinceCalibration + 1,
    },
    told: [
      ...state.told,
      // The thermometer hangs at the bench: whoever watches sees it change.
      ...(changed(weather, night.weatherAt(Math.max(0, at - 1))) && tries === 1 ? [{ event: seen }] : []),
      { tried },
    ],
  };
}

const changed = (one: Weather, other: Weather) => Math.abs(one.temperature - other.temperature) >= 3;

/** As the machine shows it, to a tenth of a degree. */
export const shownAngle = ({ angle }: Cleave) => Math.round(angle * 10) / 10;

function remedied(state: NightState, remedy: Remedy): NightState {
  const { minutes: took, ends } = remedies[remedy];
  const minutes = state.minutes + took;
  const at = minutes * 60_000;
  const { night } = state;
  // What has not begun is not ended by it: it begins all the same.
  const wasWrong = ends !== null && state.at >= night.from && night.faults[ends] !== undefined;
  const ended = wasWrong && !state.ended.includes(ends) ? [...state.ended, ends] : state.ended;
  const base = { ...state, minutes, ended };
  if (remedy === 'calibrate' || remedy === 'electrodes') {
    const weather = night.weatherAt(state.at);
    return {
      ...base,
      wear: {
        ...base.wear,
        calibratedAt: weather,
        calibratedTo: 0,
        arcsSinceCalibration: 0,
        ...(remedy === 'electrodes' ? { electrodeArcs: 0 } : {}),
      },
      told: [...base.told, { event: { at, what: 'calibrated', machine, ...weather } }],
    };
  }
  if (remedy === 'blade')
    return {
      ...base,
      wear: { ...base.wear, bladeCleaves: 0 },
      told: [...base.told, { event: { at, what: 'blade-turned', cleaver: 'cleaver' } }],
    };
  return base;
}

/** A night from what was done in it. */
export function replayed(night: PracticeNight, seed: number, actions: readonly NightAction[]): NightState {
  return actions.reduce(act, nightBegun(night, seed));
}
