import { z } from 'zod';
import { idSchema, textSchema } from '../schemas';
import { noteSchema } from './envelope';
import { factKind, type FactOf } from './kind';
import { closureSubject } from './subject';

/** Somebody answered what the judge saw in a series of splices: it was put right, or it is set aside with a reason. What was seen until then counts no more for that rule. */
export const patternAnswerKind = factKind({
  kind: 'pattern-answer',
  version: 2,
  subject: closureSubject,
  body: z
    .strictObject({
      /** Name of the rule, and what it was about: a position, a side, a pair of cables. */
      rule: z.string().regex(/^[a-z][a-z-]{0,39}$/, 'A rule is a word in lower case.'),
      about: textSchema.max(200),
      /** The machine whose series it is; null: none was on record. */
      machine: idSchema.nullable(),
      answer: z.enum(['done', 'dismissed']),
      note: noteSchema,
    })
    .refine(({ answer, note }) => answer !== 'dismissed' || note !== '', {
      path: ['note'],
      message: 'Say why it does not matter.',
    }),
  // There is no older one.
  upcast: () => null,
});
export type PatternAnswer = FactOf<typeof patternAnswerKind>;
