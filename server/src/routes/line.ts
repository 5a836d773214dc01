import {
  idSchema,
  projectDefinitionSchema,
  projectSettingsSchema,
  referenceProblems,
  versionSchema,
} from '@cordel/core';
import { and, asc, eq, isNotNull, isNull, sql } from 'drizzle-orm';
import { Hono } from 'hono';
import { z } from 'zod';
import type { Database } from '../database';
import { notFound, refuse, taken, validated } from '../problem';
import { progressOf } from '../progress';
import { insertDefinition, loadDefinition, loadFacts, projectOf, replaceLine } from '../projectStore';
import { lineProject } from '../schema';

export const projectParam = z.object({ projectId: idSchema });

/** Projects, their sites and cables: the shelf and the route. */
export function lineRoutes(database: Database, now: () => Date) {
  return new Hono()
    .get('/projects', async (context) => {
      const rows = await database.read
        .select({ id: lineProject.id, name: lineProject.name, deletedAt: lineProject.deletedAt })
        .from(lineProject)
        .orderBy(asc(lineProject.createdAt));
      const shelf = [];
      const deleted = [];
      for (const { id, name, deletedAt } of rows) {
        if (deletedAt) {
          deleted.push({ id, name, deletedAt: deletedAt.toISOString() });
          continue;
        }
        const definition = (await loadDefinition(database.read, id))!;
        const facts = (await loadFacts(database.read, id)).map((stored) => stored.fact);
        shelf.push({
          project: definition.project,
          siteCount: definition.sites.length,
          lengthMeters: Math.max(0, ...definition.sites.map((site) => site.chainage)),
          progress: progressOf(definition, facts),
        });
      }
      return context.json({ shelf, deleted });
    })
    .post('/projects', validated('json', projectDefinitionSchema), async (context) => {
      const definition = context.req.valid('json');
      const [problem] = referenceProblems(definition);
      if (problem)
        refuse({
          title: 'The project does not hold together',
          status: 400,
          detail: `${problem.path.join('.')}: ${problem.message}`,
        });
      if (!(await insertNew(database, definition))) refuse(taken);
      return context.json({ id: definition.project.id }, 201);
    })
    .get('/projects/:projectId', validated('param', projectParam), async (context) => {
      const { projectId } = context.req.valid('param');
      const definition = (await loadDefinition(database.read, projectId)) ?? notFound('project');
      return context.json(definition);
    })
    .get('/projects/:projectId/progress', validated('param', projectParam), async (context) => {
      const { projectId } = context.req.valid('param');
      const definition = (await loadDefinition(database.read, projectId)) ?? notFound('project');
      const facts = (await loadFacts(database.read, projectId)).map((stored) => stored.fact);
      return context.json({ progress: progressOf(definition, facts) });
    })
    .put(
      '/projects/:projectId/settings',
      validated('param', projectParam),
      validated('json', projectSettingsSchema.extend({ version: versionSchema })),
      async (context) => {
        const { projectId } = context.req.valid('param');
        const { version, ...settings } = context.req.valid('json');
        const [saved] = await database.write((db) =>
          db
            .update(lineProject)
            .set({ ...settings, version: sql`${lineProject.version} + 1` })
            .where(and(eq(lineProject.id, projectId), eq(lineProject.version, version)))
            .returning(),
        );
        if (saved) return context.json({ project: projectOf(saved) });
        const definition = (await loadDefinition(database.read, projectId)) ?? notFound('project');
        return refuse({
          title: 'Changed meanwhile',
          status: 409,
          detail: 'Somebody changed these settings while you did. Look at the newer ones and decide.',
          current: definition.project,
        });
      },
    )
    .put(
      '/projects/:projectId/line',
      validated('param', projectParam),
      validated(
        'json',
        projectDefinitionSchema.pick({ sites: true, cables: true }).extend({ version: versionSchema }),
      ),
      async (context) => {
        const { projectId } = context.req.valid('param');
        const { version, sites, cables } = context.req.valid('json');
        const before = (await loadDefinition(database.read, projectId)) ?? notFound('project');
        const changed = () =>
          refuse({
            title: 'Changed meanwhile',
            status: 409,
            detail: 'Somebody changed this project while you did. Look at the newer route and decide.',
            current: before,
          });
        if (before.project.version !== version) changed();
        const [problem] = referenceProblems({ ...before, sites, cables });
        if (problem)
          refuse({
            title: 'The route does not hold together',
            status: 400,
            detail: `${problem.path.join('.')}: ${problem.message} Take it out where it is still used first.`,
          });
        const stored = await database.write(async (db) => {
          const [project] = await db
            .update(lineProject)
            .set({ version: sql`${lineProject.version} + 1` })
            .where(and(eq(lineProject.id, projectId), eq(lineProject.version, version)))
            .returning();
          if (!project) return false;
          await replaceLine(db, projectId, { sites, cables });
          return true;
        });
        if (!stored) changed();
        return context.json((await loadDefinition(database.read, projectId))!);
      },
    )
    .delete('/projects/:projectId', validated('param', projectParam), async (context) => {
      const { projectId } = context.req.valid('param');
      const gone = await database.write((db) =>
        db
          .update(lineProject)
          .set({ deletedAt: now() })
          .where(and(eq(lineProject.id, projectId), isNull(lineProject.deletedAt)))
          .returning({ id: lineProject.id }),
      );
      if (gone.length === 0) notFound('project');
      return context.body(null, 204);
    })
    .post('/projects/:projectId/restore', validated('param', projectParam), async (context) => {
      const { projectId } = context.req.valid('param');
      const back = await database.write((db) =>
        db
          .update(lineProject)
          .set({ deletedAt: null })
          .where(and(eq(lineProject.id, projectId), isNotNull(lineProject.deletedAt)))
          .returning({ id: lineProject.id }),
      );
      if (back.length === 0) notFound('deleted project');
      return context.body(null, 204);
    });
}

/** false when an identifier is taken; then nothing is stored. */
async function insertNew(
  database: Database,
  definition: z.infer<typeof projectDefinitionSchema>,
): Promise<boolean> {
  return storedUnlessTaken(() => database.write((db) => insertDefinition(db, definition)));
}

/** Turns PostgreSQL's unique violation into false. */
export async function storedUnlessTaken(store: () => Promise<void>): Promise<boolean> {
  try {
    await store();
    return true;
  } catch (error) {
    const cause = error instanceof Error && error.cause ? error.cause : error;
    if ((cause as { code?: string }).code === '23505') return false;
    throw error;
  }
}
