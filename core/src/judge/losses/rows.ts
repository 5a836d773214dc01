import type { Mark } from '../../splice/record/verdict';
import { lossLimit } from '../../splice/record/verdict';
import { spliceHistory } from '../../splice/record/history';
import type { ClosureLedger } from '../../splice/record/ledger';
import { unitOf, type UnitKind } from '../../line/fiberNumber';
import type { Cable } from '../../line/cable';
import { exceeds } from '../../limits/limits';
import { pairOf, termOf } from '../odds/adviceAt';

/** A fiber of a splice that was tried, in its place, with what it was made by: what the losses are looked at by. */
export interface LossRow {
  readonly closureId: string;
  readonly spliceId: string;
  readonly attempt: string;
  readonly tray: number;
  readonly slot: number;
  /** Its place in the splice, from 1: of a ribbon its position. */
  readonly position: number;
  readonly kind: 'single' | 'ribbon';
  /** The tube or ribbon that its left end lies in; null where the cable is not known. */
  readonly unit: { readonly kind: UnitKind; readonly number: number } | null;
  readonly pair: string;
  readonly machine: string | null;
  readonly person: string | null;
  /** ms since 1970, and the day of that night. */
  readonly at: number;
  readonly day: string;
  /** What the mode fields of the two cables cost by themselves, dB; null where one is not known. */
  readonly pairTerm: number | null;
  /** dB, estimated by the machine, of the try that is in the tray; null: it broke. */
  readonly loss: number | null;
  /** dB, measured; null where it was not. */
  readonly measured: number | null;
  /** The largest that holds, dB. */
  readonly limit: number;
  readonly over: boolean;
  readonly mark: Mark;
  readonly tries: number;
}

/**
 * Every fiber of every splice that was tried, along the route as the closures are given.
 * @param dayOf the day that a time belongs to, as it is written
 */
export function lossRows(
  closures: readonly { readonly closureId: string; readonly ledger: ClosureLedger }[],
  cables: ReadonlyMap<string, Cable>,
  dayOf: (madeAt: string) => string,
): LossRow[] {
  const rows: LossRow[] = [];
  for (const { closureId, ledger } of closures)
    for (const { tray, splices } of ledger.trays)
      for (const { splice, facts, verdict, readings, measured } of splices) {
        if (readings.length === 0) continue;
        // Nearly every splice was tried once; then its history need not be written out.
        const [only] = facts;
        const last = facts.length === 1 && only!.kind === 'attempt' ? only : spliceHistory(facts).last?.fact;
        if (!last || last.body.light !== undefined) continue;
        const limit = lossLimit(splice.kind, ledger.limits);
        const shared = {
          closureId,
          spliceId: splice.id,
          attempt: last.id,
          tray,
          slot: splice.slot,
          kind: splice.kind,
          pair: pairOf(splice),
          pairTerm: termOf(splice, cables),
          machine: last.body.gear?.machine?.id ?? null,
          person: last.by,
          at: Date.parse(last.madeAt),
          day: dayOf(last.madeAt),
          limit,
          mark: verdict.mark,
          tries: verdict.tries,
        };
        readings.forEach(({ loss }, index) => {
          const end = splice.left[index]!;
          const cable = cables.get(end.cableId);
          const unit = cable ? unitOf(cable.construction, end.fiber) : null;
          rows.push({
            ...shared,
            position: index + 1,
            unit: unit && { kind: unit.kind, number: unit.unit },
            loss,
            measured: measured[index] ?? null,
            over: loss !== null && exceeds(loss, limit),
          });
        });
      }
  return rows;
}

/** What rows are chosen by; each as it is written in `valueOf`. */
export const facets = ['closure', 'tray', 'unit', 'position', 'pair', 'machine', 'person', 'day'] as const;
export type Facet = (typeof facets)[number];

/** What is chosen of each; a facet that is not named chooses nothing. */
export type LossFilter = Readonly<Partial<Record<Facet, string>>>;

/** What a row has of a facet; null: nothing on record. Trays are told apart by their closure, tubes by their pair of cables. */
export function valueOf(row: LossRow, facet: Facet): string | null {
  switch (facet) {
    case 'closure':
      return row.closureId;
    case 'tray':
      return `${row.closureId} ${row.tray}`;
    case 'unit':
      return row.unit && `${row.pair} ${row.unit.kind} ${row.unit.number}`;
    case 'position':
      return row.kind === 'ribbon' ? String(row.position) : null;
    default:
      return row[facet];
  }
}

export function chosen(rows: readonly LossRow[], filter: LossFilter): readonly LossRow[] {
  const wanted = facets.filter((facet) => filter[facet] !== undefined);
  return wanted.length === 0
    ? rows
    : rows.filter((row) => wanted.every((facet) => valueOf(row, facet) === filter[facet]));
}

/** What can be chosen of a facet, with how many fibers each has under the other choices; in the order in which they come. */
export function choicesOf(
  rows: readonly LossRow[],
  filter: LossFilter,
  facet: Facet,
): readonly { readonly value: string; readonly count: number }[] {
  const { [facet]: _, ...others } = filter;
  const counts = new Map<string, number>();
  for (const row of rows) {
    const value = valueOf(row, facet);
    // What has none under the other choices stands there all the same, so that a choice does not vanish.
    if (value !== null && !counts.has(value)) counts.set(value, 0);
  }
  for (const row of chosen(rows, others)) {
    const value = valueOf(row, facet);
    if (value !== null) counts.set(value, counts.get(value)! + 1);
  }
  return [...counts].map(([value, count]) => ({ value, count }));
}
