import { z } from 'zod';
import { noteSchema } from './envelope';
import { factKind, type FactOf } from './kind';
import { sealNameSchema } from './sealCheck';
import { closureSubject } from './subject';

/** Never more than this in a closure, whatever is typed or set, kPa over the air outside (5 psi, common practice). */
export const mostPressure = 34.5;

/** A gauge cannot show more than this, kPa; it is what was read, not what was pumped. */
const mostRead = 1000;

/** A step of a flash test: pumped up, a seal looked at, the pressure let out, a seal set anew. */
export const flashTestKind = factKind({
  kind: 'flash-test',
  version: 2,
  subject: closureSubject,
  body: z.discriminatedUnion('did', [
    z.strictObject({
      did: z.literal('pumped'),
      /** Gauge pressure, kPa. */
      kPa: z
        .number('Give the pressure as a number.')
        .positive('The pressure is above 0.')
        .max(mostPressure, 'Never more than 34.5 kPa (5 psi). Let it out first.'),
      /** Soapy water before pumping, or after (both schools are in use). */
      soap: z.enum(['before', 'after']),
    }),
    /** The gauge went over the stop: recorded as it was, so that nobody has to hide it, and to be let out at once. */
    z.strictObject({ did: z.literal('over'), kPa: z.number().gt(mostPressure).max(mostRead) }),
    z.strictObject({
      did: z.literal('looked'),
      seal: sealNameSchema,
      /** "open" takes an earlier answer back. */
      saw: z.enum(['none', 'bubbles', 'open']),
    }),
    /** Let out until the gauge shows nothing; the cap of the valve is back on, or not yet. */
    z.strictObject({ did: z.literal('released'), capBack: z.boolean() }),
    /** A seal that leaked was opened and set anew. */
    z.strictObject({ did: z.literal('reseated'), seal: sealNameSchema, note: noteSchema }),
  ]),
  // There is no older one.
  upcast: () => null,
});
export type FlashTest = FactOf<typeof flashTestKind>;
