import type { Cable } from '../line/cable';
import type { Closure } from '../plan/closure';
import { carriesCircuit } from '../plan/opened/openedUnits';
import type { PlannedSplice } from '../plan/order/order';
import type { ClosurePlan } from '../plan/trays/closurePlan';
import { splicesLeft, type WorkLeft } from '../prepare/time/estimate';
import type { MeasuredPace } from '../prepare/time/measured';
import { needsSplicing } from '../splice/bench/workOrder';
import type { ClosureLedger } from '../splice/record/ledger';

/** What is left of a closure, and where. */
export interface ClosureToDo {
  readonly closure: Closure;
  readonly plan: ClosurePlan;
  readonly cables: ReadonlyMap<string, Cable>;
  readonly left: WorkLeft;
  /** Splices that are left, tray by tray; those without a slot come last, as tray null. */
  readonly trays: readonly {
    readonly tray: number | null;
    readonly singles: number;
    readonly ribbons: number;
  }[];
  readonly measured: MeasuredPace;
  /** Coefficient of variation of the time from splice to splice, as it was measured; null where it was not. */
  readonly variation: number | null;
  /** Of what is left, the splices that carry somebody's circuit; null: of none of the closure's it is known that it does. */
  readonly carrying: Spliced | null;
  /** Sides of ribbons that are to be made of its loose fibers beyond what the plan has: see `ribbonized`. */
  readonly gluing?: number;
}

/** Splices that are left, as a whole and tray by tray. */
export interface Spliced {
  readonly left: ReturnType<typeof splicesLeft>;
  readonly trays: ClosureToDo['trays'];
}

/** The same with only the splices that carry a circuit; null where that is not known, or nothing else is left. */
export function carryingOnly(
  todo: ClosureToDo,
): { readonly todo: ClosureToDo; readonly without: number } | null {
  const { left, carrying } = todo;
  if (!carrying) return null;
  const without = left.singles + left.ribbons - carrying.left.singles - carrying.left.ribbons;
  if (without === 0) return null;
  return { todo: { ...todo, left: { ...left, ...carrying.left }, trays: carrying.trays }, without };
}

/** The same with what is left of single fibers made into ribbons of twelve, both sides glued first. */
export function ribbonized(todo: ClosureToDo): ClosureToDo {
  const { left, trays, gluing = 0 } = todo;
  const made = Math.ceil(left.singles / 12);
  return {
    ...todo,
    left: { ...left, singles: 0, ribbons: left.ribbons + made, sleeves: { ribbon: left.ribbons + made } },
    trays: trays.map(({ tray, singles, ribbons }) => ({ tray, singles: 0, ribbons: ribbons + singles / 12 })),
    gluing: gluing + 2 * made,
  };
}

/** Splices that are left, tray by tray. @param counts which of them */
export function traysLeft(
  closure: Closure,
  plan: ClosurePlan,
  cables: ReadonlyMap<string, Cable>,
  ledger: Pick<ClosureLedger, 'trays'>,
  counts: (splice: PlannedSplice) => boolean = () => true,
): ClosureToDo['trays'] {
  const count = (tray: number | null, splices: readonly PlannedSplice[]) => {
    const { singles, ribbons } = splicesLeft(closure, splices.filter(counts), cables);
    return { tray, singles, ribbons };
  };
  return [
    ...ledger.trays.map(({ tray, splices }) =>
      count(
        tray,
        splices.filter(needsSplicing).map((one) => one.splice),
      ),
    ),
    count(null, plan.unplaced),
  ].filter(({ singles, ribbons }) => singles + ribbons > 0);
}

/** Of the splices that are left, those that carry a circuit; null where no splice of the closure is known to. */
export function carryingLeft(
  closure: Closure,
  plan: ClosurePlan,
  cables: ReadonlyMap<string, Cable>,
  ledger: Pick<ClosureLedger, 'trays'>,
): Spliced | null {
  const carries = (splice: PlannedSplice) => carriesCircuit(splice, cables);
  if (![...plan.splices, ...plan.unplaced].some(carries)) return null;
  const open = ledger.trays.flatMap(({ splices }) => splices.filter(needsSplicing).map((one) => one.splice));
  return {
    left: splicesLeft(closure, [...open, ...plan.unplaced].filter(carries), cables),
    trays: traysLeft(closure, plan, cables, ledger, carries),
  };
}
