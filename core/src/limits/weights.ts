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
