import {
  projectDefinitionSchema,
  projectSettingsSchema,
  referenceProblems,
  versionSchema,
  type Project,
} from '@cordel/core';
import { and, eq, isNotNull, isNull } from 'drizzle-orm';
import { Hono } from 'hono';
import type { RequestVariables } from '../actor';
import type { Clock } from '../clock';
import type { Database } from '../database/database';
import { notFound, refuse, validated } from '../problem';
import type { ProgressBook } from '../progressBook';
import { insertDefinition, loadDefinition, projectOf, replaceLine } from '../projectStore';
import { lineProject } from '../schema';
import { today } from '../serverDays';
import { refuseTaken, taken, unlessTaken } from '../taken';
import { within, type ProjectWork } from '../unitOfWork';
import { changedMeanwhile, putDocument, type DocumentKind } from '../versionedDocument';
import { projectParam } from './params';

/** What a person edits about a project as a whole; run inside `within`, which holds its row. */
const settings = ({ row }: ProjectWork): DocumentKind<Project> => ({
  what: 'project',
  these: 'these settings',
  buried: null,
  load: async () => projectOf(row),
  async store(db, { id, name, units, limits, window, timeZone, nights, version }) {
    // A page of an older Cordel that is still open says nothing of the time zone or the nights: they stay.
    const kept = {
      ...(timeZone === undefined ? {} : { timeZone }),
      ...(nights === undefined ? {} : { nights }),
    };
    const set = { name, units, limits, window, version, ...kept };
    await db.update(lineProject).set(set).where(eq(lineProject.id, id));
  },
  remove: () => Promise.reject(new Error('A project goes from the shelf as a whole.')),
});

/** Projects, their sites and cables: the shelf and the route. */
export function lineRoutes(database: Database, clock: Clock, progress: ProgressBook) {
  return new Hono<RequestVariables>()
    .get('/projects', async (context) => {
      const deleted = await database.read
        .select({ id: lineProject.id, name: lineProject.name, deletedAt: lineProject.deletedAt })
        .from(lineProject)
        .where(isNotNull(lineProject.deletedAt))
        .orderBy(lineProject.createdAt);
      return context.json({
        shelf: await progress.shelf(),
        deleted: deleted.map((row) => ({ ...row, deletedAt: row.deletedAt!.toISOString() })),
      });
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
      await unlessTaken(
        () =>
          database.write(async (db) => {
            await refuseTaken(db, definition.project.id);
            await insertDefinition(db, definition);
          }),
        taken,
      );
      return context.json({ id: definition.project.id }, 201);
    })
    .get('/projects/:projectId', validated('param', projectParam), async (context) => {
      const { projectId } = context.req.valid('param');
      const definition = (await loadDefinition(database.read, projectId)) ?? notFound('project');
      return context.json(definition);
    })
    .get('/projects/:projectId/progress', validated('param', projectParam), async (context) => {
      const { projectId } = context.req.valid('param');
      const summary = (await progress.project(projectId)) ?? notFound('project');
      return context.json({ progress: summary.progress });
    })
    .put(
      '/projects/:projectId/settings',
      validated('param', projectParam),
      validated('json', projectSettingsSchema.extend({ version: versionSchema })),
      async (context) => {
        const { projectId } = context.req.valid('param');
        const edited = context.req.valid('json');
        const project = await within(database, context.get('actor'), projectId, (work) =>
          putDocument(work.db, settings(work), { ...projectOf(work.row), ...edited }),
        );
        return context.json({ project });
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
        const after = await within(database, context.get('actor'), projectId, async (work) => {
          const { db, row } = work;
          const before = await work.definition();
          if (row.lineVersion !== version) changedMeanwhile('this route', before);
          const [problem] = referenceProblems({ ...before, sites, cables });
          if (problem)
            refuse({
              title: 'The route does not hold together',
              status: 400,
              detail: `${problem.path.join('.')}: ${problem.message} Take it out where it is still used first.`,
            });
          await unlessTaken(() => replaceLine(db, projectId, { sites, cables }), taken);
          await db
            .update(lineProject)
            .set({ lineVersion: version + 1 })
            .where(eq(lineProject.id, projectId));
          const stored = await work.definition();
          return { ...stored, project: { ...stored.project, lineVersion: version + 1 } };
        });
        return context.json(after);
      },
    )
    .delete('/projects/:projectId', validated('param', projectParam), async (context) => {
      const { projectId } = context.req.valid('param');
      await within(database, context.get('actor'), projectId, async ({ db }) =>
        db
          .update(lineProject)
          .set({ deletedAt: clock.now(), deletedOn: await today(db) })
          .where(eq(lineProject.id, projectId)),
      );
      return context.body(null, 204);
    })
    .post('/projects/:projectId/restore', validated('param', projectParam), async (context) => {
      const { projectId } = context.req.valid('param');
      const back = await database.write((db) =>
        db
          .update(lineProject)
          .set({ deletedAt: null, deletedOn: null })
          .where(
            and(
              eq(lineProject.id, projectId),
              isNotNull(lineProject.deletedAt),
              isNull(lineProject.importing),
            ),
          )
          .returning({ id: lineProject.id }),
      );
      if (back.length === 0) notFound('deleted project');
      return context.body(null, 204);
    });
}
