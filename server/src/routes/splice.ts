import { factSchema, idSchema } from '@cordel/core';
import { and, asc, eq, gt, max } from 'drizzle-orm';
import { Hono } from 'hono';
import { z } from 'zod';
import type { Database } from '../database';
import type { FactWriter } from '../factWriter';
import type { Presence } from '../presence';
import { notFound, validated } from '../problem';
import { planClosure, spliceFact } from '../schema';
import { projectParam } from './line';

const closureParam = projectParam.extend({ closureId: idSchema });

/** What happened at the splices: append and read, nothing else; and who stands where just now. */
export function spliceRoutes(database: Database, writer: FactWriter, presence: Presence) {
  return new Hono()
    .post(
      '/projects/:projectId/facts',
      validated('param', projectParam),
      validated('json', z.strictObject({ facts: z.array(factSchema).min(1).max(500) })),
      async (context) => {
        const { projectId } = context.req.valid('param');
        return context.json(await writer.append(projectId, context.req.valid('json').facts));
      },
    )
    .get(
      '/projects/:projectId/closures/:closureId/facts',
      validated('param', closureParam),
      validated('query', z.object({ after: z.coerce.number().int().min(0).default(0) })),
      async (context) => {
        const { projectId, closureId } = context.req.valid('param');
        const { after } = context.req.valid('query');
        const [closure] = await database.read
          .select({ id: planClosure.id })
          .from(planClosure)
          .where(and(eq(planClosure.id, closureId), eq(planClosure.projectId, projectId)));
        if (!closure) notFound('closure');
        const rows = await database.read
          .select({ seq: spliceFact.seq, fact: spliceFact.body })
          .from(spliceFact)
          .where(and(eq(spliceFact.closureId, closureId), gt(spliceFact.seq, after)))
          .orderBy(asc(spliceFact.seq));
        return context.json({
          facts: rows.map((row) => row.fact),
          last: rows.at(-1)?.seq ?? after,
        });
      },
    )
    .post(
      '/projects/:projectId/closures/:closureId/here',
      validated('param', closureParam),
      validated(
        'json',
        z.strictObject({
          /** Made by the device, kept on it. */
          device: idSchema,
          by: z.string().trim().max(40).nullable(),
          /** null: it leaves the closure. */
          spliceId: z.string().min(3).max(8000).nullable(),
        }),
      ),
      async (context) => {
        const { closureId } = context.req.valid('param');
        const { device, by, spliceId } = context.req.valid('json');
        const others = presence.at(closureId, { device, by, spliceId });
        const [row] = await database.read
          .select({ last: max(spliceFact.seq) })
          .from(spliceFact)
          .where(eq(spliceFact.closureId, closureId));
        return context.json({ others, last: Number(row?.last ?? 0) });
      },
    );
}
