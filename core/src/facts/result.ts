import { z } from 'zod';
import { readingSchema } from '../splice/record/reading';
import { endsOfOldSpliceId, runsOf } from '../plan/fiberEnd';
import { noteSchema } from './envelope';
import { fibersOf, type SpliceSubject } from './subject';
import type { FlatFact } from './kind';

/** What came of a try at a splice: what the machine read, what the person saw. */
export const resultShape = {
  /** One per fiber of the splice, in the order of the left ends of its subject. */
  readings: z.array(readingSchema).min(1).max(24),
  proofTestFailed: z.boolean(),
  /** The protection sleeve was not on before the fibers were joined: it can only be done again. */
  sleeveForgotten: z.boolean().optional(),
  /** Somebody said, before the arc, that the sleeve is on. */
  sleeveConfirmed: z.boolean().optional(),
  /** A mechanical connector has no loss to read: whether light shows at its joint. */
  light: z.enum(['dark', 'glows']).optional(),
  note: noteSchema,
};

export const needsLoss = {
  when: (result: {
    readings: { loss: number | null }[];
    proofTestFailed: boolean;
    light?: string | undefined;
  }) =>
    result.proofTestFailed ||
    result.light !== undefined ||
    result.readings.every((reading) => reading.loss !== null),
  message: 'A splice that passed its proof test has a loss for every fiber.',
};

export const oneEach = {
  when: (subject: SpliceSubject, readings: readonly unknown[]) => readings.length === fibersOf(subject),
  message: 'The splice has another number of fibers. Give one reading for each.',
};

/** The subject of a flat fact about a splice. */
export function flatSpliceSubject({ closureId, spliceId }: FlatFact): unknown {
  const ends = typeof spliceId === 'string' ? endsOfOldSpliceId(spliceId) : null;
  if (!ends) return null;
  return { on: 'splice', closureId, left: runsOf(ends[0]), right: runsOf(ends[1]), sidesUnknown: true };
}

/** These fields of a flat fact, where it has them. */
export function fieldsOf(flat: FlatFact, ...names: readonly string[]): Record<string, unknown> {
  return Object.fromEntries(
    names.filter((name) => flat[name] !== undefined).map((name) => [name, flat[name]]),
  );
}
