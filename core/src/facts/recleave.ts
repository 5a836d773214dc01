import { z } from 'zod';
import { noteSchema } from './envelope';
import { factKind, type FactOf } from './kind';
import { gearSubject } from './subject';

/** Ends were cleaved once more before the arc, on the cleaver that this is about. */
export const recleaveKind = factKind({
  kind: 'recleave',
  version: 2,
  subject: gearSubject,
  body: z.strictObject({
    /** Fiber ends: both sides of a ribbon of 24 at most. */
    ends: z.int('Give a whole number.').min(1, 'At least 1.').max(48, 'At most 48.'),
    note: noteSchema,
  }),
  // There is no older one.
  upcast: () => null,
  concernsGear: () => true,
});
export type Recleave = FactOf<typeof recleaveKind>;
