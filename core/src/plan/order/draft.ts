import type { Cable } from '../../line/cable';
import { entryKey, goesThrough, type Closure } from '../closure';
import { planClosure, unassigned, unitsOnTray } from '../trays/closurePlan';
import { readOrder, type OrderTextProblem, type WrittenLine } from './orderText';
import { planChange, type PlanChange } from './planChange';
import type { PlanFinding, TrayReason } from '../words';

/** A plan while it is being edited: the closure, and its order as text. */
export interface PlanDraft {
  readonly closure: Closure;
  readonly text: string;
}

export interface DraftTray {
  readonly tray: number;
  readonly kind: 'single' | 'ribbon' | null;
  readonly slots: number;
  readonly used: number;
  /** Tubes and ribbons of the left side, each once. */
  readonly units: readonly { readonly cableId: string; readonly unit: number }[];
  readonly reasons: readonly TrayReason[];
}

/** Everything an editor shows of a draft, and no more: it crosses from a worker with every keystroke. */
export interface DraftCheck {
  readonly lines: readonly WrittenLine[];
  readonly problems: readonly OrderTextProblem[];
  /** `where` of an order line is its row in the text. */
  readonly findings: readonly PlanFinding[];
  readonly trays: readonly DraftTray[];
  readonly splices: number;
  readonly unplaced: number;
  /** Fibers that end in connectors. */
  readonly ends: number;
  /** For each cable, its fibers that no line takes: they go through, or stay dark. */
  readonly rest: readonly {
    readonly key: string;
    readonly cableId: string;
    readonly through: boolean;
    readonly ranges: readonly { readonly from: number; readonly to: number }[];
  }[];
  readonly change: PlanChange;
}

/**
 * Reads, expands, lays out and checks a draft.
 * @param saved the closure as it is stored, against which the changes are told
 * @param touched ids of the splices that something has happened to
 */
export function checkDraft(
  draft: PlanDraft,
  saved: Closure,
  cables: ReadonlyMap<string, Cable>,
  touched: readonly string[],
): DraftCheck {
  const { closure } = draft;
  const { lines, rows, problems } = readOrder(draft.text, closure.entries);
  const order = lines.map((line) => ({ ...line, id: closure.id }));
  const plan = planClosure({ ...closure, order }, cables, (index) => rows[index]!);
  const reasons = plan.trays.map((): TrayReason[] => []);
  for (const reason of plan.reasons) reasons[reason.tray - 1]!.push(reason);
  return {
    lines,
    problems,
    findings: plan.findings,
    trays: plan.trays.map((tray) => ({
      tray: tray.tray,
      kind: tray.splices[0]?.kind ?? null,
      slots: tray.slots,
      used: tray.splices.length,
      units: unitsOnTray(tray, cables),
      reasons: reasons[tray.tray - 1]!,
    })),
    splices: plan.splices.length + plan.unplaced.length,
    unplaced: plan.unplaced.length,
    ends: plan.ends.length,
    rest: closure.entries.flatMap((entry, index) => {
      const cable = cables.get(entry.cableId);
      return cable
        ? [
            {
              key: entryKey(entry, index),
              cableId: cable.id,
              through: goesThrough(entry.manner),
              ranges: unassigned(plan, cable),
            },
          ]
        : [];
    }),
    change:
      touched.length === 0
        ? { leaving: [], moving: [], returning: [] }
        : planChange(planClosure(saved, cables), plan, touched),
  };
}
