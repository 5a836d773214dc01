import { z } from 'zod';
import { idSchema, nameSchema } from '../schemas';
import { colorSchemes } from './colorCode';

/** A position in the stranding: a buffer tube, or a solid filler that carries no fiber and has no number. */
const strandSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('tube'),
    fibers: z.int().min(1, 'A tube has at least 1 fiber.').max(24, 'A tube has at most 24 fibers.'),
    /** Fibers per binder group, where the tube has binder groups. Colors start again in each group. */
    groupSize: z.int().min(1).max(12).optional(),
  }),
  z.strictObject({ kind: z.literal('filler') }),
]);

const strandedTubesSchema = z.strictObject({
  kind: z.literal('stranded-tubes'),
  /** In stranding order. */
  strands: z
    .array(strandSchema)
    .max(1152, 'A cable has at most 1152 positions.')
    .refine((strands) => strands.some((strand) => strand.kind === 'tube'), {
      message: 'A cable has at least one tube.',
    }),
});

/** Further constructions (central ribbon, stranded ribbon, drop, pigtails) join this union. */
export const constructionSchema = z.discriminatedUnion('kind', [strandedTubesSchema]);
export type Construction = z.infer<typeof constructionSchema>;

export const cableSchema = z.strictObject({
  id: idSchema,
  label: nameSchema,
  schemeId: z.enum(colorSchemes.map((scheme) => scheme.id) as [string, ...string[]]),
  construction: constructionSchema,
  /** Sites it runs through, in order along the route. It ends at the first and at the last. */
  siteIds: z.array(idSchema).min(1, 'A cable runs from somewhere.'),
});
export type Cable = z.infer<typeof cableSchema>;

/** `tubes` equal tubes of `fibersPerTube`, no fillers. */
export function equalTubes(tubes: number, fibersPerTube: number): Construction {
  return {
    kind: 'stranded-tubes',
    strands: Array.from({ length: tubes }, () => ({ kind: 'tube' as const, fibers: fibersPerTube })),
  };
}
