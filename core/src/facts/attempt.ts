import { z } from 'zod';
import { idSchema, nameSchema, timeSchema } from '../schemas';
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

/** Where a reading stands in a machine's own memory, so that it is not taken twice. */
const originSchema = z.strictObject({
  /** Whose memory: the identifier of the gear where it is known, else that of the linked machine. */
  memory: idSchema,
  /** The machine's own number of the splice, and its time by the machine's clock; null where it says none. */
  splice: z.int().min(0).nullable(),
  at: timeSchema.nullable(),
  /** What came in together, from one log. */
  batch: idSchema.optional(),
});
export type Origin = z.infer<typeof originSchema>;

/** The splice was fused: what the machine read, what the person saw. */
export const attemptKind = factKind({
  kind: 'attempt',
  version: 3,
  subject: spliceSubject,
  body: z
    .strictObject({
      source: z.enum(['hand', 'log', 'machine']),
      /** True when no glass was involved (demo, training). */
      simulated: z.boolean(),
      /** What it was made with, where that was picked. */
      gear: usedGearSchema.optional(),
      /** Of a reading that came from a machine or its log. */
      origin: originSchema.optional(),
      ...resultShape,
    })
    .refine(needsLoss.when, { message: needsLoss.message, path: ['readings'] }),
  check: {
    when: ({ subject, body }) => oneEach.when(subject, body.readings),
    message: oneEach.message,
    path: ['body', 'readings'],
  },
  upcast(from, old) {
    // Version 2 had no origin.
    if (from === 2) return old;
    const { flat } = old;
    if (!flat) return null;
    const { gear, ...rest } = fieldsOf(flat, 'source', 'simulated', 'gear', ...Object.keys(resultShape));
    // What was due and passed over is derived from the gear's own facts; see `passedOver`.
    const { wentOn: _wentOn, ...used } = (gear ?? {}) as Record<string, unknown>;
    return { subject: flatSpliceSubject(flat), body: gear === undefined ? rest : { ...rest, gear: used } };
  },
  concernsGear: ({ gear }) => gear !== undefined,
});
export type Attempt = FactOf<typeof attemptKind>;
