import { z } from 'zod';
import { noteSchema } from './envelope';
import { flatGearSubject } from './gearRef';
import { factKind, type FactOf } from './kind';
import { fieldsOf } from './result';
import { gearSubject } from './subject';

/** Something was done to the gear that starts a count again, or its own counter was read. */
export const gearEventKind = factKind({
  kind: 'gear-event',
  version: 2,
  subject: gearSubject,
  body: z.strictObject({
    event: z.enum([
      'electrodes-cleaned',
      'electrodes-replaced',
      'blade-turned',
      'blade-replaced',
      /** `value`: arcs that the machine's own counter shows. */
      'arcs-read',
      /** `value`: fibers cleaved on the blade position that is on. */
      'cleaves-read',
      /** `value`: the blade position that is on, from 1. */
      'position-read',
    ]),
    value: z
      .int('Give a whole number.')
      .min(0, 'Not below 0.')
      .max(10_000_000, 'At most 10 000 000.')
      .optional(),
    note: noteSchema,
  }),
  upcast: (_, { flat }) =>
    flat ? { subject: flatGearSubject(flat), body: fieldsOf(flat, 'event', 'value', 'note') } : null,
  concernsGear: () => true,
});
export type GearEvent = FactOf<typeof gearEventKind>;
