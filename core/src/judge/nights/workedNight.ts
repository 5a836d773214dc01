import { mismatchLoss } from '../../splice/record/spliceLoss';
import { draws } from '../../machine/draws';
import type { Faults } from '../../machine/faults';
import { cleave, fuse, seat, type Bench, type FiberPair } from '../../machine/joints';
import { mildWeather, newWear, type Wear, type Weather } from '../../machine/wear';
import type { Happened, Tried } from '../series/tried';

/** A night that is worked at the simulated machine by hands that keep to the limits. */
export interface NightPlan {
  readonly seed: number;
  readonly kind: 'single' | 'ribbon';
  /** Fibers of a ribbon. */
  readonly fibers: number;
  readonly splices: number;
  /** Mode-field diameters of both sides, μm, of each pair of cables; spliced one after the other. */
  readonly pairs: readonly (readonly [left: number, right: number])[];
  readonly people: readonly string[];
  /** What is wrong at a splice, counted from 0. */
  readonly faultsAt: (splice: number) => Faults;
  readonly weatherAt?: (splice: number) => Weather;
  /** Whether somebody looks at the weather after the first calibration. */
  readonly weatherKnown?: boolean;
  readonly lossMax: number;
  readonly cleaveMax: number;
  readonly tries: number;
  readonly wear?: Wear;
}

export interface WorkedNight {
  /** In the order of time. */
  readonly told: readonly (
    { readonly tried: Tried; readonly truths: readonly number[] } | { readonly event: Happened }
  )[];
}

/** Ends are cleaved anew before the arc so often at most. */
const recleaves = 3;

/** The same plan gives the same night, to the last digit. */
export function workedNight(plan: NightPlan): WorkedNight {
  const told: WorkedNight['told'][number][] = [];
  const perPair = Math.ceil(plan.splices / plan.pairs.length);
  const machine = 'machine';
  const aligns: Bench['aligns'] = plan.kind === 'single' ? 'cores' : 'grooves';
  const first = plan.weatherAt?.(0) ?? mildWeather;
  let wear: Wear = { ...(plan.wear ?? newWear), calibratedAt: first, arcsSinceCalibration: 0 };
  wear = { ...wear, calibratedTo: 0.01 * draws(plan.seed, 'first calibration').normal() };
  let at = 0;
  told.push({ event: { at, what: 'calibrated', machine, ...first } });
  let known = first;
  for (let nth = 0; nth < plan.splices; nth += 1) {
    const weather = plan.weatherAt?.(nth) ?? first;
    const bench: Bench = { seed: plan.seed, aligns, faults: plan.faultsAt(nth) };
    // Looked at now and then, and when it changes so much that one feels it.
    if (
      plan.weatherKnown !== false &&
      (nth % 20 === 10 || Math.abs(weather.temperature - known.temperature) >= 5)
    ) {
      known = weather;
      told.push({ event: { at, what: 'weather', machine, ...weather } });
    }
    const pairIndex = Math.floor(nth / perPair);
    const [modeLeft, modeRight] = plan.pairs[pairIndex]!;
    const splice = `s${nth}`;
    const pairs = Array.from({ length: plan.fibers }, (_, fiber): FiberPair => ({
      left: { key: `l${nth}.${fiber}`, modeField: modeLeft },
      right: { key: `r${nth}.${fiber}`, modeField: modeRight },
    }));
    for (let attempt = 1; attempt <= plan.tries; attempt += 1) {
      at += 180_000;
      const cleaved = (side: 'left' | 'right') => {
        for (let again = 0; ; again += 1) {
          const ends = pairs.map((pair) => cleave(bench, wear, side, pair[side], attempt * 10 + again));
          wear = { ...wear, bladeCleaves: wear.bladeCleaves + plan.fibers };
          if (again === recleaves || ends.every(({ angle }) => tenth(angle) <= plan.cleaveMax)) return ends;
        }
      };
      const [left, right] = [cleaved('left'), cleaved('right')];
      const laid = pairs.map((pair, index) => ({
        pair,
        cleaves: { left: left[index]!, right: right[index]! },
        seat: seat(bench, splice, index + 1, pair, attempt),
      }));
      const fused = fuse(bench, wear, weather, splice, laid, attempt);
      wear = {
        ...wear,
        electrodeArcs: wear.electrodeArcs + 1,
        arcsSinceCalibration: wear.arcsSinceCalibration + 1,
      };
      const broke = fused.some((one) => one.broke);
      const losses = fused.map((one) => (one.broke ? null : one.estimate));
      const over = losses.some((loss) => loss !== null && loss > plan.lossMax + 1e-9);
      told.push({
        truths: fused.map(({ truth }) => truth),
        tried: {
          attempt: `${splice}.${attempt}`,
          splice,
          at,
          kind: plan.kind,
          nth: attempt,
          losses,
          left: left.map(({ angle }) => tenth(angle)),
          right: right.map(({ angle }) => tenth(angle)),
          broke,
          over,
          pair: `pair ${pairIndex}`,
          pairTerm: mismatchLoss(modeLeft, modeRight),
          machine,
          cleaver: 'cleaver',
          person: plan.people[Math.floor(nth / 13) % plan.people.length] ?? null,
        },
      });
      if (!broke && !over) break;
    }
  }
  return { told };
}

const tenth = (value: number) => Math.round(value * 10) / 10;
