import type { Fact } from '../../facts';
import type { ClosureLedger } from '../../splice/record/ledger';
import { needsSplicing } from '../../splice/bench/workOrder';
import { heatingOf, splicingTime, type Heating, type Pace } from './estimate';
import { measuredPace } from './measured';

/** How a crew does at the bench. */
export interface BenchPace {
  /** Splices an hour as measured here, of all who are at it; null while there are too few of this kind. */
  readonly anHour: number | null;
  /** How many splice at this closure now; at least the one who stands here. */
  readonly people: number;
  /** s until this tray, and the splices of this closure, are done. */
  readonly tray: number;
  readonly closure: number;
  /** s that the window leaves after that; negative: it will not do. null without a window, or outside it. */
  readonly spare: number | null;
}

/**
 * Pace and time left, by the pace measured so far, and by the usual one where there is none yet.
 * @param tray number of the tray one stands at
 * @param now UTC
 * @param heating by the machine of the night
 * @param sleeveLength of the closure's single sleeves, mm
 */
export function benchPace(
  ledger: ClosureLedger,
  facts: Iterable<Fact>,
  { tray, kind }: { readonly tray: number; readonly kind: 'single' | 'ribbon' },
  pace: Pace,
  now: string,
  window: { readonly opens: string; readonly closes: string } | null,
  { heating = heatingOf(pace), sleeveLength = 60 }: { heating?: Heating; sleeveLength?: 40 | 60 } = {},
): BenchPace {
  const measured = measuredPace(facts, now);
  const timeFor = (trays: ClosureLedger['trays'], people: number) => {
    const left = { single: 0, ribbon: 0 };
    for (const { splices } of trays)
      for (const state of splices) if (needsSplicing(state)) left[state.splice.kind] += 1;
    return (['single', 'ribbon'] as const).reduce((sum, one) => {
      const own = measured[one];
      if (own !== null) return sum + (left[one] * own) / people;
      const heater =
        heating.seconds[one === 'ribbon' ? 'ribbon' : sleeveLength === 40 ? 'single-40' : 'single-60'];
      return sum + splicingTime(Math.ceil(left[one] / people), pace[one], heater, heating.heaters);
    }, 0);
  };
  const here = ledger.trays.filter((one) => one.tray === tray);
  const onTray = new Set(here.flatMap(({ splices }) => splices.map((state) => state.splice.id)));
  const people = Math.max(1, measured.atWork.length);
  const atTray = Math.max(1, measured.atWork.filter(({ spliceId }) => onTray.has(spliceId)).length);
  const own = measured[kind];
  const closure = timeFor(ledger.trays, people);
  const at = Date.parse(now);
  const within = window !== null && at >= Date.parse(window.opens) && at < Date.parse(window.closes);
  return {
    anHour: own === null ? null : (people * 3600) / own,
    people,
    tray: timeFor(here, atTray),
    closure,
    spare: within ? (Date.parse(window.closes) - at) / 1000 - closure : null,
  };
}
