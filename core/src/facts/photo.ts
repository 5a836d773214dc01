import { z } from 'zod';
import { idSchema } from '../schemas';
import { noteSchema } from './envelope';
import { factKind, type FactOf } from './kind';
import { sealNameSchema, sealPointSchema } from './sealCheck';
import { closureSubject } from './subject';

/** What a photo shows: a point of the seal, a seal while it is tested, or the closure. */
const photoOfSchema = z.discriminatedUnion('what', [
  z.strictObject({ what: z.literal('closure') }),
  z.strictObject({ what: z.literal('point'), point: sealPointSchema }),
  z.strictObject({ what: z.literal('test'), seal: sealNameSchema }),
]);
export type PhotoOf = Readonly<z.infer<typeof photoOfSchema>>;

/**
 * A photo was taken at a closure, described, taken out of the record, or put back. The picture itself is no part of the fact: it goes by the id of the fact that says
 * "taken", ahead of it.
 */
export const photoKind = factKind({
  kind: 'photo',
  version: 2,
  subject: closureSubject,
  body: z.discriminatedUnion('did', [
    z.strictObject({ did: z.literal('taken'), of: photoOfSchema, caption: noteSchema }),
    z.strictObject({ did: z.literal('described'), photoId: idSchema, caption: noteSchema }),
    z.strictObject({ did: z.literal('removed'), photoId: idSchema }),
    z.strictObject({ did: z.literal('restored'), photoId: idSchema }),
  ]),
  // There is no older one.
  upcast: () => null,
});
export type Photo = FactOf<typeof photoKind>;
