import { closureOf, concernsGear, knownFact, type StoredFact } from '@cordel/core';
import { and, asc, eq, gt, inArray, sql } from 'drizzle-orm';
import type { Queries } from './database/database';
import { rowsOf } from './database/migrate';
import { fact } from './schema';

export type AnyFact = StoredFact['fact'];

/** What a row says of a fact beside where it stands. */
function columnsOf(body: AnyFact) {
  const known = knownFact(body);
  return {
    id: body.id,
    closureId: closureOf(body),
    kind: body.kind,
    v: body.v,
    body,
    understood: known !== null,
    concernsGear: known !== null && concernsGear(known),
  };
}

/** PostgreSQL takes at most 65 535 parameters in a statement; a fact has nine. And no statement keeps the others waiting for long. */
const rowsPerInsert = 500;

/**
 * Appends facts under numbers from `after` + 1 on. Run it under the lock of the project's row, with what `after` was there; store the number that it returns.
 * Rejects when an id is taken.
 */
export async function insertFacts(
  db: Queries,
  projectId: string,
  facts: readonly StoredFact[],
  after: number,
): Promise<number> {
  let seq = after;
  for (let start = 0; start < facts.length; start += rowsPerInsert)
    await db.insert(fact).values(
      facts.slice(start, start + rowsPerInsert).map(({ fact: one, receivedAt }) => {
        seq += 1;
        return { ...columnsOf(one), projectId, seq, receivedAt: new Date(receivedAt) };
      }),
    );
  return seq;
}

/**
 * Appends those of these facts whose ids are not there yet and whose closure, where they have one, is the project's: in one call of a function of the database
 * (migration append_facts), under the numbers after the project's last, which it takes under the lock of the project's row. Returns what was appended. Rejects with 23505 where another server stored one of
 * them in the meantime: then it is there, and a second call leaves it out.
 */
export async function appendFacts(
  db: Queries,
  projectId: string,
  facts: readonly AnyFact[],
  receivedAt: Date,
): Promise<{ id: string; seq: number }[]> {
  if (facts.length === 0) return [];
  const rows = facts.map((one, place) => ({ place, ...columnsOf(one) }));
  const result = await db.execute(sql`
    select fact_id as id, fact_seq as seq
    from append_facts(${projectId}, ${JSON.stringify(rows)}::jsonb, ${receivedAt.toISOString()}::timestamptz)`);
  return rowsOf(result).map((row) => ({ id: String(row.id), seq: Number(row.seq) }));
}

/** Facts of a project after a number, in their order, at most `limit`. */
export async function factsAfter(db: Queries, projectId: string, after: number, limit: number) {
  return db
    .select({ seq: fact.seq, body: fact.body, receivedAt: fact.receivedAt })
    .from(fact)
    .where(and(eq(fact.projectId, projectId), gt(fact.seq, after)))
    .orderBy(asc(fact.seq))
    .limit(limit);
}

/** All facts of a project with the time the server took them, read in slices so that others are served between them. */
export async function loadFacts(db: Queries, projectId: string): Promise<StoredFact[]> {
  const all: StoredFact[] = [];
  for (let after = 0; ;) {
    const rows = await factsAfter(db, projectId, after, 1000);
    for (const { body, receivedAt } of rows) all.push({ fact: body, receivedAt: receivedAt.toISOString() });
    if (rows.length < 1000) return all;
    after = rows.at(-1)!.seq;
    await breathe();
  }
}

/** Lets others have their turn. */
export function breathe(): Promise<void> {
  return new Promise((done) => setImmediate(done));
}

/** The stored facts of these ids. */
export async function factsById(db: Queries, ids: readonly string[]) {
  return ids.length === 0
    ? []
    : db
        .select({
          id: fact.id,
          projectId: fact.projectId,
          seq: fact.seq,
          body: fact.body,
          receivedAt: fact.receivedAt,
        })
        .from(fact)
        .where(inArray(fact.id, [...ids]));
}
