import { z } from 'zod';
import { idSchema } from '../schemas';
import { noteSchema } from './envelope';
import { factKind, type FactOf } from './kind';
import { fieldsOf, flatSpliceSubject } from './result';
import { spliceSubject } from './subject';

/** The crew leaves an attempt to the owner ("ask"), or the owner answers: leave it in ("allow") or do it again ("redo"). */
export const ownerAnswerKind = factKind({
  kind: 'owner-answer',
  version: 2,
  subject: spliceSubject,
  body: z.strictObject({ attemptId: idSchema, answer: z.enum(['ask', 'allow', 'redo']), note: noteSchema }),
  upcast: (_, { flat }) =>
    flat ? { subject: flatSpliceSubject(flat), body: fieldsOf(flat, 'attemptId', 'answer', 'note') } : null,
});
export type OwnerAnswer = FactOf<typeof ownerAnswerKind>;
