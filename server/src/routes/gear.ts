import { idSchema, knownFact, type Fact, type Limits } from '@cordel/core';
import { gearBook, gearSchema, joinBooks, type Gear } from '@cordel/core/gear';
import { and, asc, eq, gte, isNull, or, sql } from 'drizzle-orm';
import { Hono } from 'hono';
import { z } from 'zod';
import type { RequestVariables } from '../actor';
import type { Database, Queries } from '../database/database';
import { rowsOf } from '../database/migrate';
import { refuse, validated } from '../problem';
import { fact, gearItem, lineProject } from '../schema';
import { deleteDocument, putDocument, type DocumentKind } from '../versionedDocument';
import { versionQuery } from './params';

const gearParam = z.object({ gearId: idSchema });

/** The gear of the crews, one list for the whole shelf. What was recorded with a piece keeps its label, so it may go from the list. */
const gear: DocumentKind<Gear> = {
  what: 'piece of gear',
  buried: 'gear',
  async load(db, id) {
    const [row] = await db.select().from(gearItem).where(eq(gearItem.id, id)).for('update');
    // jsonb does not keep the order of fields; the schema restores it.
    return row ? gearSchema.parse(row.body) : null;
  },
  async store(db, item) {
    const row = { id: item.id, label: item.label, body: item, version: item.version };
    await db.insert(gearItem).values(row).onConflictDoUpdate({ target: gearItem.id, set: row });
  },
  remove: async (db, id) => void (await db.delete(gearItem).where(eq(gearItem.id, id))),
};

/** The gear of the crews, and all that happened to it and was made with it in any project. What is new in the book may repeat what was given out. */
export function gearRoutes(database: Database) {
  return new Hono<RequestVariables>()
    .get('/gear', async (context) => context.json({ gear: await loadGear(database.read) }))
    .put('/gear/:gearId', validated('param', gearParam), validated('json', gearSchema), async (context) => {
      const { gearId } = context.req.valid('param');
      const item = context.req.valid('json');
      if (item.id !== gearId)
        refuse({ title: 'Two pieces of gear', status: 400, detail: 'id: The address names another piece.' });
      await database.write((db) => putDocument(db, gear, item, { mayBeNew: true }));
      return context.json({ gear: await loadGear(database.read) });
    })
    .delete(
      '/gear/:gearId',
      validated('param', gearParam),
      validated('query', versionQuery),
      async (context) => {
        const { gearId } = context.req.valid('param');
        const { version } = context.req.valid('query');
        await database.write((db) => deleteDocument(db, gear, gearId, version));
        return context.json({ gear: await loadGear(database.read) });
      },
    )
    .get(
      '/gear/book',
      validated('query', z.object({ after: z.string().max(80).default('') })),
      async (context) => {
        const now = await position(database.read);
        const from = positionOf(context.req.valid('query').after, now.epoch);
        const rows = await database.read
          .select({ projectId: fact.projectId, body: fact.body, limits: lineProject.limits })
          .from(fact)
          .innerJoin(lineProject, eq(lineProject.id, fact.projectId))
          .where(
            and(
              fact.concernsGear,
              // An import is as new as the moment in which it was shown.
              or(gte(fact.tx, from), gte(lineProject.shownTx, from)),
              isNull(lineProject.importing),
            ),
          )
          .orderBy(asc(fact.tx), asc(fact.id));
        // Each fact under the limits of its own project.
        const projects = new Map<string, { limits: Limits; facts: Fact[] }>();
        for (const { projectId, body, limits } of rows) {
          const one = knownFact(body);
          const of = projects.get(projectId) ?? { limits, facts: [] };
          projects.set(projectId, of);
          if (one) of.facts.push(one);
        }
        const books = [...projects.values()].map(({ facts, limits }) => gearBook(facts, limits));
        return context.json({ book: joinBooks(...books), last: `${now.epoch}.${now.horizon}` });
      },
    );
}

/**
 * Where a reader across projects is: which database, and the oldest transaction that still runs there. What earlier ones stored is all to be seen, so a reader who
 * comes back with this position misses nothing, however many servers write. What later ones stored already is given out too, and once more the next time: a
 * transaction of somebody else that runs for hours keeps nobody from the newest, only makes them hear it twice.
 */
async function position(db: Queries): Promise<{ epoch: string; horizon: number }> {
  const [row] = rowsOf(
    await db.execute(
      sql`select epoch, pg_snapshot_xmin(pg_current_snapshot())::text as horizon from database_identity`,
    ),
  );
  return { epoch: String(row!.epoch), horizon: Number(row!.horizon) };
}

/** From the beginning where the position is of another database, or none. */
function positionOf(after: string, epoch: string): number {
  const [of, number] = after.split('.');
  const from = Number(number);
  return of === epoch && Number.isSafeInteger(from) && from >= 0 ? from : 0;
}

async function loadGear(db: Queries): Promise<Gear[]> {
  const rows = await db
    .select({ body: gearItem.body })
    .from(gearItem)
    .orderBy(asc(gearItem.label), asc(gearItem.id));
  // jsonb does not keep the order of fields; the schema restores it.
  return rows.map((row) => gearSchema.parse(row.body));
}
