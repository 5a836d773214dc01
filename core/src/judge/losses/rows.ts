import type { Mark } from '../../splice/record/verdict';
import { lossLimit } from '../../splice/record/verdict';
import { spliceHistory } from '../../splice/record/history';
import type { ClosureLedger } from '../../splice/record/ledger';
import { unitOf, type FiberUnit } from '../../line/fiberNumber';
import type { Cable } from '../../line/cable';
import type { PlacedSplice } from '../../plan/trays/trayLayout';
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
  readonly unit: FiberUnit | null;
  /** Tray and unit as they are chosen by: trays are told apart by their closure, tubes by their pair of cables. */
  readonly trayKey: string;
  readonly unitKey: string | null;
  readonly pair: string;
  readonly machine: string | null;
  readonly cleaver: string | null;
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
  const pairAt = pairsOf(cables);
  for (const { closureId, ledger } of closures)
    for (const { tray, splices } of ledger.trays) {
      const trayKey = `${closureId} ${tray}`;
      for (const { splice, facts, verdict, readings, measured } of splices) {
        if (readings.length === 0) continue;
        // Nearly every splice was tried once; then its history need not be written out.
        const [only] = facts;
        const last = facts.length === 1 && only!.kind === 'attempt' ? only : spliceHistory(facts).last?.fact;
        if (!last || last.body.light !== undefined) continue;
        const limit = lossLimit(splice.kind, ledger.limits);
        const { pair, pairTerm } = pairAt(splice);
        const machine = last.body.gear?.machine?.id ?? null;
        const cleaver = last.body.gear?.cleaver?.id ?? null;
        const at = Date.parse(last.madeAt);
        const day = dayOf(last.madeAt);
        const { left, id: spliceId, slot, kind } = splice;
        // Written out: spread fields take several times as long, and there are thousands.
        readings.forEach(({ loss }, index) => {
          const end = left[index]!;
          const cable = cables.get(end.cableId);
          const unit = cable ? unitOf(cable.construction, end.fiber) : null;
          rows.push({
            closureId,
            spliceId,
            attempt: last.id,
            tray,
            slot,
            position: index + 1,
            kind,
            unit,
            trayKey,
            unitKey: unit && `${pair} ${unit.kind} ${unit.unit}`,
            pair,
            pairTerm,
            machine,
            cleaver,
            person: last.by,
            at,
            day,
            loss,
            measured: measured[index] ?? null,
            limit,
            over: loss !== null && exceeds(loss, limit),
            mark: verdict.mark,
            tries: verdict.tries,
          });
        });
      }
    }
  return rows;
}

/** The pair of cables of a splice and what their mode fields cost; a job has thousands of splices and a few pairs. */
export function pairsOf(
  cables: ReadonlyMap<string, Cable>,
): (splice: PlacedSplice) => { readonly pair: string; readonly pairTerm: number | null } {
  const known = new Map<string, { readonly pair: string; readonly pairTerm: number | null }>();
  return (splice) => {
    const key = `${splice.left[0]!.cableId} ${splice.right[0]!.cableId}`;
    let own = known.get(key);
    if (!own) known.set(key, (own = { pair: pairOf(splice), pairTerm: termOf(splice, cables) }));
    return own;
  };
}

/** What rows are chosen by; each as it is written in `valueOf`. */
export const facets = [
  'closure',
  'tray',
  'kind',
  'unit',
  'position',
  'pair',
  'machine',
  'cleaver',
  'person',
  'day',
] as const;
export type Facet = (typeof facets)[number];

/** What is chosen of each; a facet that is not named chooses nothing. */
export type LossFilter = Readonly<Partial<Record<Facet, string>>>;

/** What a row has of a facet; null: nothing on record. */
export function valueOf(row: LossRow, facet: Facet): string | null {
  switch (facet) {
    case 'closure':
      return row.closureId;
    case 'tray':
      return row.trayKey;
    case 'unit':
      return row.unitKey;
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
  const wanted = facets.filter((other) => others[other as keyof typeof others] !== undefined);
  const counts = new Map<string, number>();
  for (const row of rows) {
    const value = valueOf(row, facet);
    if (value === null) continue;
    // What has none under the other choices stands there all the same, so that a choice does not vanish.
    const counted = wanted.every((other) => valueOf(row, other) === filter[other]) ? 1 : 0;
    counts.set(value, (counts.get(value) ?? 0) + counted);
  }
  return [...counts].map(([value, count]) => ({ value, count }));
}

/** Those that were measured, with what was measured in place of the estimate; the two are never looked at together. */
export function asMeasured(rows: readonly LossRow[]): readonly LossRow[] {
  return rows.flatMap((row) =>
    row.measured === null ? [] : [{ ...row, loss: row.measured, over: exceeds(row.measured, row.limit) }],
  );
}

/** The highest of the rows, the worst first; what broke is worse than what reads. */
export function worstOf(rows: readonly LossRow[], most: number): readonly LossRow[] {
  const of = ({ loss }: LossRow) => loss ?? Infinity;
  const worst: LossRow[] = [];
  for (const row of rows) {
    if (worst.length === most && of(row) <= of(worst.at(-1)!)) continue;
    const place = worst.findIndex((other) => of(other) < of(row));
    worst.splice(place < 0 ? worst.length : place, 0, row);
    if (worst.length > most) worst.pop();
  }
  return worst;
}
