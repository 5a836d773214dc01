import { z } from 'zod';
import { nameSchema } from '../schemas';
import { gearRefSchema } from './gearRef';
import { factKind, type FactOf } from './kind';
import { fieldsOf, flatSpliceSubject, needsLoss, oneEach, resultShape } from './result';
import { spliceSubject } from './subject';

/** The gear that stands on an attempt. */
export const usedGearSchema = z.strictObject({
  machine: gearRefSchema.optional(),
  cleaver: gearRefSchema.optional(),
  stripper: gearRefSchema.optional(),
  /** Names of the machine's programs that were on. */
  program: nameSchema.optional(),
  heater: nameSchema.optional(),
  /** μm; 125 where it is not given. */
  cladding: z.literal(400).optional(),
});
export type UsedGear = z.infer<typeof usedGearSchema>;

/** The splice was fused: what the machine read, what the person saw. */
export const attemptKind = factKind({
  kind: 'attempt',
  version: 2,
  subject: spliceSubject,
  body: z
    .strictObject({
      source: z.enum(['hand', 'log', 'machine']),
      /** True when no glass was involved (demo, training). */
      simulated: z.boolean(),
      /** What it was made with, where that was picked. */
      gear: usedGearSchema.optional(),
      ...resultShape,
    })
    .refine(needsLoss.when, { message: needsLoss.message, path: ['readings'] }),
  check: {
    when: ({ subject, body }) => oneEach.when(subject, body.readings),
    message: oneEach.message,
    path: ['body', 'readings'],
  },
  upcast(_, { flat }) {
    if (!flat) return null;
    const { gear, ...rest } = fieldsOf(flat, 'source', 'simulated', 'gear', ...Object.keys(resultShape));
    // What was due and passed over is derived from the gear's own facts; see `passedOver`.
    const { wentOn: _wentOn, ...used } = (gear ?? {}) as Record<string, unknown>;
    return { subject: flatSpliceSubject(flat), body: gear === undefined ? rest : { ...rest, gear: used } };
  },
  concernsGear: ({ gear }) => gear !== undefined,
});
export type Attempt = FactOf<typeof attemptKind>;
