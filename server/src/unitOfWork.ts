import type { ProjectDefinition } from '@cordel/core';
import { and, eq, isNull, sql } from 'drizzle-orm';
import type { Actor } from './actor';
import type { Database, Queries } from './database/database';
import { notFound } from './problem';
import { definitionOf } from './projectStore';
import { lineProject } from './schema';

/** What a change to a project works on: everything it reads, checks and writes is one transaction, under the lock of the project's row. */
export interface ProjectWork {
  readonly db: Queries;
  readonly actor: Actor;
  readonly row: typeof lineProject.$inferSelect;
  definition(): Promise<ProjectDefinition>;
}

/**
 * Runs a change to one project. Two of them never overlap, on however many servers; what `work` throws leaves nothing behind. 404 where the project is not on
 * the shelf.
 */
export function within<T>(
  database: Database,
  actor: Actor,
  projectId: string,
  work: (work: ProjectWork) => Promise<T>,
): Promise<T> {
  return database.write(async (db) => {
    const [row] = await db
      .select()
      .from(lineProject)
      .where(and(eq(lineProject.id, projectId), isNull(lineProject.deletedAt), isNull(lineProject.importing)))
      .for('update');
    if (!row) return notFound('project');
    const result = await work({ db, actor, row, definition: () => definitionOf(db, row) });
    // Whoever keeps sums of the project makes them anew.
    await db
      .update(lineProject)
      .set({ revision: sql`${lineProject.revision} + 1` })
      .where(eq(lineProject.id, projectId));
    return result;
  });
}
