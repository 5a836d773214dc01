import type { LossRow } from './rows';

/** Ribbons by positions: what each fiber reads, so that a position that is always high stands out. */
export interface HeatMap {
  readonly ribbons: readonly {
    readonly closureId: string;
    readonly spliceId: string;
    readonly tray: number;
    readonly slot: number;
    /** dB by position; null: not read. */
    readonly losses: readonly (number | null)[];
  }[];
  /** Mean of each position over the ribbons, dB; null where none was read. */
  readonly means: readonly (number | null)[];
}

/** In the order of the rows. */
export function heatMapOf(rows: readonly LossRow[]): HeatMap {
  const bySplice = new Map<string, { row: LossRow; losses: (number | null)[] }>();
  let positions = 0;
  for (const row of rows) {
    if (row.kind !== 'ribbon') continue;
    const key = `${row.closureId} ${row.spliceId}`;
    let ribbon = bySplice.get(key);
    if (!ribbon) bySplice.set(key, (ribbon = { row, losses: [] }));
    while (ribbon.losses.length < row.position) ribbon.losses.push(null);
    ribbon.losses[row.position - 1] = row.loss;
    positions = Math.max(positions, row.position);
  }
  const ribbons = [...bySplice.values()].map(({ row: { closureId, spliceId, tray, slot }, losses }) => ({
    closureId,
    spliceId,
    tray,
    slot,
    losses,
  }));
  const means = Array.from({ length: positions }, (_, at) => {
    const read = ribbons.flatMap(({ losses }) => losses[at] ?? []);
    return read.length === 0 ? null : read.reduce((sum, loss) => sum + loss, 0) / read.length;
  });
  return { ribbons, means };
}
