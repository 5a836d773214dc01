import { z } from 'zod';
import { idSchema, textSchema, timeSchema } from '../schemas';

/**
 * A fact is something that happened in the field. It is appended once and never changed; whoever made it made its id (UUIDv7) and its
 * time, so it can be sent as often as it takes and is stored once. What it is about stands in `subject`, what happened in `body`.
 */
export interface Envelope<K extends string, S, B> {
  /** Version of the kind. A body of an older one is brought up; of a newer one it is kept as it came. */
  readonly v: number;
  readonly id: string;
  readonly kind: K;
  /** UTC by the device's clock, corrected by `clockOff` where that was known to be wrong. */
  readonly madeAt: string;
  /** First name of the person, where given. */
  readonly by: string | null;
  /** The device that made it; null where an older version did not say. */
  readonly device: string | null;
  /** ms that were added to the device's clock, where it was off by more than a few minutes. */
  readonly clockOff?: number;
  readonly subject: S;
  readonly body: B;
}

/** What every envelope has, whatever is in it. */
export const envelopeShape = {
  v: z.int().min(1).max(1_000_000),
  id: idSchema,
  kind: z.string().regex(/^[a-z][a-z0-9-]{0,39}$/, 'A kind is a word in lower case.'),
  madeAt: timeSchema,
  by: textSchema.trim().max(40, 'Keep the name to 40 characters.').nullable(),
  device: idSchema.nullable(),
  clockOff: z.int().optional(),
};

export const noteSchema = textSchema.trim().max(500, 'Keep the note to 500 characters.');

/** Facts are ordered by the time they were made, then by id: the same order on every device, whoever sent first. */
export function compareFacts(
  a: { readonly madeAt: string; readonly id: string },
  b: { readonly madeAt: string; readonly id: string },
): number {
  if (a.madeAt !== b.madeAt) return a.madeAt < b.madeAt ? -1 : 1;
  return a.id < b.id ? -1 : a.id > b.id ? 1 : 0;
}

/** Before that there was nothing that records facts. */
const earliest = '2000-01-01T00:00:00.000Z';
/** A device's clock may be so far ahead of the server's, ms; more is a mistake that would outrank everything made after it. */
const mostAhead = 24 * 3600_000;

/**
 * Why the time of a fact can't be, or null.
 * @param now ms since 1970 by the clock of who takes it; null where that clock is not to be trusted itself
 */
export function factTimeTrouble({ madeAt }: { readonly madeAt: string }, now: number | null): string | null {
  if (madeAt < earliest)
    return `It was made at ${madeAt}, before there was Cordel. Set the device’s clock and enter it again.`;
  if (now !== null && Date.parse(madeAt) > now + mostAhead)
    return `It was made at ${madeAt}, more than a day after the server’s time. Set the device’s clock and enter it again.`;
  return null;
}
