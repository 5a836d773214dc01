import { idSchema, versionSchema } from '@cordel/core';
import { z } from 'zod';

/** What addresses name. */
export const projectParam = z.object({ projectId: idSchema });
export const closureParam = projectParam.extend({ closureId: idSchema });

/** The version that a person saw of what they delete. */
export const versionQuery = z.object({ version: z.coerce.number().pipe(versionSchema) });
