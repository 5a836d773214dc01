import type { ClosurePlan } from '../trays/closurePlan';

/** What a new plan would do to the splices that something has happened to already. */
export interface PlanChange {
  /** Spliced, and no longer planned: their facts stay and are shown as unplanned. */
  readonly leaving: readonly string[];
  /** Spliced, and planned on another tray or slot than they lie in. */
  readonly moving: readonly {
    readonly spliceId: string;
    readonly from: { readonly tray: number; readonly slot: number };
    readonly to: { readonly tray: number; readonly slot: number } | null;
  }[];
  /** Facts of splices that were not planned, and are now. */
  readonly returning: readonly string[];
}

/** Compares two plans of one closure by the splices that have facts. Nothing is listed twice. */
export function planChange(
  before: ClosurePlan,
  after: ClosurePlan,
  touchedIds: Iterable<string>,
): PlanChange {
  const touched = new Set<string>();
  for (const id of touchedIds) touched.add(id);
  const unplaced = new Set(after.unplaced.map((splice) => splice.id));
  const leaving: string[] = [];
  const returning: string[] = [];
  const moving: PlanChange['moving'][number][] = [];
  for (const spliceId of touched) {
    const was = placeIn(before, spliceId);
    const will = placeIn(after, spliceId);
    if (was && !will) {
      if (unplaced.has(spliceId)) moving.push({ spliceId, from: was, to: null });
      else leaving.push(spliceId);
    } else if (!was && will) returning.push(spliceId);
    else if (was && will && (was.tray !== will.tray || was.slot !== will.slot))
      moving.push({ spliceId, from: was, to: will });
  }
  return { leaving, moving, returning };
}

function placeIn(plan: ClosurePlan, spliceId: string): { tray: number; slot: number } | null {
  const position = plan.positionOf.get(spliceId);
  if (position === undefined) return null;
  const { tray, slot } = plan.splices[position]!;
  return { tray, slot };
}
