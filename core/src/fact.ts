import { z } from 'zod';
import { measurementSchema, tickSchema } from './prepare/fact';
import { attemptSchema, correctionSchema, ownerAnswerSchema, type SpliceFact } from './splice/fact';

/** Everything that can happen at a closure. */
export const factSchema = z.discriminatedUnion('kind', [
  attemptSchema,
  correctionSchema,
  ownerAnswerSchema,
  tickSchema,
  measurementSchema,
]);
export type Fact = z.infer<typeof factSchema>;

export function isSpliceFact(fact: Fact): fact is SpliceFact {
  return fact.kind !== 'tick' && fact.kind !== 'measurement';
}
