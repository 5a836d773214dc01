import type { ClosureLedger } from '../../splice/record/ledger';
import { exceeds } from '../../limits/limits';
import { lossLimit } from '../../splice/record/verdict';

/** A fiber in its place on a tray. */
export interface PlaceCell {
  readonly spliceId: string;
  readonly slot: number;
  /** In the splice, from 1. */
  readonly position: number;
  /** The first of its splice: splices are drawn apart. */
  readonly first: boolean;
  /** What stands there. */
  readonly state: 'open' | 'broke' | 'read';
  /** dB of what is looked at; null: not read. */
  readonly loss: number | null;
  /** Of its limit: 1 is just at it. */
  readonly share: number;
  readonly over: boolean;
  /** It is among what is chosen. */
  readonly chosen: boolean;
}

/** A tray as a row. */
export interface PlaceRow {
  readonly closureId: string;
  readonly tray: number;
  readonly cells: readonly PlaceCell[];
  readonly over: number;
  readonly read: number;
}

/**
 * Every fiber in its place, trays as rows from the first closure of the route on; trays on which nothing is planned are left out.
 * @param chosen keys of the fibers that are looked at, by `placeKey`; null: all
 * @param measured show what was measured, in place of the estimates
 */
export function placesOf(
  closures: readonly { readonly closureId: string; readonly ledger: ClosureLedger }[],
  chosen: ReadonlySet<string> | null,
  measured: boolean,
): readonly PlaceRow[] {
  return closures.flatMap(({ closureId, ledger }) =>
    ledger.trays.flatMap(({ tray, splices }): PlaceRow[] => {
      if (splices.length === 0) return [];
      let [over, read] = [0, 0];
      const cells = splices.flatMap(({ splice, readings, measured: seen }) => {
        const limit = lossLimit(splice.kind, ledger.limits);
        return splice.left.map((_, index): PlaceCell => {
          const estimate = readings[index];
          const loss = measured ? (seen[index] ?? null) : (estimate?.loss ?? null);
          const isOver = loss !== null && exceeds(loss, limit);
          const isChosen = chosen === null || chosen.has(placeKey(closureId, splice.id, index + 1));
          if (isChosen && loss !== null) {
            read += 1;
            if (isOver) over += 1;
          }
          return {
            spliceId: splice.id,
            slot: splice.slot,
            position: index + 1,
            first: index === 0,
            state: loss !== null ? 'read' : estimate && !measured ? 'broke' : 'open',
            loss,
            share: loss === null ? 0 : Math.max(0, loss / limit),
            over: isOver,
            chosen: isChosen,
          };
        });
      });
      return [{ closureId, tray, cells, over, read }];
    }),
  );
}

export const placeKey = (closureId: string, spliceId: string, position: number) =>
  `${closureId} ${spliceId} ${position}`;
