import { z } from 'zod';
import { idSchema, nameSchema, unitNumberSchema } from '../schemas';
import { colorSchemeSchema, colorSchemes } from './colorCode';
import { fiberTypeIds } from './fiberType';

const fillerSchema = z.strictObject({ kind: z.literal('filler') });

/** A position in the stranding: a buffer tube, or a solid filler that carries no fiber and has no number. */
const strandSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('tube'),
    fibers: z.int().min(1, 'A tube has at least 1 fiber.').max(24, 'A tube has at most 24 fibers.'),
    /** Fibers per binder group, where the tube has binder groups. Colors start again in each group. */
    groupSize: z.int().min(1).max(12).optional(),
  }),
  fillerSchema,
]);

const hasTube = {
  when: (strands: readonly { kind: string }[]) => strands.some((strand) => strand.kind === 'tube'),
  message: 'A cable has at least one tube.',
};

/** Metal beside the fibers, where a cable has it. */
const metal = {
  /** Steel or a shield under the sheath: cut back, bonded and grounded. */
  armor: z.literal(true).optional(),
  /** Steel messenger beside the cable (figure 8); it comes off before the cable goes through a seal. */
  messenger: z.literal(true).optional(),
};

const strandedTubesSchema = z.strictObject({
  kind: z.literal('stranded-tubes'),
  ...metal,
  /** In stranding order. */
  strands: z
    .array(strandSchema)
    .max(1152, 'A cable has at most 1152 positions.')
    .refine(hasTube.when, { message: hasTube.message }),
});

/** Fibers side by side in one ribbon. */
export const ribbonSizes = [2, 4, 6, 8, 12, 16, 24] as const;
const ribbonSizeSchema = z.literal(ribbonSizes, 'A ribbon has 2, 4, 6, 8, 12, 16 or 24 fibers.');

/** One stack of ribbons in one tube. */
const centralRibbonSchema = z.strictObject({
  kind: z.literal('central-ribbon'),
  ...metal,
  ribbons: z
    .int('Give a whole number of ribbons.')
    .min(1, 'At least 1 ribbon.')
    .max(576, 'At most 576 ribbons.'),
  fibersPerRibbon: ribbonSizeSchema,
});

/** Ribbons in stranded tubes. */
const strandedRibbonSchema = z.strictObject({
  kind: z.literal('stranded-ribbon'),
  ...metal,
  /** In stranding order. */
  strands: z
    .array(
      z.discriminatedUnion('kind', [
        z.strictObject({
          kind: z.literal('tube'),
          ribbons: z.int().min(1, 'A tube has at least 1 ribbon.').max(48, 'A tube has at most 48 ribbons.'),
          fibersPerRibbon: ribbonSizeSchema,
        }),
        fillerSchema,
      ]),
    )
    .max(288, 'A cable has at most 288 positions.')
    .refine(hasTube.when, { message: hasTube.message }),
});

const dropSchema = z.strictObject({
  kind: z.literal('drop'),
  shape: z.enum(['flat', 'round']),
  fibers: z
    .int('Give a whole number of fibers.')
    .min(1, 'At least 1 fiber.')
    .max(12, 'A drop has at most 12.'),
  /** Copper wire in a ridge on the edge; it comes off before the cable goes through a seal. */
  toningWire: z.boolean(),
  /** Steel messenger beside the cable (figure 8); it comes off as well. */
  messenger: z.boolean(),
  armor: metal.armor,
});

/** Fibers with a connector at one end. */
const pigtailsSchema = z.strictObject({
  kind: z.literal('pigtails'),
  fibers: z.int('Give a whole number of pigtails.').min(1, 'At least 1 pigtail.').max(288, 'At most 288.'),
  /** Outside of each, μm: tight buffer or bare coating. */
  bufferMicrometers: z.literal([250, 900]),
});

export const constructionSchema = z.discriminatedUnion('kind', [
  strandedTubesSchema,
  centralRibbonSchema,
  strandedRibbonSchema,
  dropSchema,
  pigtailsSchema,
]);
export type Construction = z.infer<typeof constructionSchema>;

/** Fibers that carry somebody's traffic: cutting one is an outage. */
const sheathMark = z
  .number('Give the number on the sheath.')
  .min(0, 'The numbers on a sheath start at 0.')
  .max(1_000_000, 'No sheath is numbered so high.');

const liveRangeSchema = z.strictObject({
  from: unitNumberSchema,
  to: unitNumberSchema,
  circuit: nameSchema,
});

export const cableSchema = z.strictObject({
  id: idSchema,
  label: nameSchema,
  schemeId: z.enum(colorSchemes.map((scheme) => scheme.id) as [string, ...string[]]),
  /** A color code of the user's own; where it is given it counts instead of `schemeId`. */
  ownScheme: colorSchemeSchema.optional(),
  construction: constructionSchema,
  /** Sites it runs through, in order along the route. It ends at the first and at the last. */
  siteIds: z.array(idSchema).min(1, 'A cable runs from somewhere.'),
  /** G.652.D where it is not given. */
  fiberType: z.enum(fiberTypeIds).optional(),
  /** Mode-field diameter at 1310 nm, μm, where it is known better than the type's. */
  modeField: z
    .number()
    .min(3, 'A mode field is at least 3 μm.')
    .max(15, 'A mode field is at most 15 μm.')
    .optional(),
  /** Group index of the fiber at 1310 nm, where it is known better than the type's. */
  groupIndex: z
    .number()
    .min(1.4, 'An index is at least 1.4.')
    .max(1.6, 'An index is at most 1.6.')
    .optional(),
  /** Outside diameter, mm. */
  diameter: z.number().min(0.5, 'At least 0.5 mm.').max(60, 'At most 60 mm.').optional(),
  /** How much longer the fiber is than the sheath, as a fraction: 0.02 for 2 %. */
  excess: z.number().min(0).max(0.3, 'The excess length is at most 0.3 (30 %).').optional(),
  /** Numbers printed on the sheath at its two ends, m. */
  sheathMarks: z.strictObject({ first: sheathMark, last: sheathMark }).optional(),
  live: z.array(liveRangeSchema).max(1000).optional(),
});
export type Cable = z.infer<typeof cableSchema>;

/** `tubes` equal tubes of `fibersPerTube`, no fillers. */
export function equalTubes(tubes: number, fibersPerTube: number): Construction {
  return {
    kind: 'stranded-tubes',
    strands: Array.from({ length: tubes }, () => ({ kind: 'tube' as const, fibers: fibersPerTube })),
  };
}

/** A drop or pigtails: opened, spliced and ended in steps of their own. */
export function isSmall(cable: Pick<Cable, 'construction'>): boolean {
  return cable.construction.kind === 'drop' || cable.construction.kind === 'pigtails';
}

/** What of a cable is metal. */
export function metalOf(construction: Construction): {
  readonly armor: boolean;
  readonly messenger: boolean;
  readonly toningWire: boolean;
} {
  if (construction.kind === 'pigtails') return { armor: false, messenger: false, toningWire: false };
  return {
    armor: construction.armor === true,
    messenger: construction.messenger === true,
    toningWire: construction.kind === 'drop' && construction.toningWire,
  };
}
