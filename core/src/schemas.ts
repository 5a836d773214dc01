import { z } from 'zod';

/** U+0000 and halves of surrogate pairs: PostgreSQL stores neither, and no keyboard makes them. */
const unstorable = /[\0\p{Cs}]/u;

/**
 * Any text of a person. The one schema for it: what passes here can be stored, sent and exported. Length limits count UTF-16 units, as
 * an input field does.
 */
export const textSchema = z
  .string()
  .refine((text) => !unstorable.test(text), 'Some characters of this text are broken. Type it again.');

/** The text at most `most` UTF-16 units long, never cut inside a character. */
export function shortened(text: string, most: number): string {
  if (text.length <= most) return text;
  const cut = text.slice(0, most);
  return /[\ud800-\udbff]$/.test(cut) ? cut.slice(0, -1) : cut;
}

/** Identifiers are made by whoever makes the thing (the phone, the demo), so that nothing waits for a server. UUID, lower case. */
export const idSchema = z.uuid('This must be an identifier (a UUID).').toLowerCase();

/** UTC with milliseconds and "Z", from 1970 to 2999. One spelling only, so that times sort as text. */
export const timeSchema = z.iso
  .datetime({ precision: 3, error: 'This must be a UTC time like 2026-04-14T22:31:05.120Z.' })
  .refine((time) => time >= '1970' && time < '3000', 'This time is not from 1970 to 2999.');

/** A name people read: 1 to 80 characters, no blank ends. */
/** Characters of a name. */
export const longestName = 80;

export const nameSchema = textSchema
  .trim()
  .min(1, 'Give it a name.')
  .max(longestName, `Keep the name to ${longestName} characters.`);

/** Counts up with every edit in place; a write that carries an older one is refused. */
/**
 * Of a fiber, tube or ribbon, from 1, as a person wrote it. It may be higher than its cable has: the plan tells that, with what to do. The bound only
 * keeps out what is no such number at all.
 */
export const unitNumberSchema = z
  .int('Give a whole number.')
  .min(1, 'Numbers start at 1.')
  .max(100_000, 'No cable has so many.');

export const versionSchema = z.int().min(1).max(2_147_483_646, 'There is no version so high.');
