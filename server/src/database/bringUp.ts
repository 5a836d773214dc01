import { concernsGear, readFact } from '@cordel/core';
import { and, asc, eq, gt, sql } from 'drizzle-orm';
import { fact } from '../schema';
import type { Database } from './database';

const slice = 500;

/**
 * Facts that were not understood when they came, written by an older Cordel or by a newer one than the last, are read again: those that this one
 * knows are brought up to how it writes them. The others stay as they are. Returns how many were brought up.
 */
export async function bringUpFacts(database: Database): Promise<number> {
  let done = 0;
  let from = '00000000-0000-0000-0000-000000000000';
  for (;;) {
    const rows = await database.read
      .select({ id: fact.id, body: fact.body })
      .from(fact)
      .where(and(eq(fact.understood, false), gt(fact.id, from)))
      .orderBy(asc(fact.id))
      .limit(slice);
    if (rows.length === 0) return done;
    from = rows.at(-1)!.id;
    const known = rows.flatMap(({ id, body }) => {
      const read = readFact(body);
      return read.status === 'known' && read.fact.id === id ? [read.fact] : [];
    });
    if (known.length === 0) continue;
    await database.write(async (db) => {
      for (const one of known)
        await db
          .update(fact)
          .set({
            body: one,
            v: one.v,
            understood: true,
            concernsGear: concernsGear(one),
            // As new as today to readers who are past it.
            tx: sql`pg_current_xact_id()::text::bigint`,
          })
          .where(eq(fact.id, one.id));
    });
    done += known.length;
  }
}
