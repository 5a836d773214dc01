import { z } from 'zod';
import { idSchema } from '../schemas';
import { absurdLoss } from '../splice/record/reading';
import { noteSchema } from './envelope';
import { factKind, type FactOf } from './kind';
import { fibersOf, spliceSubject } from './subject';

/** nm; those that fibers outside a building are measured at (ITU-T G.650.3). */
export const measuredAt = [1310, 1490, 1550, 1625, 1650] as const;

/** dB seen from one end. An OTDR that looks from the fiber with the smaller mode field to the larger can read below 0 ("gainer"). */
export const seenLossSchema = z
  .number({ error: 'A measured loss is a number in dB, like 0.04 or -0.02.' })
  .min(-absurdLoss, 'A reading below −10 dB is no splice. Check the decimal point.')
  .max(absurdLoss, 'A reading over 10 dB is no splice. Check the decimal point.');

/** One fiber of a joint was measured, with light through it; what the splicing machine shows is an estimate. Both directions null take an earlier one back. The last one counts. */
export const measuredLossKind = factKind({
  kind: 'measured-loss',
  version: 1,
  subject: spliceSubject,
  body: z.strictObject({
    /** The joint that was measured: a new try is another. */
    attemptId: idSchema,
    /** Of the fiber among the left ends of the subject, from 1. */
    position: z.int().min(1).max(24),
    method: z.enum(['otdr', 'power-meter']),
    wavelength: z.literal(measuredAt),
    fromLeft: seenLossSchema.nullable(),
    fromRight: seenLossSchema.nullable(),
    note: noteSchema,
  }),
  check: {
    when: ({ subject, body }) => body.position <= fibersOf(subject),
    message: 'The splice has fewer fibers than that.',
    path: ['body', 'position'],
  },
  // There is no older one.
  upcast: () => null,
});
export type MeasuredLoss = FactOf<typeof measuredLossKind>;
