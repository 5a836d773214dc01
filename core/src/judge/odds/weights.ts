import { z } from 'zod';

/** What the owner says of it in words. */
export const weightsSchema = z.strictObject({
  /** The window: is there time? */
  time: z.enum(['plenty', 'usual', 'short']),
  /** A splice or a mean over its limit. */
  over: z.enum(['tolerable', 'usual', 'never']),
  /** Fiber left for redos. */
  slack: z.enum(['plenty', 'usual', 'short']),
});
export type Weights = Readonly<z.infer<typeof weightsSchema>>;

export const usualWeights: Weights = { time: 'usual', over: 'usual', slack: 'usual' };

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

export const weightWords = {
  time: {
    title: 'Time in the window',
    plenty: 'There is plenty',
    usual: 'As usual',
    short: 'Every minute counts',
  },
  over: {
    title: 'Over a limit',
    tolerable: 'Tolerable now and then',
    usual: 'To be avoided',
    never: 'Not accepted',
  },
  slack: {
    title: 'Fiber for redos',
    plenty: 'There is plenty',
    usual: 'As usual',
    short: 'Short',
  },
} as const;
