import type { ProjectDefinition, StoredFact } from '@cordel/core';
import { and, eq, inArray, isNotNull, lt, sql } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { sqlState, type Database } from '../database/database';
import { documentProblem } from '../documentText';
import { breathe, factsById, insertFacts } from '../factStore';
import { refuse } from '../problem';
import { insertDefinition } from '../projectStore';
import { fact, lineProject } from '../schema';
import { refuseTaken, taken } from '../taken';
import { ImportThread } from './importThread';

/** How far an import is; `of` is 0 while the file is being read. */
export interface ImportProgress {
  readonly done: number;
  readonly of: number;
}

/** An import that was not heard of for so long is dead, whoever made it. */
const deadAfter = '2 minutes';

/**
 * Hands a file that comes in to the import's own thread, piece by piece: to put a large one together here would keep everybody waiting. All of it is read
 * before anything is answered: a server that answers while a body still comes may have its connection cut.
 */
export async function receiveFile(body: ReadableStream<Uint8Array> | null): Promise<ImportThread> {
  const thread = new ImportThread();
  try {
    const reader = body?.getReader();
    for (let part = await reader?.read(); part && !part.done; part = await reader!.read())
      thread.tell({ kind: 'bytes', bytes: part.value });
    return thread;
  } catch (error) {
    thread.end();
    throw error;
  }
}

/**
 * Takes a project file onto the shelf, all or nothing: its parts are stored in small transactions under a project that nobody sees, and the last one shows it. So
 * others are served meanwhile. Ends the request with what is wrong with the file, or what is here already.
 * @param thread has the file, by `receiveFile`; it is ended here
 */
export async function importProject(
  database: Database,
  thread: ImportThread,
  now: number | null,
  onProgress: (progress: ImportProgress) => void,
): Promise<{ id: string; name: string }> {
  const token = randomUUID();
  let begun: string | null = null;
  try {
    onProgress({ done: 0, of: 0 });
    const read = await thread.ask({ kind: 'read', now });
    if (read.kind === 'wrong') return refuse(documentProblem(read.problems, read.count));
    if (read.kind !== 'read') throw new Error('The import worker answered out of turn.');
    const { definition, facts: of } = read;
    await begin(database, definition, token);
    begun = definition.project.id;
    for (let done = 0; done < of;) {
      onProgress({ done, of });
      const part = await thread.ask({ kind: 'next' });
      if (part.kind !== 'slice') throw new Error('The import worker answered out of turn.');
      await storeSlice(database, begun, token, part.facts, done);
      done += part.facts.length;
      await breathe();
    }
    await show(database, begun, token, of);
    onProgress({ done: of, of });
    return { id: definition.project.id, name: definition.project.name };
  } catch (error) {
    if (begun !== null) await discard(database, begun, token);
    throw error;
  } finally {
    thread.end();
  }
}

async function begin(database: Database, definition: ProjectDefinition, token: string): Promise<void> {
  try {
    await database.write(async (db) => {
      await refuseTaken(db, definition.project.id);
      await insertDefinition(db, definition, token);
    });
  } catch (error) {
    if (sqlState(error) === '23505') refuse(taken);
    throw error;
  }
}

async function storeSlice(
  database: Database,
  projectId: string,
  token: string,
  facts: readonly StoredFact[],
  after: number,
): Promise<void> {
  try {
    await database.write(async (db) => {
      const [held] = await db
        .update(lineProject)
        .set({ importingAt: sql`now()` })
        .where(and(eq(lineProject.id, projectId), eq(lineProject.importing, token)))
        .returning({ id: lineProject.id });
      if (!held) throw new Error('The import was taken for dead and cleared away.');
      await insertFacts(db, projectId, facts, after);
    });
  } catch (error) {
    if (sqlState(error) !== '23505') throw error;
    const known = await factsById(
      database.read,
      facts.map(({ fact: one }) => one.id),
    );
    const [project] = known[0]
      ? await database.read
          .select({ name: lineProject.name })
          .from(lineProject)
          .where(eq(lineProject.id, known[0].projectId))
      : [];
    refuse({
      title: 'Records are here already',
      status: 409,
      detail: `Records of this file belong to another project here${project ? `, “${project.name}”` : ''} (the first is ${known[0]?.id ?? 'not known any more'}). The file was made from a copy of it. Nothing was changed.`,
    });
  }
}

async function show(database: Database, projectId: string, token: string, lastSeq: number): Promise<void> {
  const shown = await database.write((db) =>
    db
      .update(lineProject)
      .set({ importing: null, importingAt: null, lastSeq, shownTx: sql`pg_current_xact_id()::text::bigint` })
      .where(and(eq(lineProject.id, projectId), eq(lineProject.importing, token)))
      .returning({ id: lineProject.id }),
  );
  if (shown.length === 0) throw new Error('The import was taken for dead and cleared away.');
}

/** Takes away what an import stored, a slice at a time. */
async function discard(database: Database, projectId: string, token: string): Promise<void> {
  for (;;) {
    const gone = await database.write((db) =>
      db
        .delete(fact)
        .where(
          inArray(
            fact.id,
            db
              .select({ id: fact.id })
              .from(fact)
              .innerJoin(lineProject, eq(lineProject.id, fact.projectId))
              .where(and(eq(lineProject.id, projectId), eq(lineProject.importing, token)))
              .limit(1000),
          ),
        )
        .returning({ id: fact.id }),
    );
    if (gone.length === 0) break;
    await breathe();
  }
  await database.write((db) =>
    db.delete(lineProject).where(and(eq(lineProject.id, projectId), eq(lineProject.importing, token))),
  );
}

/** Clears away imports that were cut short. An embedded database has no other server whose import could still be going on. */
export async function clearDeadImports(database: Database): Promise<void> {
  const dead = await database.read
    .select({ id: lineProject.id, token: lineProject.importing })
    .from(lineProject)
    .where(
      database.kind === 'embedded'
        ? isNotNull(lineProject.importing)
        : and(
            isNotNull(lineProject.importing),
            lt(lineProject.importingAt, sql`now() - ${sql.raw(`interval '${deadAfter}'`)}`),
          ),
    );
  for (const { id, token } of dead) await discard(database, id, token!);
}
