import { z } from 'zod';
import { idSchema, nameSchema, timeSchema } from '../../schemas';
import { signOffRoles } from '../../facts';
import { limitsSchema } from '../../limits/limits';
import { placementSchema, positionSchema, siteKindSchema, unitsSchema } from '../../line/project';

/**
 * What was built, as one document: everything that the records say of a project or a closure, with what follows from it. All that is handed over (tables, JSON, map, report) is a way to
 * show this. Losses and angles as they were read, lengths in m and mm, pressures in kPa over the air outside, times in UTC.
 */

const text = z.string();
const db = z.number().describe('dB');
const degrees = z.number().describe('degrees');

const endSchema = z
  .strictObject({
    cableId: idSchema,
    cable: text.describe('Label of the cable; empty where it is gone.'),
    fiber: z.int().min(1).describe('Number of the fiber in the cable.'),
    side: z
      .enum(['end', 'low', 'high'])
      .describe('low and high: the two ends of a cut fiber of a cable that goes through.'),
    unit: z.int().nullable().describe('Number of the tube or ribbon.'),
    colors: text.describe('Codes of tube or ribbon, group where there is one, and fiber.'),
  })
  .describe('An end of a fiber.');
export type AsBuiltEnd = z.infer<typeof endSchema>;

const readingSchema = z.strictObject({
  loss: db.nullable().describe('dB, estimated by the splicing machine; null where none was read.'),
  cleaveLeft: degrees.nullable(),
  cleaveRight: degrees.nullable(),
  measured: z
    .strictObject({
      loss: db.nullable().describe('dB: the mean of both directions; null where one direction gives none.'),
      fromLeft: db.nullable(),
      fromRight: db.nullable(),
      method: z.enum(['otdr', 'power-meter']),
      wavelength: z.int().describe('nm'),
      at: timeSchema,
      by: text.nullable(),
    })
    .optional()
    .describe('Where it was measured. Never mixed with the estimate.'),
});

const tryText = {
  madeAt: timeSchema,
  by: text.nullable(),
  note: text,
};

const spliceSchema = z.strictObject({
  id: text.describe('The splice by the pairs of ends that it joins.'),
  planned: z.boolean().describe('false: it was made and is not, or no longer, in the plan.'),
  tray: z.int().nullable(),
  slot: z.int().nullable(),
  kind: z.enum(['single', 'ribbon']),
  left: z.array(endSchema),
  right: z.array(endSchema),
  circuit: text.nullable(),
  mark: z.enum(['open', 'holds', 'redo', 'owner', 'allowed']),
  reasons: z.array(text).describe('What it has against it, in words.'),
  limit: db.describe('dB, the largest loss that a fiber of it may have.'),
  tries: z.int(),
  readings: z.array(readingSchema).describe('Of what is in the tray, one a fiber; empty without one.'),
  worst: db.nullable(),
  proofTest: z.enum(['failed', 'not-failed']).nullable(),
  light: z.enum(['dark', 'glows']).nullable().describe('At a mechanical joint.'),
  simulated: z.boolean(),
  madeAt: timeSchema.nullable(),
  by: text.nullable(),
  machine: text.nullable(),
  cleaver: text.nullable(),
  passedOver: z.array(text).describe('What was due at the gear and passed over.'),
  note: text,
  earlier: z
    .array(z.strictObject({ ...tryText, worst: db.nullable(), withdrawn: z.boolean() }))
    .describe('Tries before the one that is in the tray, and those that were taken back.'),
  corrections: z.int(),
  owner: z
    .strictObject({ answer: z.enum(['ask', 'allow', 'redo']), name: text.nullable(), ...tryText })
    .nullable(),
});
export type AsBuiltSplice = z.infer<typeof spliceSchema>;

const sumsSchema = z.strictObject({
  splices: z.int(),
  open: z.int(),
  holds: z.int(),
  redo: z.int(),
  owner: z.int(),
  allowed: z.int(),
  fibersRead: z.int(),
  mean: db.nullable(),
  median: db.nullable(),
  p95: db.nullable(),
  worst: db.nullable(),
  meanLimit: db,
  meanOver: z.boolean(),
  measured: z
    .strictObject({ fibers: z.int(), mean: db, over: z.boolean() })
    .optional()
    .describe('Of the fibers that were measured, by those losses alone. All the others are estimates.'),
});
export type AsBuiltSums = z.infer<typeof sumsSchema>;

const sealSchema = z.strictObject({
  sealed: z.boolean(),
  tickedOnly: z
    .boolean()
    .describe('Ticked as sealed in an older Cordel, with no points and no test on record.'),
  testPressure: z.number().nullable().describe('kPa; 0 where none is made, null where it is not known.'),
  underPressure: z.number().nullable().describe('kPa that were last known in it.'),
  points: z.array(
    z.strictObject({
      chapter: z.enum(['look', 'tighten', 'close', 'after']),
      title: text,
      answer: z.enum(['yes', 'no']).nullable(),
      stale: z.boolean().describe('Something was spliced there since.'),
      at: timeSchema.nullable(),
      by: text.nullable(),
      note: text,
    }),
  ),
  openings: z.array(
    z.strictObject({
      number: z.int().nullable(),
      name: text,
      plug: z.boolean(),
      bubbled: z.boolean().describe('In one of the rounds that count.'),
      x: z.number(),
      y: z.number(),
      r: z.number(),
    }),
  ),
  rounds: z.array(
    z.strictObject({
      number: z.int(),
      kPa: z.number(),
      at: timeSchema,
      by: text.nullable(),
      releasedAt: timeSchema.nullable(),
      looked: z.int(),
      bubbles: z.array(text),
      reseated: z.array(text),
      beforeReopening: z.boolean(),
    }),
  ),
  holding: z.array(
    z.strictObject({
      beganAt: timeSchema,
      readAt: timeSchema,
      hours: z.number(),
      lost: z.number().describe('kPa, reckoned to the temperature of the start.'),
      uncertainty: z.number(),
      mayLose: z.number(),
      verdict: z.enum(['tight', 'leaking', 'cannot-tell']),
      leakRate: z.number().nullable().describe('Pa·m³/s'),
    }),
  ),
  reopenings: z.array(z.strictObject({ at: timeSchema, by: text.nullable(), reason: text, note: text })),
});
export type AsBuiltSeal = z.infer<typeof sealSchema>;

const photoSchema = z.strictObject({
  id: idSchema,
  shows: text.describe('The point of the seal, the seal under test, or the closure.'),
  caption: text,
  at: timeSchema,
  by: text.nullable(),
  picture: z
    .strictObject({
      sha256: text.describe('Of the picture as the server keeps it (JPEG).'),
      width: z.int().describe('px'),
      height: z.int().describe('px'),
    })
    .nullable()
    .describe('null where it has not reached the server.'),
});
export type AsBuiltPhoto = z.infer<typeof photoSchema>;
/** What is known of a picture that is kept. */
export type AsBuiltPicture = NonNullable<AsBuiltPhoto['picture']>;

export const readyLineSchema = z.strictObject({
  code: text,
  stands: z
    .enum(['against', 'told'])
    .describe('against: it stands against acceptance. told: the owner should know of it.'),
  words: text,
});

const closureSchema = z.strictObject({
  id: idSchema,
  siteId: idSchema,
  site: nameSchema,
  kind: text,
  model: text.nullable(),
  sums: sumsSchema,
  trays: z.array(z.strictObject({ tray: z.int(), sums: sumsSchema })),
  splices: z.array(spliceSchema),
  connectors: z.array(
    z.strictObject({
      end: endSchema,
      connector: text,
      circuit: text.nullable(),
      light: text,
      at: timeSchema.nullable(),
      by: text.nullable(),
    }),
  ),
  seal: sealSchema,
  photos: z
    .array(photoSchema)
    .optional()
    .describe('Oldest first. Not in documents that were made before there were photos.'),
  ready: z.array(readyLineSchema),
  people: z.array(text),
  machines: z.array(text),
  cleavers: z.array(text),
  from: timeSchema.nullable().describe('First and last record of its splices.'),
  to: timeSchema.nullable(),
});
export type AsBuiltClosure = z.infer<typeof closureSchema>;

const asBuiltSchema = z.strictObject({
  format: z.literal('cordel-as-built'),
  formatVersion: z.literal(1),
  project: z.strictObject({
    id: idSchema,
    name: nameSchema,
    units: unitsSchema,
    timeZone: text.nullable(),
    limits: limitsSchema,
  }),
  scope: z.enum(['project', 'closure']),
  records: z
    .strictObject({
      count: z.int(),
      lastMadeAt: timeSchema.nullable(),
      unread: z.int().describe('Records of a newer Cordel, which count for nothing here.'),
      simulated: z.int(),
    })
    .describe('The records that this follows from.'),
  losses: z
    .enum(['estimated', 'estimated-and-measured'])
    .describe(
      'Losses are estimates of the splicing machine; those that were measured stand beside them as measured.',
    ),
  sites: z.array(
    z.strictObject({
      id: idSchema,
      name: nameSchema,
      kind: siteKindSchema,
      chainage: z.number().describe('m along the route, or along the branch from where it leaves.'),
      placement: placementSchema.nullable(),
      branchFrom: idSchema.nullable(),
      position: positionSchema.nullable(),
    }),
  ),
  cables: z.array(
    z.strictObject({
      id: idSchema,
      label: nameSchema,
      construction: text,
      fibers: z.int(),
      fiberType: text,
      diameter: z.number().nullable().describe('mm'),
      siteIds: z.array(idSchema),
    }),
  ),
  closures: z.array(closureSchema),
  calibrations: z.array(
    z.strictObject({ gear: text, at: timeSchema, by: text.nullable(), passed: z.boolean(), note: text }),
  ),
  sums: sumsSchema,
  signOffs: z
    .array(
      z.strictObject({
        of: text.describe('Name of the closure or the project.'),
        sha256: text,
        name: text,
        role: z.enum(signOffRoles),
        decision: z.enum(['accepted', 'accepted-with-remarks', 'sent-back']),
        note: text,
        at: timeSchema,
        later: z.int().describe('Records of it that were made afterwards.'),
      }),
    )
    .describe('Oldest first.'),
});
export type AsBuilt = z.infer<typeof asBuiltSchema>;

/** The same as JSON Schema (2020-12), as it is published in docs/as-built.schema.json. */
export const asBuiltJsonSchema = () => z.toJSONSchema(asBuiltSchema);
