import { z } from 'zod';
import { calibrationSchema, gearEventSchema, weatherSchema, wentOnSchema, type GearFact } from './gear/fact';
import { measurementSchema, tickSchema } from './prepare/fact';
import { attemptSchema, correctionSchema, ownerAnswerSchema, type SpliceFact } from './splice/fact';

/** Everything that can happen at a closure. */
export const factSchema = z.discriminatedUnion('kind', [
  attemptSchema,
  correctionSchema,
  ownerAnswerSchema,
  tickSchema,
  measurementSchema,
  calibrationSchema,
  gearEventSchema,
  weatherSchema,
  wentOnSchema,
]);
export type Fact = z.infer<typeof factSchema>;

export function isSpliceFact(fact: Fact): fact is SpliceFact {
  return fact.kind === 'attempt' || fact.kind === 'correction' || fact.kind === 'owner-answer';
}

export function isGearFact(fact: Fact): fact is GearFact {
  return (
    fact.kind === 'calibration' ||
    fact.kind === 'gear-event' ||
    fact.kind === 'weather' ||
    fact.kind === 'went-on'
  );
}
