import { z } from 'zod';
import { countOfRuns, endsOfRuns, fiberRunSchema, fiberSideSchema, spliceId } from '../plan/fiberEnd';
import { idSchema, nameSchema } from '../schemas';

/** What a fact can be about. Always by what it is, never by a tray, a slot or a row. */

export const closureSubject = z.strictObject({ on: z.literal('closure'), closureId: idSchema });

/** The whole project that the fact belongs to. */
export const projectSubject = z.strictObject({ on: z.literal('project') });

export const cableSubject = z.strictObject({
  on: z.literal('cable'),
  closureId: idSchema,
  cableId: idSchema,
});

/** One end of a fiber at a closure. */
export const endSubject = z.strictObject({
  on: z.literal('end'),
  closureId: idSchema,
  cableId: idSchema,
  fiber: z.int().min(1),
  side: fiberSideSchema,
});

const runs = z.array(fiberRunSchema).min(1).max(24);

/** The ends that are joined: the first of the left meets the first of the right, and so on. */
export const spliceSubject = z
  .strictObject({
    on: z.literal('splice'),
    closureId: idSchema,
    left: runs,
    right: runs,
    /** In a fact of Cordel 0.1, which did not keep which side was left. */
    sidesUnknown: z.literal(true).optional(),
  })
  .refine(
    ({ left, right }) => countOfRuns(left) === countOfRuns(right) && countOfRuns(left) <= 24,
    'A splice joins as many fibers on the left as on the right, at most 24.',
  );
export type SpliceSubject = Readonly<z.infer<typeof spliceSubject>>;

/** A piece of gear, at the closure where it was used. The label it had then stands with it, so that the fact can be read without the list of gear. */
export const gearSubject = z.strictObject({
  on: z.literal('gear'),
  closureId: idSchema,
  gearId: idSchema,
  label: nameSchema,
});

const ids = new WeakMap<object, string>();

/** The id of the splice that a fact is about; see `spliceId`. */
export function spliceIdOf(fact: { readonly subject: SpliceSubject }): string {
  const { subject } = fact;
  const known = ids.get(subject);
  if (known !== undefined) return known;
  const id = spliceId(endsOfRuns(subject.left), endsOfRuns(subject.right));
  ids.set(subject, id);
  return id;
}

/** How many fibers the splice joins. */
export function fibersOf(subject: SpliceSubject): number {
  return countOfRuns(subject.left);
}
