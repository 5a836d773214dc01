import { idSchema, isGearFact, versionSchema } from '@cordel/core';
import { gearSchema, useOf, type Gear, type GearBook } from '@cordel/core/gear';
import { and, asc, eq, gt } from 'drizzle-orm';
import { Hono } from 'hono';
import { z } from 'zod';
import type { Database } from '../database';
import { notFound, refuse, validated } from '../problem';
import { concernsGear, gearItem, lineProject, spliceFact } from '../schema';

const gearParam = z.object({ gearId: idSchema });

/** The gear of the crews, and all that happened to it and was made with it in any project. */
export function gearRoutes(database: Database) {
  return new Hono()
    .get('/gear', async (context) => context.json({ gear: await loadGear(database) }))
    .put('/gear/:gearId', validated('param', gearParam), validated('json', gearSchema), async (context) => {
      const { gearId } = context.req.valid('param');
      const item = context.req.valid('json');
      if (item.id !== gearId)
        refuse({ title: 'Two pieces of gear', status: 400, detail: 'id: The address names another piece.' });
      const current = await database.write(async (db) => {
        const [before] = await db.select().from(gearItem).where(eq(gearItem.id, gearId));
        if (before && before.version !== item.version) return before.body;
        const saved = { ...item, version: before ? item.version + 1 : 1 };
        const row = { id: gearId, label: saved.label, body: saved, version: saved.version };
        await db.insert(gearItem).values(row).onConflictDoUpdate({ target: gearItem.id, set: row });
        return null;
      });
      if (current)
        refuse({
          title: 'Changed meanwhile',
          status: 409,
          detail: 'Somebody changed this piece of gear while you did. Look at the newer one and decide.',
          current,
        });
      return context.json({ gear: await loadGear(database) });
    })
    .delete(
      '/gear/:gearId',
      validated('param', gearParam),
      validated('query', z.object({ version: z.coerce.number().pipe(versionSchema) })),
      async (context) => {
        const { gearId } = context.req.valid('param');
        const { version } = context.req.valid('query');
        // What was recorded with it keeps its label, so it may go from the list.
        const gone = await database.write((db) =>
          db
            .delete(gearItem)
            .where(and(eq(gearItem.id, gearId), eq(gearItem.version, version)))
            .returning({ id: gearItem.id }),
        );
        if (gone.length === 0) notFound('piece of gear in that version');
        return context.json({ gear: await loadGear(database) });
      },
    )
    .get(
      '/gear/book',
      validated('query', z.object({ after: z.coerce.number().int().min(0).default(0) })),
      async (context) => {
        const { after } = context.req.valid('query');
        const rows = await database.read
          .select({ seq: spliceFact.seq, fact: spliceFact.body, limits: lineProject.limits })
          .from(spliceFact)
          .innerJoin(lineProject, eq(lineProject.id, spliceFact.projectId))
          .where(and(gt(spliceFact.seq, after), concernsGear(spliceFact)))
          .orderBy(asc(spliceFact.seq));
        const book: GearBook = {
          uses: rows.flatMap(({ fact, limits }) =>
            fact.kind === 'attempt' ? (useOf(fact, limits) ?? []) : [],
          ),
          facts: rows.map((row) => row.fact).filter(isGearFact),
          withdrawn: rows.flatMap(({ fact }) => (fact.kind === 'correction' ? [fact.attemptId] : [])),
        };
        return context.json({ book, last: rows.at(-1)?.seq ?? after });
      },
    );
}

async function loadGear(database: Database): Promise<Gear[]> {
  const rows = await database.read
    .select({ body: gearItem.body })
    .from(gearItem)
    .orderBy(asc(gearItem.label), asc(gearItem.id));
  // jsonb does not keep the order of fields; the schema restores it.
  return rows.map((row) => gearSchema.parse(row.body));
}
