import { z } from 'zod';
import { idSchema } from '../schemas';
import { noteSchema } from './envelope';
import { factKind, type FactOf } from './kind';
import { fieldsOf, flatSpliceSubject, needsLoss, oneEach, resultShape } from './result';
import { spliceSubject } from './subject';

/** What Cordel 0.1 wrote as a reason by itself. */
const whys = [
  ['Taken back at the bench', 'taken-back'],
  ['Taken back later', 'never-happened'],
  ['Sleeve forgotten', 'sleeve-forgotten'],
] as const;

/** An attempt was written down wrongly. `result` null: it never happened (taken back). */
export const correctionKind = factKind({
  kind: 'correction',
  version: 2,
  subject: spliceSubject,
  body: z
    .strictObject({
      attemptId: idSchema,
      result: z
        .strictObject(resultShape)
        .refine(needsLoss.when, { message: needsLoss.message, path: ['readings'] })
        .nullable(),
      /** Why, where the bench knows; its words are the interface's. */
      because: z.enum(['taken-back', 'never-happened', 'sleeve-forgotten']).optional(),
      /** Why, in the person's own words. */
      reason: noteSchema,
    })
    .refine(({ because, reason }) => because !== undefined || reason !== '', {
      message: 'Say why it is corrected.',
      path: ['reason'],
    }),
  check: {
    when: ({ subject, body }) => body.result === null || oneEach.when(subject, body.result.readings),
    message: oneEach.message,
    path: ['body', 'result', 'readings'],
  },
  upcast(_, { flat }) {
    if (!flat) return null;
    const because = whys.find(([text]) => text === flat.reason)?.[1];
    return {
      subject: flatSpliceSubject(flat),
      body: {
        ...fieldsOf(flat, 'attemptId', 'result', 'reason'),
        ...(because ? { because, reason: '' } : {}),
      },
    };
  },
  concernsGear: () => true,
});
export type Correction = FactOf<typeof correctionKind>;
