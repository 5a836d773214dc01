import { isGearFact, knownFact, type GearFact } from '@cordel/core';
import { and, notInArray } from 'drizzle-orm';
import type { Queries } from './database/database';
import { fact } from './schema';

/** What happened to the gear in all projects: a night may have begun in another one. */
export async function gearFacts(db: Queries): Promise<GearFact[]> {
  const rows = await db
    .select({ body: fact.body })
    .from(fact)
    .where(and(fact.concernsGear, notInArray(fact.kind, ['attempt', 'correction'])));
  return rows.flatMap(({ body }) => {
    const known = knownFact(body);
    return known && isGearFact(known) ? [known] : [];
  });
}
