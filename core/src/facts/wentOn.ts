import { z } from 'zod';
import { textSchema } from '../schemas';
import { noteSchema } from './envelope';
import { dueAboutSchema, flatGearSubject } from './gearRef';
import { factKind, type FactOf } from './kind';
import { fieldsOf } from './result';
import { gearSubject } from './subject';

/** Something is due, and the person splices on without it. */
export const wentOnKind = factKind({
  kind: 'went-on',
  version: 2,
  subject: gearSubject,
  body: z.strictObject({
    about: dueAboutSchema,
    /** Codes of the rules that had tripped. Only another one asks again. */
    rules: z.array(textSchema.min(1).max(40)).min(1).max(20),
    note: noteSchema,
  }),
  upcast: (_, { flat }) =>
    flat ? { subject: flatGearSubject(flat), body: fieldsOf(flat, 'about', 'rules', 'note') } : null,
  concernsGear: () => true,
});
export type WentOn = FactOf<typeof wentOnKind>;
