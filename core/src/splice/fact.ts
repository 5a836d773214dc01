import { z } from 'zod';
import { factBase, noteSchema } from '../factBase';
import { usedGearSchema } from '../gear/fact';
import { idSchema } from '../schemas';
import { fibersOfSpliceId } from '../plan/fiberEnd';
import { readingSchema } from './reading';

const spliceFactBase = factBase.extend({
  /** See `spliceId`. Kept even when the plan no longer has that splice. */
  spliceId: z.string().min(3).max(8000),
});

const resultShape = {
  /** One per fiber of the splice, in the order of its left ends. */
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

const needsLoss = {
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

const oneEach = {
  when: ({ spliceId, result }: { spliceId: string; result: { readings: readonly unknown[] } | null }) =>
    result === null || result.readings.length === fibersOfSpliceId(spliceId),
  message: 'The splice has another number of fibers. Give one reading for each.',
};

/** The splice was fused: what the machine read, what the person saw. */
export const attemptSchema = spliceFactBase
  .extend({
    kind: z.literal('attempt'),
    source: z.enum(['hand', 'log', 'machine']),
    /** True when no glass was involved (demo, training). */
    simulated: z.boolean(),
    /** What it was made with, where that was picked. */
    gear: usedGearSchema.optional(),
    ...resultShape,
  })
  .refine(needsLoss.when, { message: needsLoss.message, path: ['readings'] })
  .refine((attempt) => oneEach.when({ spliceId: attempt.spliceId, result: attempt }), {
    message: oneEach.message,
    path: ['readings'],
  });

/** An attempt was written down wrongly. `result` null: it never happened (taken back). */
export const correctionSchema = spliceFactBase
  .extend({
    kind: z.literal('correction'),
    attemptId: idSchema,
    result: z
      .strictObject(resultShape)
      .refine(needsLoss.when, { message: needsLoss.message, path: ['readings'] })
      .nullable(),
    reason: noteSchema.min(1, 'Say why it is corrected.'),
  })
  .refine(oneEach.when, { message: oneEach.message, path: ['result', 'readings'] });

/** The crew leaves an attempt to the owner ("ask"), or the owner answers: leave it in ("allow") or do it again ("redo"). */
export const ownerAnswerSchema = spliceFactBase.extend({
  kind: z.literal('owner-answer'),
  attemptId: idSchema,
  answer: z.enum(['ask', 'allow', 'redo']),
  note: noteSchema,
});

export type Attempt = z.infer<typeof attemptSchema>;
export type Correction = z.infer<typeof correctionSchema>;
export type OwnerAnswer = z.infer<typeof ownerAnswerSchema>;
/** What happened at a splice. */
export type SpliceFact = Attempt | Correction | OwnerAnswer;
