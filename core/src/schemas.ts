import { z } from 'zod';

/** Identifiers are made by whoever makes the thing (the phone, the demo), so that nothing waits for a server. UUID, lower case. */
export const idSchema = z.uuid('This must be an identifier (a UUID).').toLowerCase();

/** UTC with milliseconds and "Z". One spelling only, so that times sort as text. */
export const timeSchema = z.iso.datetime({
  precision: 3,
  error: 'This must be a UTC time like 2026-04-14T22:31:05.120Z.',
});

/** A name people read: 1 to 80 characters, no blank ends. */
export const nameSchema = z
  .string()
  .trim()
  .min(1, 'Give it a name.')
  .max(80, 'Keep the name to 80 characters.');

/** Counts up with every edit in place; a write that carries an older one is refused. */
export const versionSchema = z.int().min(1);
