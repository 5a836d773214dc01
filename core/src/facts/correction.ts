import { z } from 'zod';
import { idSchema } from '../schemas';
import { noteSchema } from './envelope';
import { factKind, type FactOf } from './kind';
import { fieldsOf, flatSpliceSubject, needsLoss, oneEach, resultShape } from './result';
import { spliceSubject } from './subject';

/** An attempt was written down wrongly. `result` null: it never happened (taken back). */
export const correctionKind = factKind({
  kind: 'correction',
  version: 2,
  subject: spliceSubject,
  body: z.strictObject({
    attemptId: idSchema,
    result: z
      .strictObject(resultShape)
      .refine(needsLoss.when, { message: needsLoss.message, path: ['readings'] })
      .nullable(),
    reason: noteSchema.min(1, 'Say why it is corrected.'),
  }),
  check: {
    when: ({ subject, body }) => body.result === null || oneEach.when(subject, body.result.readings),
    message: oneEach.message,
    path: ['body', 'result', 'readings'],
  },
  upcast: (_, { flat }) =>
    flat ? { subject: flatSpliceSubject(flat), body: fieldsOf(flat, 'attemptId', 'result', 'reason') } : null,
  concernsGear: ({ result }) => result === null,
});
export type Correction = FactOf<typeof correctionKind>;
