import type { Fact } from '../../facts';
import type { ClosureLedger } from '../../splice/record/ledger';
import { needsSplicing } from '../../splice/bench/workOrder';
import { measuredPace, splicingTime, type Pace } from './estimate';

/** How a crew does at the bench. */
export interface BenchPace {
  /** Splices an hour as measured here; null while there are too few of this kind. */
  readonly anHour: number | null;
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
 */
export function benchPace(
  ledger: ClosureLedger,
  facts: Iterable<Fact>,
  { tray, kind }: { readonly tray: number; readonly kind: 'single' | 'ribbon' },
  pace: Pace,
  now: string,
  window: { readonly opens: string; readonly closes: string } | null,
): BenchPace {
  const measured = measuredPace(facts);
  const timeFor = (trays: ClosureLedger['trays']) => {
    const left = { single: 0, ribbon: 0 };
    for (const { splices } of trays)
      for (const state of splices) if (needsSplicing(state)) left[state.splice.kind] += 1;
    return (['single', 'ribbon'] as const).reduce((sum, one) => {
      const own = measured[one];
      return (
        sum +
        (own === null
          ? splicingTime(left[one], pace[one], one === 'single' ? pace.singleHeater : pace.ribbonHeater)
          : left[one] * own)
      );
    }, 0);
  };
  const own = measured[kind];
  const closure = timeFor(ledger.trays);
  const at = Date.parse(now);
  const within = window !== null && at >= Date.parse(window.opens) && at < Date.parse(window.closes);
  return {
    anHour: own === null ? null : 3600 / own,
    tray: timeFor(ledger.trays.filter((one) => one.tray === tray)),
    closure,
    spare: within ? (Date.parse(window.closes) - at) / 1000 - closure : null,
  };
}
