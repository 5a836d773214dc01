import { and, isNotNull, lte, sql } from 'drizzle-orm';
import type { Database, Queries } from './database/database';
import { lineProject, serverDay } from './schema';

/** How long what was deleted can be put back: days on which a server ran. */
const daysKept = 30;

/**
 * Notes that a server runs today. Time that passes is counted in days seen one after the other, so that one odd reading of the clock, 1970 or 400 days
 * ahead, is one day and clears nothing away.
 */
export async function noteDay(database: Database, now: Date): Promise<void> {
  const day = now.toISOString().slice(0, 10);
  await database.write((db) => db.insert(serverDay).values({ day }).onConflictDoNothing());
}

/** The newest day's number, which a deletion is counted from. */
export async function today(db: Queries): Promise<number> {
  const [row] = await db.select({ n: sql<number>`coalesce(max(${serverDay.n}), 0)::int` }).from(serverDay);
  return row?.n ?? 0;
}

/** Clears away what was deleted so many days ago that nobody will want it back. */
export async function clearDeleted(database: Database): Promise<void> {
  await database.write(async (db) => {
    // Numbers have holes where a day was noted twice, so the days themselves are counted.
    const kept = await db
      .select({ n: serverDay.n })
      .from(serverDay)
      .orderBy(sql`${serverDay.n} desc`)
      .offset(daysKept)
      .limit(1);
    if (!kept[0]) return;
    await db
      .delete(lineProject)
      .where(
        and(
          isNotNull(lineProject.deletedAt),
          isNotNull(lineProject.deletedOn),
          lte(lineProject.deletedOn, kept[0].n),
        ),
      );
  });
}
