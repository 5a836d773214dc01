import { markWords } from '../../splice/words';
import { measuredWith } from '../../splice/record/measured';
import type { AsBuilt, AsBuiltClosure, AsBuiltSplice } from './schema';

/** A cell as it is stored: a number stays a number. A time is ISO 8601 in UTC. */
export type Cell = string | number | null;

export interface Column {
  readonly title: string;
  readonly kind: 'text' | 'number' | 'loss' | 'time';
  /** Characters. */
  readonly width: number;
}

const column = (title: string, kind: Column['kind'] = 'text', width = 12): Column => ({ title, kind, width });

/** The columns of a table of splices: a row for each fiber. */
export const spliceColumns: readonly Column[] = [
  column('Tray', 'number', 6),
  column('Slot', 'number', 6),
  column('Kind', 'text', 8),
  column('Left cable', 'text', 18),
  column('Left fiber', 'number', 9),
  column('Left unit', 'number', 9),
  column('Left colors', 'text', 14),
  column('Right cable', 'text', 18),
  column('Right fiber', 'number', 9),
  column('Right unit', 'number', 9),
  column('Right colors', 'text', 14),
  column('Circuit', 'text', 20),
  column('Verdict', 'text', 12),
  column('Estimated loss (dB)', 'loss', 10),
  column('Measured loss (dB)', 'loss', 10),
  column('From left (dB)', 'loss', 9),
  column('From right (dB)', 'loss', 9),
  column('Measured with', 'text', 18),
  column('Limit (dB)', 'loss', 8),
  column('Cleave left (°)', 'number', 9),
  column('Cleave right (°)', 'number', 9),
  column('Tries', 'number', 6),
  column('Made at (UTC)', 'time', 18),
  column('By', 'text', 10),
  column('Machine', 'text', 14),
  column('Cleaver', 'text', 14),
  column('Passed over', 'text', 14),
  column('Owner', 'text', 20),
  column('Simulated', 'text', 9),
  column('Why', 'text', 40),
  column('Note', 'text', 30),
];

/** A closure's splices and connectors, a row for each fiber, in the order of trays and slots; then what is not planned. */
export function spliceRows({
  splices,
  connectors,
}: Pick<AsBuiltClosure, 'splices' | 'connectors'>): Cell[][] {
  const rows = splices.flatMap((splice) => splice.left.map((_, index) => fiberRow(splice, index)));
  for (const { end, connector, circuit, light, at, by } of connectors)
    rows.push([
      ...[null, null, 'connector'],
      ...[end.cable, end.fiber, end.unit, end.colors],
      ...[connector, null, null, null],
      ...[circuit, light],
      ...[null, null, null, null, null, null, null, null, null],
      ...[at, by],
      ...[null, null, null, null, null, null, null],
    ]);
  return rows;
}

function fiberRow(splice: AsBuiltSplice, index: number): Cell[] {
  const left = splice.left[index]!;
  const right = splice.right[index]!;
  const reading = splice.readings[index];
  const { owner } = splice;
  return [
    splice.tray,
    splice.slot,
    splice.kind,
    left.cable,
    left.fiber,
    left.unit,
    left.colors,
    right.cable,
    right.fiber,
    right.unit,
    right.colors,
    splice.circuit,
    splice.planned ? markWords[splice.mark] : `Not planned (${markWords[splice.mark]})`,
    reading?.loss ?? null,
    reading?.measured?.loss ?? null,
    reading?.measured?.fromLeft ?? null,
    reading?.measured?.fromRight ?? null,
    reading?.measured ? measuredWith(reading.measured) : null,
    splice.limit,
    reading?.cleaveLeft ?? null,
    reading?.cleaveRight ?? null,
    splice.tries,
    splice.madeAt,
    splice.by,
    splice.machine,
    splice.cleaver,
    splice.passedOver.join(', ') || null,
    owner ? [ownerWords[owner.answer], owner.name ?? owner.by, owner.note].filter(Boolean).join(', ') : null,
    splice.simulated ? 'yes' : null,
    splice.reasons.join(' ') || null,
    splice.note || null,
  ];
}

const ownerWords = { ask: 'asked', allow: 'allowed', redo: 'wants it done again' } as const;

/** The columns of the summary: a row for each closure. */
export const summaryColumns: readonly Column[] = [
  column('Closure', 'text', 24),
  column('Ready', 'text', 10),
  column('Splices', 'number', 8),
  column('Holds', 'number', 8),
  column('Allowed', 'number', 8),
  column('Owner’s calls', 'number', 8),
  column('To redo', 'number', 8),
  column('Open', 'number', 8),
  column('Fibers read', 'number', 8),
  column('Mean, estimated (dB)', 'loss', 9),
  column('Median (dB)', 'loss', 9),
  column('95 % below (dB)', 'loss', 9),
  column('Worst (dB)', 'loss', 9),
  column('Fibers measured', 'number', 8),
  column('Mean, measured (dB)', 'loss', 9),
  column('Mean limit (dB)', 'loss', 9),
  column('Sealed', 'text', 10),
  column('Test rounds', 'number', 8),
  column('Stands against it', 'text', 60),
];

export function summaryRows({ closures }: Pick<AsBuilt, 'closures'>): Cell[][] {
  return closures.map(({ site, sums, seal, ready }) => {
    const against = ready.filter(({ stands }) => stands === 'against');
    return [
      site,
      against.length === 0 ? 'yes' : 'no',
      sums.splices,
      sums.holds,
      sums.allowed,
      sums.owner,
      sums.redo,
      sums.open,
      sums.fibersRead,
      sums.mean,
      sums.median,
      sums.p95,
      sums.worst,
      sums.measured?.fibers ?? 0,
      sums.measured?.mean ?? null,
      sums.meanLimit,
      seal.sealed ? 'yes' : seal.tickedOnly ? 'ticked' : 'no',
      seal.rounds.length,
      against.map(({ words }) => words).join(' ') || null,
    ];
  });
}
