import type { Cable, Closure, Project, ProjectDefinition, Site } from '@cordel/core';
import { and, asc, eq, getTableColumns, isNull, notInArray, sql } from 'drizzle-orm';
import type { PgTable } from 'drizzle-orm/pg-core';
import type { Queries } from './database/database';
import { refuse } from './problem';
import { databaseIdentity, lineCable, lineProject, lineSite, planClosure } from './schema';
import { taken } from './taken';

type Row<T extends { $inferSelect: unknown }> = T['$inferSelect'];

export function projectOf({
  id,
  name,
  units,
  limits,
  window,
  timeZone,
  nights,
  version,
  lineVersion,
}: Row<typeof lineProject>): Project {
  const project = { id, name, units, limits, window, timeZone, version, lineVersion };
  return nights ? { ...project, nights } : project;
}

/** A column that holds nothing stands for a field that is not there. */
function withoutNulls<T extends object>(row: T): T {
  return Object.fromEntries(Object.entries(row).filter(([, value]) => value !== null)) as T;
}

const siteOfRow = ({ projectId: _, placement, ...row }: Row<typeof lineSite>): Site =>
  ({ ...withoutNulls(row), placement }) as Site;
const cableOfRow = ({ projectId: _, ...row }: Row<typeof lineCable>): Cable => withoutNulls(row) as Cable;
export const closureOfRow = ({ projectId: _, ...row }: Row<typeof planClosure>): Closure =>
  withoutNulls(row) as Closure;

/**
 * The numbers of a project's facts: in which numbering they are, and the last of them. Of another numbering than before, a reader's position means nothing: the
 * database is one that was restored, or the project was taken in anew. null where it is not on the shelf.
 */
export async function numberingOf(
  db: Queries,
  id: string,
): Promise<{ readonly numbering: string; readonly end: number } | null> {
  const [row] = await db
    .select({ epoch: databaseIdentity.epoch, createdAt: lineProject.createdAt, end: lineProject.lastSeq })
    .from(lineProject)
    .innerJoin(databaseIdentity, sql`true`)
    .where(and(eq(lineProject.id, id), isNull(lineProject.deletedAt), isNull(lineProject.importing)));
  return row ? { numbering: `${row.epoch}.${row.createdAt.getTime()}`, end: row.end } : null;
}

/** A project that is on the shelf, with its sites (along the route), cables and closures; or null. */
export async function loadDefinition(db: Queries, id: string): Promise<ProjectDefinition | null> {
  const [row] = await db
    .select()
    .from(lineProject)
    .where(and(eq(lineProject.id, id), isNull(lineProject.deletedAt), isNull(lineProject.importing)));
  return row ? definitionOf(db, row) : null;
}

/** The same for a row that is read already. */
export async function definitionOf(db: Queries, row: Row<typeof lineProject>): Promise<ProjectDefinition> {
  const sites = await db
    .select()
    .from(lineSite)
    .where(eq(lineSite.projectId, row.id))
    .orderBy(asc(lineSite.chainage), asc(lineSite.id));
  const cables = await db
    .select()
    .from(lineCable)
    .where(eq(lineCable.projectId, row.id))
    .orderBy(asc(lineCable.id));
  const closures = await db
    .select()
    .from(planClosure)
    .where(eq(planClosure.projectId, row.id))
    .orderBy(asc(planClosure.id));
  return {
    project: projectOf(row),
    sites: sites.map(siteOfRow),
    cables: cables.map(cableOfRow),
    closures: closures.map(closureOfRow),
  };
}

/**
 * Stores a whole new project. Run it in a transaction; rejects when an identifier is taken, by whatever is on the shelf, deleted or being imported.
 * @param importing nobody sees it until `importing` is taken away
 */
export async function insertDefinition(
  db: Queries,
  definition: ProjectDefinition,
  importing: string | null = null,
): Promise<void> {
  const { project, sites, cables, closures } = definition;
  const own = { projectId: project.id };
  await db.insert(lineProject).values({ ...project, importing });
  if (sites.length) await db.insert(lineSite).values(sites.map((site) => ({ ...site, ...own })));
  if (cables.length) await db.insert(lineCable).values(cables.map((cable) => ({ ...cable, ...own })));
  if (closures.length)
    await db.insert(planClosure).values(closures.map((closure) => ({ ...closure, ...own })));
}

/** Every column of a table that this row does not set, set to null: an edit may take a field away. */
export function cleared<T extends PgTable, R extends object>(table: T, row: R): R {
  const nothing = Object.fromEntries(Object.keys(getTableColumns(table)).map((name) => [name, null]));
  return { ...nothing, ...row };
}

/**
 * Puts a route in the place of the one that is stored: sites and cables are added, changed, and taken away where they are not in it any
 * more. Run it in a transaction.
 */
export async function replaceLine(
  db: Queries,
  projectId: string,
  { sites, cables }: { sites: readonly Site[]; cables: readonly Cable[] },
): Promise<void> {
  const own = { projectId };
  // Taken away before anything is added, cables first: nothing refers to a cable but the documents themselves.
  await db.delete(lineCable).where(
    and(
      eq(lineCable.projectId, projectId),
      notInArray(
        lineCable.id,
        cables.map((cable) => cable.id),
      ),
    ),
  );
  await db.delete(lineSite).where(
    and(
      eq(lineSite.projectId, projectId),
      notInArray(
        lineSite.id,
        sites.map((site) => site.id),
      ),
    ),
  );
  // An identifier that belongs to another project is left alone there, and told.
  const stored = [];
  for (const site of sites) {
    const row = cleared(lineSite, { ...site, ...own });
    stored.push(
      ...(await db
        .insert(lineSite)
        .values(row)
        .onConflictDoUpdate({ target: lineSite.id, set: row, setWhere: eq(lineSite.projectId, projectId) })
        .returning({ id: lineSite.id })),
    );
  }
  for (const cable of cables) {
    const row = cleared(lineCable, { ...cable, ...own });
    stored.push(
      ...(await db
        .insert(lineCable)
        .values(row)
        .onConflictDoUpdate({ target: lineCable.id, set: row, setWhere: eq(lineCable.projectId, projectId) })
        .returning({ id: lineCable.id })),
    );
  }
  if (stored.length < sites.length + cables.length) refuse(taken);
}
