import { z } from 'zod';
import { factKind, type FactOf } from './kind';
import { cableSubject } from './subject';

const length = z.number().min(0, 'A length starts at 0.').max(1_000_000, 'That is too long.').nullable();

/** A length was measured at a cable, in the unit that its field names. null takes an earlier one back. The last one counts. */
export const measurementKind = factKind({
  kind: 'measurement',
  version: 2,
  subject: cableSubject,
  body: z.discriminatedUnion('of', [
    /** Across the cable. */
    z.strictObject({ of: z.literal('diameter'), mm: length }),
    /** The number printed on the sheath where it is cut, or at the center of its slack. */
    z.strictObject({ of: z.literal('sheath-number'), m: length }),
  ]),
  upcast(_, { flat }) {
    if (!flat || typeof flat.about !== 'string') return null;
    const [name, cableId] = flat.about.split(' ');
    const subject = { on: 'cable', closureId: flat.closureId, cableId };
    if (name === 'diameter') return { subject, body: { of: 'diameter', mm: flat.value } };
    if (name === 'sheath-mark') return { subject, body: { of: 'sheath-number', m: flat.value } };
    return null;
  },
});
export type Measurement = FactOf<typeof measurementKind>;
