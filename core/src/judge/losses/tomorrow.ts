import type { ClosureLedger, SpliceState } from '../../splice/record/ledger';

/** A closure as it is found tomorrow. */
export interface ClosureTomorrow {
  readonly closureId: string;
  readonly ledger: ClosureLedger;
  /** It is sealed: to reach a splice it has to be opened, sealed and tested again. */
  readonly sealed: boolean;
}

export interface RedoList {
  readonly closures: readonly {
    readonly closureId: string;
    readonly reopen: boolean;
    readonly trays: readonly { readonly tray: number; readonly splices: readonly SpliceState[] }[];
    readonly count: number;
  }[];
  readonly splices: number;
  readonly reopenings: number;
}

/**
 * What is to be made again, in the order of least reopening: what is open anyway first, then the closures in which one reopening serves most splices; inside, tray after tray and
 * slot after slot, so that each tray is taken in hand once.
 * @param closures along the route
 */
export function redoList(closures: readonly ClosureTomorrow[]): RedoList {
  const list = closures.flatMap(({ closureId, ledger, sealed }) => {
    const trays = ledger.trays.flatMap(({ tray, splices }) => {
      const own = splices.filter(({ verdict }) => verdict.mark === 'redo');
      return own.length === 0 ? [] : [{ tray, splices: own }];
    });
    const count = trays.reduce((sum, { splices }) => sum + splices.length, 0);
    return count === 0 ? [] : [{ closureId, reopen: sealed, trays, count }];
  });
  // The sort keeps the order along the route where all else is equal.
  const ordered = list.sort(
    (a, b) => Number(a.reopen) - Number(b.reopen) || (a.reopen ? b.count - a.count : 0),
  );
  return {
    closures: ordered,
    splices: ordered.reduce((sum, { count }) => sum + count, 0),
    reopenings: ordered.filter(({ reopen }) => reopen).length,
  };
}
