import { z } from 'zod';
import { nameSchema } from '../schemas';

const endSchema = z.strictObject({
  /** Which end it is, always the same for the same fiber. */
  key: z.string().min(1).max(200),
  /** Mode-field diameter at 1310 nm, μm. */
  modeField: z.number().min(4).max(15),
});

/** What is done at a simulated machine: what hands do at a real one. */
export const standInCommandSchema = z.discriminatedUnion('do', [
  /** Both sides are stripped, cleaved and laid in. `splice` says which one it is, the same for each try at it. */
  z.strictObject({
    do: z.literal('load'),
    splice: z.string().min(1).max(4000),
    fibers: z
      .array(z.strictObject({ left: endSchema, right: endSchema }))
      .min(1)
      .max(24),
  }),
  /** At the pause: an end or both are cleaved anew, the fibers laid in anew, or the arc is struck. */
  z.strictObject({ do: z.literal('recleave'), side: z.enum(['left', 'right', 'both']) }),
  z.strictObject({ do: z.literal('reseat') }),
  z.strictObject({ do: z.literal('fuse') }),
  z.strictObject({ do: z.literal('take-out') }),
  z.strictObject({ do: z.literal('calibrate') }),
  z.strictObject({ do: z.literal('heat') }),
  z.strictObject({ do: z.literal('set'), program: nameSchema.optional(), heater: nameSchema.optional() }),
  z.strictObject({ do: z.literal('replace-electrodes') }),
  z.strictObject({ do: z.literal('next-blade-position') }),
]);
export type StandInCommand = Readonly<z.infer<typeof standInCommandSchema>>;
