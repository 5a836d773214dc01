import { z } from 'zod';
import { noteSchema } from './envelope';
import { conditionsSchema, flatGearSubject } from './gearRef';
import { factKind, type FactOf } from './kind';
import { fieldsOf } from './result';
import { gearSubject } from './subject';

/** One try at an arc calibration. The number of tries is that of the failed ones before it, and this one. */
export const calibrationKind = factKind({
  kind: 'calibration',
  version: 2,
  subject: gearSubject,
  body: z.strictObject({ passed: z.boolean(), conditions: conditionsSchema, note: noteSchema }),
  upcast: (_, { flat }) =>
    flat ? { subject: flatGearSubject(flat), body: fieldsOf(flat, 'passed', 'conditions', 'note') } : null,
  concernsGear: () => true,
});
export type Calibration = FactOf<typeof calibrationKind>;
