import { eq } from 'drizzle-orm';
import { sqlState, type Queries } from './database/database';
import { refuse } from './problem';
import { lineProject } from './schema';

/** What is sent has an identifier that is in use. */
export const taken = {
  title: 'Already here',
  status: 409,
  detail:
    'This server already has this project, or parts of it. Open it from the shelf, or delete it there first. Nothing was changed.',
} as const;

/** Turns PostgreSQL's unique violation into this refusal. */
export async function unlessTaken<T>(
  store: () => Promise<T>,
  refusal: Parameters<typeof refuse>[0],
): Promise<T> {
  try {
    return await store();
  } catch (error) {
    if (sqlState(error) === '23505') refuse(refusal);
    throw error;
  }
}

/** Refuses a project that is here already, with what to do where it was deleted: its facts are still kept, and would be lost under it. */
export async function refuseTaken(db: Queries, projectId: string): Promise<void> {
  const [row] = await db
    .select({ name: lineProject.name, deletedAt: lineProject.deletedAt })
    .from(lineProject)
    .where(eq(lineProject.id, projectId));
  if (!row) return;
  if (!row.deletedAt) refuse(taken);
  refuse({
    title: 'Deleted here',
    status: 409,
    detail: `“${row.name}” was deleted here, and its records are still kept. Put it back from the foot of the shelf. Nothing was changed.`,
  });
}
