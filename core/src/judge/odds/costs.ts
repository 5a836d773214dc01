import type { Weights } from '../../limits/weights';

/** What it all costs, in minutes of the window: by which a redo can be held against a splice that is left as it is. From memory, for the owner to set in words. */
export interface Costs {
  readonly minute: number;
  readonly sleeve: number;
  /** A redo takes fiber; the last that there is for it is dear. */
  readonly slack: number;
  readonly lastSlack: number;
  readonly over: number;
  readonly meanOver: number;
  /** Somebody has to be asked, and may say no. */
  readonly owner: number;
  /** From both ends. */
  readonly measure: number;
}

export function costsOf({ time, over, slack }: Weights): Costs {
  const ofSlack = { plenty: 0.5, usual: 2, short: 8 }[slack];
  const ofOver = { tolerable: 12, usual: 60, never: 600 }[over];
  return {
    minute: { plenty: 0.5, usual: 1, short: 3 }[time],
    sleeve: 1,
    slack: ofSlack,
    lastSlack: 5 * ofSlack,
    over: ofOver,
    meanOver: 0.75 * ofOver,
    owner: Math.min(25, 0.5 * ofOver),
    measure: 15,
  };
}
