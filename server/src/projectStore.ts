import {
  isSpliceFact,
  type Cable,
  type Closure,
  type Project,
  type ProjectDefinition,
  type Site,
  type StoredFact,
} from '@cordel/core';
import { and, asc, eq, getTableColumns, inArray, isNotNull, isNull, lt, notInArray } from 'drizzle-orm';
import type { PgTable } from 'drizzle-orm/pg-core';
import type { Database, Queries } from './database';
import { refuse, taken } from './problem';
import { lineCable, lineProject, lineSite, planClosure, spliceFact } from './schema';

type Row<T extends { $inferSelect: unknown }> = T['$inferSelect'];

export function projectOf({ createdAt: _, deletedAt: __, ...row }: Row<typeof lineProject>): Project {
  return row;
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

/** Every column of a table that this row does not set, set to null: an edit may take a field away. */
function cleared<T extends PgTable, R extends object>(table: T, row: R): R {
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

/** Stores a closure over the older version of itself. false when there is none of that version. Run it in a transaction. */
export async function replaceClosure(db: Queries, projectId: string, closure: Closure): Promise<boolean> {
  const row = cleared(planClosure, { ...closure, projectId, version: closure.version + 1 });
  const saved = await db
    .update(planClosure)
    .set(row)
    .where(
      and(
        eq(planClosure.id, closure.id),
        eq(planClosure.projectId, projectId),
        eq(planClosure.version, closure.version),
      ),
    )
    .returning({ id: planClosure.id });
  return saved.length > 0;
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
          spliceId: isSpliceFact(fact) ? fact.spliceId : null,
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
