import {
  catalogueFileSchema,
  closureModelSchema,
  closureSchema,
  idSchema,
  referenceProblems,
  type Closure,
  type ClosureModel,
  type ProjectDefinition,
} from '@cordel/core';
import { builtInModels } from '@cordel/core/builtInModels';
import { and, asc, eq, sql } from 'drizzle-orm';
import { Hono } from 'hono';
import { z } from 'zod';
import type { RequestVariables } from '../actor';
import { attachment } from '../attachment';
import type { Database, Queries } from '../database/database';
import { documentProblem, readDocument, textOf } from '../documentText';
import { refuse, validated } from '../problem';
import { cleared, closureOfRow } from '../projectStore';
import { fact, planClosure, planModel } from '../schema';
import { unlessTaken } from '../taken';
import { within } from '../unitOfWork';
import {
  deleteDocument,
  graveOf,
  importDocument,
  putDocument,
  type DocumentKind,
} from '../versionedDocument';
import { closureParam, projectParam, versionQuery } from './params';

const modelParam = z.object({ modelId: idSchema });

/** Closures of one project; run inside `within`, which holds the project. */
const closures = (projectId: string): DocumentKind<Closure> => ({
  what: 'closure',
  buried: 'closure',
  async load(db, id) {
    const [row] = await db
      .select()
      .from(planClosure)
      .where(and(eq(planClosure.id, id), eq(planClosure.projectId, projectId)))
      .for('update');
    return row ? closureOfRow(row) : null;
  },
  async store(db, closure, before) {
    const row = cleared(planClosure, { ...closure, projectId });
    if (before) await db.update(planClosure).set(row).where(eq(planClosure.id, closure.id));
    else await db.insert(planClosure).values(row);
  },
  remove: async (db, id) => void (await db.delete(planClosure).where(eq(planClosure.id, id))),
});

/** The catalogue, one for the whole shelf. */
const models: DocumentKind<ClosureModel> = {
  what: 'closure model',
  buried: 'model',
  async load(db, id) {
    const [row] = await db.select().from(planModel).where(eq(planModel.id, id)).for('update');
    // jsonb does not keep the order of fields; the schema restores it.
    return row ? closureModelSchema.parse(row.body) : null;
  },
  async store(db, model) {
    const row = { id: model.id, name: model.name, body: model, version: model.version };
    await db.insert(planModel).values(row).onConflictDoUpdate({ target: planModel.id, set: row });
  },
  remove: async (db, id) => void (await db.delete(planModel).where(eq(planModel.id, id))),
};

/** Closures with their trays and orders, and the catalogue of models they are copied from. */
export function planRoutes(database: Database) {
  return new Hono<RequestVariables>()
    .post(
      '/projects/:projectId/closures',
      validated('param', projectParam),
      validated('json', closureSchema),
      async (context) => {
        const { projectId } = context.req.valid('param');
        const closure = { ...context.req.valid('json'), version: 1 };
        await unlessTaken(
          () =>
            within(database, context.get('actor'), projectId, async ({ db, definition }) => {
              const before = await definition();
              if (before.closures.some((one) => one.id === closure.id)) refuse(alreadyHere);
              if (before.closures.some((one) => one.siteId === closure.siteId)) refuse(siteTaken);
              if ((await graveOf(db, closures(projectId), closure.id)) !== null) refuse(alreadyHere);
              checkReferences({ ...before, closures: [...before.closures, closure] });
              await closures(projectId).store(db, closure, null);
            }),
          alreadyHere,
        );
        return context.json({ closure }, 201);
      },
    )
    .put(
      '/projects/:projectId/closures/:closureId',
      validated('param', closureParam),
      validated('json', closureSchema),
      async (context) => {
        const { projectId, closureId } = context.req.valid('param');
        const closure = context.req.valid('json');
        if (closure.id !== closureId)
          refuse({ title: 'Two closures', status: 400, detail: 'id: The address names another closure.' });
        const saved = await within(database, context.get('actor'), projectId, async ({ db, definition }) => {
          const before = await definition();
          const others = before.closures.filter((one) => one.id !== closureId);
          if (others.some((one) => one.siteId === closure.siteId)) refuse(siteTaken);
          checkReferences({ ...before, closures: [...others, closure] });
          return putDocument(db, closures(projectId), closure);
        });
        return context.json({ closure: saved });
      },
    )
    .delete(
      '/projects/:projectId/closures/:closureId',
      validated('param', closureParam),
      validated('query', versionQuery),
      async (context) => {
        const { projectId, closureId } = context.req.valid('param');
        const { version } = context.req.valid('query');
        await within(database, context.get('actor'), projectId, async ({ db }) => {
          const [first] = await db
            .select({ id: fact.id })
            .from(fact)
            .where(eq(fact.closureId, closureId))
            .limit(1);
          // Facts never vanish, and they would go with the closure.
          if (first)
            refuse({
              title: 'Splicing began',
              status: 409,
              detail: 'Splices are recorded in this closure, so it stays. Empty its order instead.',
            });
          await deleteDocument(db, closures(projectId), closureId, version);
        });
        return context.body(null, 204);
      },
    )
    .get('/models', async (context) => context.json({ models: await loadModels(database.read) }))
    .put(
      '/models/:modelId',
      validated('param', modelParam),
      validated('json', closureModelSchema),
      async (context) => {
        const { modelId } = context.req.valid('param');
        const model = context.req.valid('json');
        if (model.id !== modelId)
          refuse({ title: 'Two models', status: 400, detail: 'id: The address names another model.' });
        await database.write((db) => putDocument(db, models, model, { mayBeNew: true }));
        return context.json({ models: await loadModels(database.read) });
      },
    )
    .delete(
      '/models/:modelId',
      validated('param', modelParam),
      validated('query', versionQuery),
      async (context) => {
        const { modelId } = context.req.valid('param');
        const { version } = context.req.valid('query');
        await database.write((db) => deleteDocument(db, models, modelId, version));
        return context.json({ models: await loadModels(database.read) });
      },
    )
    .get('/models.json', async () => {
      const file = catalogueFileSchema.parse({
        format: 'cordel-catalogue',
        formatVersion: 1,
        models: await loadModels(database.read),
      });
      return attachment(
        `${JSON.stringify(file, null, 2)}\n`,
        'application/json; charset=utf-8',
        'Closure models.json',
      );
    })
    .post('/models/import', async (context) => {
      const read = readDocument(await textOf(context.req.raw), catalogueFileSchema, (file) =>
        file.models.flatMap((model, index) =>
          file.models.findIndex((other) => other.id === model.id) < index
            ? [{ path: ['models', index, 'id'], message: 'This identifier stands twice in the list.' }]
            : [],
        ),
      );
      if (read.problems) return refuse(documentProblem(read.problems, read.count));
      await database.write(async (db) => {
        for (const model of read.file.models) await importDocument(db, models, model);
      });
      return context.json({ taken: read.file.models.length, models: await loadModels(database.read) });
    });
}

const alreadyHere = {
  title: 'Already here',
  status: 409,
  detail: 'This closure is, or was, stored already.',
} as const;
const siteTaken = {
  title: 'Already a closure',
  status: 409,
  detail: 'There is a closure at this site already. Open it from the line.',
} as const;

/** Puts the built-in models into a catalogue that never had one. */
export async function fillCatalogue(database: Database): Promise<void> {
  await database.write(async (db) => {
    // Of several servers that start at once, one fills it.
    await db.execute(sql`lock table plan_model in share row exclusive mode`);
    const [known] = await db.select({ id: planModel.id }).from(planModel).limit(1);
    if (known) return;
    for (const model of builtInModels)
      if ((await graveOf(db, models, model.id)) === null) await models.store(db, model, null);
  });
}

async function loadModels(db: Queries): Promise<ClosureModel[]> {
  const rows = await db
    .select({ body: planModel.body })
    .from(planModel)
    .orderBy(asc(planModel.name), asc(planModel.id));
  // jsonb does not keep the order of fields; the schema restores it.
  return rows.map((row) => closureModelSchema.parse(row.body));
}

function checkReferences(definition: ProjectDefinition): void {
  const [problem] = referenceProblems(definition);
  if (problem)
    refuse({
      title: 'The plan does not hold together',
      status: 400,
      detail: `${problem.path.join('.')}: ${problem.message}`,
    });
}
