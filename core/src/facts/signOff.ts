import { z } from 'zod';
import { nameSchema } from '../schemas';
import { noteSchema } from './envelope';
import { factKind, type FactOf } from './kind';
import { closureSubject, projectSubject } from './subject';

export const signOffRoles = ['owner', 'inspector', 'crew'] as const;

/** Somebody signed the record of a closure or a project as it was then. The server makes it, with the fingerprint of the record that it froze; what is recorded later stands as later. */
export const signOffKind = factKind({
  kind: 'sign-off',
  version: 2,
  subject: z.discriminatedUnion('on', [closureSubject, projectSubject]),
  body: z.strictObject({
    /** SHA-256 of the record in canonical form, hexadecimal. */
    sha256: z.string().regex(/^[0-9a-f]{64}$/, 'A SHA-256 has 64 hexadecimal digits.'),
    name: nameSchema,
    role: z.enum(signOffRoles),
    decision: z.enum(['accepted', 'accepted-with-remarks', 'sent-back']),
    note: noteSchema,
  }),
  // There is no older one.
  upcast: () => null,
});
export type SignOff = FactOf<typeof signOffKind>;
