import type { Database } from '../database';
import { insertDefinition, insertFacts } from '../projectStore';
import { gearItem, lineProject } from '../schema';
import { demoGear } from './gear';
import { valeDoUmbu } from './valeDoUmbu';

/** Puts the demo scenario on an empty shelf. false when there is something on it already. */
export async function fillWithDemo(database: Database): Promise<boolean> {
  const known = await database.read.select({ id: lineProject.id }).from(lineProject).limit(1);
  if (known.length > 0) return false;
  const { definition, facts } = valeDoUmbu();
  await database.write(async (db) => {
    await insertDefinition(db, definition);
    await db
      .insert(gearItem)
      .values(
        demoGear.map((item) => ({ id: item.id, label: item.label, body: item, version: item.version })),
      );
    await insertFacts(db, definition.project.id, facts);
  });
  return true;
}
