import { z } from 'zod';
import { noteSchema } from './envelope';
import { conditionsSchema, flatGearSubject } from './gearRef';
import { factKind, type FactOf } from './kind';
import { fieldsOf } from './result';
import { gearSubject } from './subject';

/** The weather where a machine stands was looked at without calibrating it. */
export const weatherKind = factKind({
  kind: 'weather',
  version: 2,
  subject: gearSubject,
  body: z.strictObject({ conditions: conditionsSchema, note: noteSchema }),
  upcast: (_, { flat }) =>
    flat ? { subject: flatGearSubject(flat), body: fieldsOf(flat, 'conditions', 'note') } : null,
  concernsGear: () => true,
});
export type Weather = FactOf<typeof weatherKind>;
