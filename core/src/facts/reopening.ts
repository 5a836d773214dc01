import { z } from 'zod';
import { noteSchema } from './envelope';
import { factKind, type FactOf } from './kind';
import { closureSubject } from './subject';

export const reopeningReasons = ['more-work', 'repair', 'leak', 'inspection', 'other'] as const;

/** A closure was opened again. What was looked at and tested before counts no more for its seal; what was spliced does. */
export const reopeningKind = factKind({
  kind: 'reopening',
  version: 2,
  subject: closureSubject,
  body: z
    .strictObject({ reason: z.enum(reopeningReasons), note: noteSchema })
    .refine(({ reason, note }) => reason !== 'other' || note !== '', {
      path: ['note'],
      message: 'Say why it was opened.',
    }),
  // There is no older one.
  upcast: () => null,
});
export type Reopening = FactOf<typeof reopeningKind>;
