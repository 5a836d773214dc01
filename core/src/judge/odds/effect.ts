import type { ClosureLedger, SpliceState, TrayState } from '../../splice/record/ledger';
import { exceeds } from '../../limits/limits';

/** What a splice does to the limits that it counts for. dB; null where nothing is read. */
export interface Effect {
  /** Of the ribbon itself; null of a single fiber. */
  readonly ribbonMean: number | null;
  readonly tray: MeanEffect;
  readonly closure: MeanEffect;
  /** 1: the worst of its tray, 2: the second worst; null: neither, or nothing is read. */
  readonly rank: 1 | 2 | null;
}

export interface MeanEffect {
  readonly limit: number;
  readonly without: number | null;
  readonly with: number | null;
  readonly over: boolean;
  /** What the fibers that are still to be spliced may average, where this one stays as it is; null where none are. */
  readonly mayAverage: number | null;
}

/** What `state` does to its tray and closure as it stands. */
export function effectOf(ledger: ClosureLedger, tray: TrayState, state: SpliceState): Effect {
  const own = lossesOf(state);
  const sum = own.reduce((total, loss) => total + loss, 0);
  const mean = (limit: number, { loss, read, remaining, settledLoss, settledRead }: Sums): MeanEffect => {
    const before = read - own.length;
    const after = read > 0 ? loss / read : null;
    const settled = state.verdict.mark !== 'open' && state.verdict.mark !== 'redo';
    // Where it is to be redone it is counted as open; here it stays.
    const open = settled ? remaining : remaining - own.length;
    const stays = settled ? settledLoss : settledLoss + sum;
    const fibers = settled ? settledRead : settledRead + own.length;
    return {
      limit,
      without: before > 0 ? (loss - sum) / before : null,
      with: after,
      over: after !== null && exceeds(after, limit),
      mayAverage: open > 0 ? (limit * (fibers + open) - stays) / open : null,
    };
  };
  const closure = ledger.trays.reduce<Sums>(
    (all, { tally }) => ({
      loss: all.loss + tally.loss,
      read: all.read + tally.read,
      remaining: all.remaining + tally.remaining,
      settledLoss: all.settledLoss + tally.settledLoss,
      settledRead: all.settledRead + tally.settledRead,
    }),
    { loss: 0, read: 0, remaining: 0, settledLoss: 0, settledRead: 0 },
  );
  return {
    ribbonMean: state.splice.kind === 'ribbon' && own.length > 0 ? sum / own.length : null,
    tray: mean(ledger.limits.trayMean, tray.tally),
    closure: mean(ledger.limits.closureMean, closure),
    rank: rankOf(tray, state),
  };
}

type Sums = Pick<TrayState['tally'], 'loss' | 'read' | 'remaining' | 'settledLoss' | 'settledRead'>;

function lossesOf({ readings }: SpliceState): number[] {
  return readings.flatMap(({ loss }) => (loss === null ? [] : [loss]));
}

function rankOf(tray: TrayState, state: SpliceState): Effect['rank'] {
  const own = Math.max(...lossesOf(state));
  if (own === -Infinity) return null;
  let above = 0;
  for (const other of tray.splices)
    if (other.splice.id !== state.splice.id && Math.max(...lossesOf(other)) > own) above += 1;
  return above === 0 ? 1 : above === 1 ? 2 : null;
}
