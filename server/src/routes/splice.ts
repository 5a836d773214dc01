import { idSchema, textSchema } from '@cordel/core';
import { and, asc, eq, gt, max } from 'drizzle-orm';
import { Hono } from 'hono';
import { z } from 'zod';
import type { RequestVariables } from '../actor';
import type { Database } from '../database/database';
import { factsAfter } from '../factStore';
import type { FactWriter } from '../factWriter';
import type { Presence } from '../presence';
import { notFound, validated } from '../problem';
import { numberingOf } from '../projectStore';
import { fact, planClosure } from '../schema';
import { closureParam, projectParam } from './params';

/** Facts in one answer: so many that a closure is there at once, so few that nobody else waits for them. */
const mostInPage = 1000;
const pageQuery = z.object({
  after: z.coerce.number().int().min(0).max(Number.MAX_SAFE_INTEGER).default(0),
  limit: z.coerce.number().int().min(1).max(mostInPage).default(mostInPage),
});

/** What happened: append and read, nothing else; and who stands where just now. */
export function spliceRoutes(database: Database, writer: FactWriter, presence: Presence) {
  return new Hono<RequestVariables>()
    .post(
      '/projects/:projectId/facts',
      validated('param', projectParam),
      // Each is read by itself, so that what one gets wrong is its own.
      validated('json', z.strictObject({ facts: z.array(z.unknown()).min(1).max(500) })),
      async (context) => {
        const { projectId } = context.req.valid('param');
        return context.json(await writer.append(projectId, context.req.valid('json').facts));
      },
    )
    .get(
      '/projects/:projectId/facts',
      validated('param', projectParam),
      validated('query', pageQuery),
      async (context) => {
        const { projectId } = context.req.valid('param');
        const { after, limit } = context.req.valid('query');
        const { numbering, end } = (await numberingOf(database.read, projectId)) ?? notFound('project');
        const rows = await factsAfter(database.read, projectId, after, limit);
        return context.json({
          facts: rows.map((row) => row.body),
          last: rows.at(-1)?.seq ?? after,
          more: rows.length === limit,
          numbering,
          end,
        });
      },
    )
    .get(
      '/projects/:projectId/closures/:closureId/facts',
      validated('param', closureParam),
      validated('query', pageQuery),
      async (context) => {
        const { projectId, closureId } = context.req.valid('param');
        const { after, limit } = context.req.valid('query');
        if (!(await isThere(database, projectId, closureId))) notFound('closure');
        const rows = await database.read
          .select({ seq: fact.seq, body: fact.body })
          .from(fact)
          .where(and(eq(fact.closureId, closureId), gt(fact.seq, after)))
          .orderBy(asc(fact.seq))
          .limit(limit);
        return context.json({
          facts: rows.map((row) => row.body),
          last: rows.at(-1)?.seq ?? after,
          more: rows.length === limit,
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
          by: textSchema.trim().max(40).nullable(),
          /** null: it leaves the closure. */
          spliceId: textSchema.min(3).max(4000).nullable(),
        }),
      ),
      async (context) => {
        const { projectId, closureId } = context.req.valid('param');
        const { device, by, spliceId } = context.req.valid('json');
        if (!(await isThere(database, projectId, closureId))) notFound('closure');
        const others = await presence.at(closureId, { device, by, spliceId });
        const [row] = await database.read
          .select({ last: max(fact.seq) })
          .from(fact)
          .where(eq(fact.closureId, closureId));
        return context.json({ others, last: Number(row?.last ?? 0) });
      },
    );
}

async function isThere(database: Database, projectId: string, closureId: string): Promise<boolean> {
  const [closure] = await database.read
    .select({ id: planClosure.id })
    .from(planClosure)
    .where(and(eq(planClosure.id, closureId), eq(planClosure.projectId, projectId)));
  return closure !== undefined;
}
