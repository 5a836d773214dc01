import type { Cable, Closure, Project, ProjectDefinition, Site, StoredFact } from '@cordel/core';
import { and, asc, eq, inArray, isNotNull, isNull, lt } from 'drizzle-orm';
import type { Database, Queries } from './database';
import { lineCable, lineProject, lineSite, planClosure, spliceFact } from './schema';

type Row<T extends { $inferSelect: unknown }> = T['$inferSelect'];

export function projectOf({ createdAt: _, deletedAt: __, ...row }: Row<typeof lineProject>): Project {
  return row;
}

const siteOfRow = ({ projectId: _, ...row }: Row<typeof lineSite>): Site => row;
const cableOfRow = ({ projectId: _, ...row }: Row<typeof lineCable>): Cable => row as Cable;
const closureOfRow = ({ projectId: _, ...row }: Row<typeof planClosure>): Closure => row;

/** A project that is on the shelf, with its sites (along the route), cables and closures; or null. */
export async function loadDefinition(db: Queries, id: string): Promise<ProjectDefinition | null> {
  const [row] = await db
    .select()
    .from(lineProject)
    .where(and(eq(lineProject.id, id), isNull(lineProject.deletedAt)));
  if (!row) return null;
  const sites = await db
    .select()
    .from(lineSite)
    .where(eq(lineSite.projectId, id))
    .orderBy(asc(lineSite.chainage), asc(lineSite.id));
  const cables = await db
    .select()
    .from(lineCable)
    .where(eq(lineCable.projectId, id))
    .orderBy(asc(lineCable.id));
  const closures = await db
    .select()
    .from(planClosure)
    .where(eq(planClosure.projectId, id))
    .orderBy(asc(planClosure.id));
  return {
    project: projectOf(row),
    sites: sites.map(siteOfRow),
    cables: cables.map(cableOfRow),
    closures: closures.map(closureOfRow),
  };
}

/**
 * Stores a whole new project, in the place of the same one where that was deleted. Run it in a transaction; rejects when an identifier
 * is taken.
 */
export async function insertDefinition(db: Queries, definition: ProjectDefinition): Promise<void> {
  const { project, sites, cables, closures } = definition;
  const own = { projectId: project.id };
  await db.delete(lineProject).where(and(eq(lineProject.id, project.id), isNotNull(lineProject.deletedAt)));
  await db.insert(lineProject).values(project);
  if (sites.length) await db.insert(lineSite).values(sites.map((site) => ({ ...site, ...own })));
  if (cables.length) await db.insert(lineCable).values(cables.map((cable) => ({ ...cable, ...own })));
  if (closures.length)
    await db.insert(planClosure).values(closures.map((closure) => ({ ...closure, ...own })));
}

const daysKept = 30;

/** Clears away what was deleted long enough ago that nobody will want it back. */
export async function clearDeleted(database: Database, now: Date): Promise<void> {
  const before = new Date(now.getTime() - daysKept * 24 * 3600 * 1000);
  await database.write((db) => db.delete(lineProject).where(lt(lineProject.deletedAt, before)));
}

/** All facts of a project with the time the server took them. */
export async function loadFacts(db: Queries, projectId: string): Promise<StoredFact[]> {
  const rows = await db
    .select({ fact: spliceFact.body, receivedAt: spliceFact.receivedAt })
    .from(spliceFact)
    .where(eq(spliceFact.projectId, projectId))
    .orderBy(asc(spliceFact.seq));
  return rows.map((row) => ({ fact: row.fact, receivedAt: row.receivedAt.toISOString() }));
}

export interface AcceptedFact {
  readonly id: string;
  readonly seq: number;
  readonly receivedAt: string;
}

/** PostgreSQL takes at most 65 535 parameters in a statement; a fact has seven. */
const rowsPerInsert = 5000;

/** Appends facts; one whose id is already there is left as it was. */
export async function insertFacts(
  db: Queries,
  projectId: string,
  facts: readonly StoredFact[],
): Promise<void> {
  for (let start = 0; start < facts.length; start += rowsPerInsert)
    await db
      .insert(spliceFact)
      .values(
        facts.slice(start, start + rowsPerInsert).map(({ fact, receivedAt }) => ({
          id: fact.id,
          projectId,
          closureId: fact.closureId,
          spliceId: fact.spliceId,
          kind: fact.kind,
          body: fact,
          receivedAt: new Date(receivedAt),
        })),
      )
      .onConflictDoNothing();
}

/** The stored facts of these ids. */
export async function factsById(db: Queries, ids: readonly string[]) {
  return ids.length === 0
    ? []
    : db
        .select()
        .from(spliceFact)
        .where(inArray(spliceFact.id, [...ids]));
}
