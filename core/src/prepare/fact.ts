import { z } from 'zod';
import { factBase, noteSchema } from '../factBase';

/** What is ticked or measured, by a stable name such as "cut <cable> ring-cut.low": see `tickNames`. */
const aboutSchema = z.string().min(1).max(200);

/** A step, a mark, a part or a caution was ticked, found missing, or opened again. The last tick of a name counts. */
export const tickSchema = factBase.extend({
  kind: z.literal('tick'),
  about: aboutSchema,
  state: z.enum(['done', 'missing', 'open']),
  /** Where the step asked for something: what was answered, and whether it was what the plan expects. */
  answer: z
    .strictObject({
      text: z.string().trim().min(1, 'Give an answer.').max(100, 'Keep the answer to 100 characters.'),
      right: z.boolean(),
    })
    .nullable(),
  /** Why somebody went on after a wrong answer. */
  note: noteSchema,
});
export type Tick = z.infer<typeof tickSchema>;

/** A length was measured: mm for a diameter, m for a number printed on a sheath. null takes an earlier one back. The last one counts. */
export const measurementSchema = factBase.extend({
  kind: z.literal('measurement'),
  about: aboutSchema,
  value: z.number().min(0, 'A length starts at 0.').max(1_000_000, 'That is too long.').nullable(),
});
export type Measurement = z.infer<typeof measurementSchema>;

/** What happened while cables were prepared. */
export type PrepareFact = Tick | Measurement;
