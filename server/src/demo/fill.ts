import { eq, sql } from 'drizzle-orm';
import type { Database } from '../database/database';
import { insertFacts } from '../factStore';
import { insertDefinition } from '../projectStore';
import { gearItem, lineProject } from '../schema';
import { demoGear } from './gear';
import { valeDoUmbu } from './valeDoUmbu';

/**
 * Puts the demo scenario on an empty shelf. false when there is something on it already.
 * @param now in the middle of the demo's night
 */
export async function fillWithDemo(database: Database, now: Date): Promise<boolean> {
  return database.write(async (db) => {
    // Of several servers that start at once, one fills it.
    await db.execute(sql`lock table line_project in share row exclusive mode`);
    const known = await db.select({ id: lineProject.id }).from(lineProject).limit(1);
    if (known.length > 0) return false;
    const { definition, facts } = valeDoUmbu(now);
    await insertDefinition(db, definition);
    await db
      .insert(gearItem)
      .values(demoGear.map((item) => ({ id: item.id, label: item.label, body: item, version: item.version })))
      .onConflictDoNothing();
    const lastSeq = await insertFacts(db, definition.project.id, facts, 0);
    await db.update(lineProject).set({ lastSeq }).where(eq(lineProject.id, definition.project.id));
    return true;
  });
}
