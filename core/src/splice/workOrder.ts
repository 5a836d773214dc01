import type { ClosureLedger, SpliceState, TrayState } from './ledger';

/** Still to be made: never spliced, or to be done again. */
export function needsSplicing(state: SpliceState): boolean {
  return state.verdict.mark === 'open' || state.verdict.mark === 'redo';
}

/** All planned splices along the cord: tray by tray, slot by slot. */
export function alongTheCord(ledger: ClosureLedger): SpliceState[] {
  return ledger.trays.flatMap((tray) => tray.splices);
}

/**
 * The next splice to make, walking the cord from just after `afterId` and starting over at its end, so that what was skipped comes
 * round again. Without `afterId`: the first one never spliced, else the first to be done again. null when nothing is left but
 * the splice itself.
 */
export function nextSplice(ledger: ClosureLedger, afterId: string | null): SpliceState | null {
  const cord = alongTheCord(ledger);
  if (afterId === null) return firstToMake(cord);
  const at = cord.findIndex((state) => state.splice.id === afterId);
  for (let step = 1; step < cord.length; step += 1) {
    const state = cord[(at + step) % cord.length]!;
    if (state.splice.id !== afterId && needsSplicing(state)) return state;
  }
  return null;
}

/** The next splice to make on one tray: the first never spliced, else the first to be done again. null when the tray is settled. */
export function nextOnTray(tray: TrayState): SpliceState | null {
  return firstToMake(tray.splices);
}

function firstToMake(splices: readonly SpliceState[]): SpliceState | null {
  return splices.find((state) => state.verdict.mark === 'open') ?? splices.find(needsSplicing) ?? null;
}
