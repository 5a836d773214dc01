import { z } from 'zod';
import { idSchema, nameSchema } from '../schemas';
import { noteSchema } from './envelope';
import { factKind, type FactOf } from './kind';
import { fieldsOf, flatSpliceSubject } from './result';
import { spliceSubject } from './subject';

/** The crew leaves an attempt to the owner ("ask"), or the owner answers: leave it in ("allow") or do it again ("redo"). */
export const ownerAnswerKind = factKind({
  kind: 'owner-answer',
  version: 3,
  subject: spliceSubject,
  body: z.strictObject({
    attemptId: idSchema,
    answer: z.enum(['ask', 'allow', 'redo']),
    /** Who answered for the owner, where that is not who recorded it. */
    name: nameSchema.optional(),
    note: noteSchema,
  }),
  upcast: (from, { flat, subject, body }) =>
    from === 2
      ? { subject, body }
      : flat
        ? { subject: flatSpliceSubject(flat), body: fieldsOf(flat, 'attemptId', 'answer', 'note') }
        : null,
});
export type OwnerAnswer = FactOf<typeof ownerAnswerKind>;
