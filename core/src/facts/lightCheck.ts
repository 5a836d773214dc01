import { z } from 'zod';
import { noteSchema } from './envelope';
import { factKind, type FactOf } from './kind';
import { endSubject } from './subject';

/** Visible light was sent into the connector of a fiber end, toward the far end. The last check of an end counts. */
export const lightCheckKind = factKind({
  kind: 'light-check',
  version: 2,
  subject: endSubject,
  body: z.strictObject({
    /** It came out at the far end; it glowed at the joint in the connector; nothing of it was seen. "open" takes an earlier check back. */
    seen: z.enum(['far-end', 'glows', 'nothing', 'open']),
    note: noteSchema,
  }),
  // There is no older one.
  upcast: () => null,
});
export type LightCheck = FactOf<typeof lightCheckKind>;
