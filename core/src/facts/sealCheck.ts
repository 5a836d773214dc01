import { z } from 'zod';
import { idSchema, textSchema } from '../schemas';
import { noteSchema } from './envelope';
import { factKind, type FactOf } from './kind';
import { closureSubject } from './subject';

const portName = textSchema.trim().min(1).max(20);

/**
 * One seal of a closure, by what is in it: the opening that a cable takes (a cable that goes through takes one in and one out), the plug of an unused opening, the
 * closure's own (collar, cover or lid), or its test valve. Never by its place on the end plate, which an edit of the closure's table may change.
 */
export const sealNameSchema = z.discriminatedUnion('of', [
  z.strictObject({ of: z.literal('cable'), cableId: idSchema, face: z.enum(['only', 'in', 'out']) }),
  z.strictObject({ of: z.literal('plug'), port: portName, number: z.int().min(1).max(96) }),
  z.strictObject({ of: z.literal('body') }),
  z.strictObject({ of: z.literal('valve') }),
]);
export type SealName = Readonly<z.infer<typeof sealNameSchema>>;

/** What is looked at once in a closure, before it is closed and after. */
const wholePoints = [
  'straps',
  'tubes',
  'transport-tubes',
  'strength-members',
  'ground',
  'bobbin',
  'bolts',
  'gasket',
  'dome',
  'lip',
  'latch',
  'cover',
  'collar',
  'mounted',
  'slack-stored',
  'tag',
] as const;
export type WholePoint = (typeof wholePoints)[number];

/** One thing to look at. */
export const sealPointSchema = z.discriminatedUnion('what', [
  z.strictObject({ what: z.literal('whole'), point: z.enum(wholePoints) }),
  /** A tray: its fibers kept, its sleeves seated, its lid on. */
  z.strictObject({ what: z.literal('tray'), tray: z.int().min(1).max(1000) }),
  /** A cable's seal parts in its opening, screws fully home. */
  z.strictObject({ what: z.literal('seal'), cableId: idSchema }),
  /** The coil of a cable that goes through. */
  z.strictObject({ what: z.literal('coil'), cableId: idSchema }),
  /** So many unused openings of a port have their plugs. */
  z.strictObject({ what: z.literal('plugs'), port: portName, count: z.int().min(1).max(96) }),
  /** A cap, gland or screw tightened, in its turn. */
  z.strictObject({ what: z.literal('tightened'), seal: sealNameSchema }),
]);
export type SealPoint = Readonly<z.infer<typeof sealPointSchema>>;

/** A point of the final look, of the tightening, or of what follows the test was answered. The last answer of a point since the last reopening counts. */
export const sealCheckKind = factKind({
  kind: 'seal-check',
  version: 2,
  subject: closureSubject,
  body: z.strictObject({
    point: sealPointSchema,
    /** "no" blocks the seal; "open" takes an earlier answer back. */
    answer: z.enum(['yes', 'no', 'open']),
    /** What is wrong. */
    note: noteSchema,
  }),
  // There is no older one.
  upcast: () => null,
});
export type SealCheck = FactOf<typeof sealCheckKind>;
