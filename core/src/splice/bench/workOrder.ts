import type { ClosurePlan } from '../../plan/trays/closurePlan';
import type { ClosureLedger, SpliceState, TrayState } from '../record/ledger';

/** In which order a crew works: along the cord; tube after tube of the left cable; only what is to be done again; or one circuit before the rest. */
export type WorkOrder =
  { readonly by: 'tray' | 'tube' | 'redo' } | { readonly by: 'circuit'; readonly circuit: string };

export const byTray: WorkOrder = { by: 'tray' };

/** Still to be made: never spliced, or to be done again. */
export function needsSplicing(state: SpliceState): boolean {
  return state.verdict.mark === 'open' || state.verdict.mark === 'redo';
}

/** All planned splices along the cord: tray by tray, slot by slot. */
export function alongTheCord(ledger: ClosureLedger): SpliceState[] {
  return ledger.trays.flatMap((tray) => tray.splices);
}

/** All planned splices in the order of work. */
export function inWorkOrder(ledger: ClosureLedger, order: WorkOrder): SpliceState[] {
  const cord = alongTheCord(ledger);
  if (order.by === 'tube') return byTube(ledger.plan).map((position) => cord[position]!);
  if (order.by === 'circuit') {
    const first = (state: SpliceState) => state.splice.circuit === order.circuit;
    return [...cord.filter(first), ...cord.filter((state) => !first(state))];
  }
  return cord;
}

// A plan is replaced, never changed in place.
const tubes = new WeakMap<ClosurePlan, readonly number[]>();

/** Positions along the cord, sorted by the fibers of the left cable: its tubes one after the other, whatever trays they are on. */
function byTube(plan: ClosurePlan): readonly number[] {
  const known = tubes.get(plan);
  if (known) return known;
  const cables = new Map<string, number>();
  for (const { left } of plan.splices)
    if (!cables.has(left[0]!.cableId)) cables.set(left[0]!.cableId, cables.size);
  const keys = plan.splices.map(({ left }) => ({
    cable: cables.get(left[0]!.cableId)!,
    fiber: left[0]!.fiber,
  }));
  const sorted = keys
    .map((_, position) => position)
    .sort((a, b) => keys[a]!.cable - keys[b]!.cable || keys[a]!.fiber - keys[b]!.fiber || a - b);
  tubes.set(plan, sorted);
  return sorted;
}

/** Whether the order of work comes to a splice at all. */
function wanted(state: SpliceState, order: WorkOrder): boolean {
  return order.by === 'redo' ? state.verdict.mark === 'redo' : needsSplicing(state);
}

/**
 * The next splice to make, walking the order of work from just after `afterId` and starting over at its end, so that what was skipped comes
 * round again. Without `afterId`: the first one never spliced, else the first to be done again. null when nothing is left but
 * the splice itself.
 * @param taken splices at which somebody else stands: passed by as long as there is another
 */
export function nextSplice(
  ledger: ClosureLedger,
  afterId: string | null,
  order: WorkOrder = byTray,
  taken: ReadonlySet<string> = nobody,
): SpliceState | null {
  const all = inWorkOrder(ledger, order);
  if (afterId === null) return firstToMake(all.filter((state) => wanted(state, order)));
  const at = all.findIndex((state) => state.splice.id === afterId);
  // One circuit comes before the rest, wherever one stands; the walk begins anew with it.
  const circuit = order.by === 'circuit' ? order.circuit : null;
  let passed: SpliceState | null = null;
  let rest: SpliceState | null = null;
  for (let step = 1; step <= all.length; step += 1) {
    const state = all[(at + step + all.length) % all.length]!;
    if (state.splice.id === afterId || !wanted(state, order)) continue;
    if (taken.has(state.splice.id)) passed ??= state;
    else if (circuit !== null && state.splice.circuit !== circuit) rest ??= state;
    else return state;
  }
  return rest ?? passed;
}

const nobody: ReadonlySet<string> = new Set();

/** The next splice to make on one tray: the first never spliced, else the first to be done again. null when the tray is settled. */
export function nextOnTray(tray: TrayState): SpliceState | null {
  return firstToMake(tray.splices);
}

function firstToMake(splices: readonly SpliceState[]): SpliceState | null {
  return splices.find((state) => state.verdict.mark === 'open') ?? splices.find(needsSplicing) ?? null;
}
