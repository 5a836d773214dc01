import { z } from 'zod';
import { idSchema, timeSchema } from './schemas';

/**
 * A fact is something that happened at a closure. It is appended once and never changed; whoever made it made its id (UUIDv7) and
 * its time, so it can be sent as often as it takes and is stored once.
 */
export const factBase = z.strictObject({
  id: idSchema,
  closureId: idSchema,
  madeAt: timeSchema,
  /** First name of the person, where given. */
  by: z.string().trim().max(40, 'Keep the name to 40 characters.').nullable(),
});

export const noteSchema = z.string().trim().max(500, 'Keep the note to 500 characters.');

/** Facts are ordered by the time they were made, then by id: the same order on every device, whoever sent first. */
export function compareFacts(
  a: { readonly madeAt: string; readonly id: string },
  b: { readonly madeAt: string; readonly id: string },
): number {
  if (a.madeAt !== b.madeAt) return a.madeAt < b.madeAt ? -1 : 1;
  return a.id < b.id ? -1 : a.id > b.id ? 1 : 0;
}
