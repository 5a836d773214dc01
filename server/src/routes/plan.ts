import {
  catalogueFileSchema,
  closureModelSchema,
  closureSchema,
  idSchema,
  referenceProblems,
  versionSchema,
  type Closure,
  type ClosureModel,
  type ProjectDefinition,
} from '@cordel/core';
import { builtInModels } from '@cordel/core/builtInModels';
import { and, asc, count, eq } from 'drizzle-orm';
import { Hono } from 'hono';
import { z } from 'zod';
import { attachment } from '../attachment';
import type { Database } from '../database';
import { documentProblem, readDocument } from '../documentText';
import { notFound, refuse, validated } from '../problem';
import { closureOfRow, loadDefinition, replaceClosure } from '../projectStore';
import { planClosure, planModel, spliceFact } from '../schema';
import { projectParam, storedUnlessTaken } from './line';

const closureParam = projectParam.extend({ closureId: idSchema });
const modelParam = z.object({ modelId: idSchema });

/** Closures with their trays and orders, and the catalogue of models they are copied from. */
export function planRoutes(database: Database) {
  return new Hono()
    .post(
      '/projects/:projectId/closures',
      validated('param', projectParam),
      validated('json', closureSchema),
      async (context) => {
        const { projectId } = context.req.valid('param');
        const closure = context.req.valid('json');
        const definition = (await loadDefinition(database.read, projectId)) ?? notFound('project');
        if (definition.closures.some((one) => one.siteId === closure.siteId))
          refuse({
            title: 'Already a closure',
            status: 409,
            detail: 'There is a closure at this site already. Open it from the line.',
          });
        checkReferences({ ...definition, closures: [...definition.closures, closure] });
        const stored = await storedUnlessTaken(() =>
          database.write(async (db) => void (await db.insert(planClosure).values({ ...closure, projectId }))),
        );
        if (!stored)
          refuse({ title: 'Already here', status: 409, detail: 'This closure is stored already.' });
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
        const definition = (await loadDefinition(database.read, projectId)) ?? notFound('project');
        const before = definition.closures.find((one) => one.id === closureId) ?? notFound('closure');
        const closures = definition.closures.map((one) => (one.id === closureId ? closure : one));
        checkReferences({ ...definition, closures });
        if (!(await database.write((db) => replaceClosure(db, projectId, closure))))
          refuse({
            title: 'Changed meanwhile',
            status: 409,
            detail: 'Somebody changed this plan while you did. Look at the newer one and decide.',
            current: (await loadClosure(database, closureId)) ?? before,
          });
        return context.json({ closure: (await loadClosure(database, closureId))! });
      },
    )
    .delete(
      '/projects/:projectId/closures/:closureId',
      validated('param', closureParam),
      validated('query', z.object({ version: z.coerce.number().pipe(versionSchema) })),
      async (context) => {
        const { projectId, closureId } = context.req.valid('param');
        const { version } = context.req.valid('query');
        const outcome = await database.write(async (db) => {
          const [{ facts } = { facts: 0 }] = await db
            .select({ facts: count() })
            .from(spliceFact)
            .where(eq(spliceFact.closureId, closureId));
          // Facts never vanish, and they would go with the closure.
          if (facts > 0) return 'has facts';
          const gone = await db
            .delete(planClosure)
            .where(
              and(
                eq(planClosure.id, closureId),
                eq(planClosure.projectId, projectId),
                eq(planClosure.version, version),
              ),
            )
            .returning({ id: planClosure.id });
          return gone.length > 0 ? 'gone' : 'not there';
        });
        if (outcome === 'has facts')
          refuse({
            title: 'Splicing began',
            status: 409,
            detail: 'Splices are recorded in this closure, so it stays. Empty its order instead.',
          });
        if (outcome === 'not there') notFound('closure');
        return context.body(null, 204);
      },
    )
    .get('/models', async (context) => context.json({ models: await loadModels(database) }))
    .put(
      '/models/:modelId',
      validated('param', modelParam),
      validated('json', closureModelSchema),
      async (context) => {
        const { modelId } = context.req.valid('param');
        const model = context.req.valid('json');
        if (model.id !== modelId)
          refuse({ title: 'Two models', status: 400, detail: 'id: The address names another model.' });
        const outcome = await database.write(async (db) => {
          const [before] = await db.select().from(planModel).where(eq(planModel.id, modelId));
          if (before && before.version !== model.version) return before.body;
          const saved = { ...model, version: before ? model.version + 1 : 1 };
          const row = { id: modelId, name: saved.name, body: saved, version: saved.version };
          await db.insert(planModel).values(row).onConflictDoUpdate({ target: planModel.id, set: row });
          return null;
        });
        if (outcome)
          refuse({
            title: 'Changed meanwhile',
            status: 409,
            detail: 'Somebody changed this model while you did. Look at the newer one and decide.',
            current: outcome,
          });
        return context.json({ models: await loadModels(database) });
      },
    )
    .delete('/models/:modelId', validated('param', modelParam), async (context) => {
      const { modelId } = context.req.valid('param');
      const gone = await database.write((db) =>
        db.delete(planModel).where(eq(planModel.id, modelId)).returning({ id: planModel.id }),
      );
      if (gone.length === 0) notFound('closure model');
      return context.json({ models: await loadModels(database) });
    })
    .get('/models.json', async () => {
      const models = await loadModels(database);
      const file = catalogueFileSchema.parse({ format: 'cordel-catalogue', formatVersion: 1, models });
      return attachment(
        `${JSON.stringify(file, null, 2)}\n`,
        'application/json; charset=utf-8',
        'Closure models.json',
      );
    })
    .post('/models/import', async (context) => {
      const read = readDocument(await context.req.text(), catalogueFileSchema, (file) =>
        file.models.flatMap((model, index) =>
          file.models.findIndex((other) => other.id === model.id) < index
            ? [{ path: ['models', index, 'id'], message: 'This identifier stands twice in the list.' }]
            : [],
        ),
      );
      if (read.problems) return refuse(documentProblem(read.problems));
      await database.write(async (db) => {
        for (const model of read.file.models) {
          const row = { id: model.id, name: model.name, body: model, version: model.version };
          await db.insert(planModel).values(row).onConflictDoUpdate({ target: planModel.id, set: row });
        }
      });
      return context.json({ taken: read.file.models.length, models: await loadModels(database) });
    });
}

/** Puts the built-in models into an empty catalogue. */
export async function fillCatalogue(database: Database): Promise<void> {
  if ((await loadModels(database)).length > 0) return;
  await database.write(
    async (db) =>
      void (await db
        .insert(planModel)
        .values(
          builtInModels.map((model) => ({
            id: model.id,
            name: model.name,
            body: model,
            version: model.version,
          })),
        )
        .onConflictDoNothing()),
  );
}

async function loadModels(database: Database): Promise<ClosureModel[]> {
  const rows = await database.read
    .select({ body: planModel.body })
    .from(planModel)
    .orderBy(asc(planModel.name), asc(planModel.id));
  // jsonb does not keep the order of fields; the schema restores it.
  return rows.map((row) => closureModelSchema.parse(row.body));
}

async function loadClosure(database: Database, id: string): Promise<Closure | null> {
  const [row] = await database.read.select().from(planClosure).where(eq(planClosure.id, id));
  return row ? closureOfRow(row) : null;
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
