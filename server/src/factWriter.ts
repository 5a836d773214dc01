import { factSchema, type Fact } from '@cordel/core';
import { eq } from 'drizzle-orm';
import type { Database, Queries } from './database';
import { factsById, insertFacts, type AcceptedFact } from './projectStore';
import { planClosure } from './schema';

export interface FactReceipt {
  readonly accepted: AcceptedFact[];
  /** Facts that were not stored, each with what to do about it. */
  readonly refused: { readonly id: string; readonly message: string }[];
}

interface Waiting {
  readonly projectId: string;
  readonly facts: readonly Fact[];
  readonly resolve: (receipt: FactReceipt) => void;
  readonly reject: (error: unknown) => void;
}

/**
 * Appends facts from many clients. While one transaction is on its way to the disk the next facts gather, and all that gathered go
 * in one transaction: the disk is waited for once per group, and nobody is answered before their own facts are on it.
 */
export class FactWriter {
  private waiting: Waiting[] = [];
  private writing = false;

  constructor(
    private readonly database: Database,
    private readonly now: () => Date,
  ) {}

  append(projectId: string, facts: readonly Fact[]): Promise<FactReceipt> {
    return new Promise((resolve, reject) => {
      this.waiting.push({ projectId, facts, resolve, reject });
      if (!this.writing) void this.drain();
    });
  }

  private async drain(): Promise<void> {
    this.writing = true;
    while (this.waiting.length > 0) {
      const group = this.waiting;
      this.waiting = [];
      try {
        const receipts = await this.database.write((db) => this.writeGroup(db, group));
        group.forEach((entry, index) => entry.resolve(receipts[index]!));
      } catch (error) {
        group.forEach((entry) => entry.reject(error));
      }
    }
    this.writing = false;
  }

  private async writeGroup(db: Queries, group: readonly Waiting[]): Promise<FactReceipt[]> {
    const receivedAt = this.now().toISOString();
    const closures = new Map<string, Set<string>>();
    for (const projectId of new Set(group.map((entry) => entry.projectId)))
      closures.set(projectId, await closureIds(db, projectId));

    for (const [projectId, known] of closures)
      await insertFacts(
        db,
        projectId,
        group
          .filter((entry) => entry.projectId === projectId)
          .flatMap((entry) => entry.facts)
          .filter((fact) => known.has(fact.closureId))
          .map((fact) => ({ fact, receivedAt })),
      );

    const stored = new Map(
      (
        await factsById(
          db,
          group.flatMap((entry) => entry.facts.map((fact) => fact.id)),
        )
      ).map((row) => [row.id, row]),
    );
    return group.map((entry) => {
      const receipt: FactReceipt = { accepted: [], refused: [] };
      for (const fact of entry.facts) {
        const row = stored.get(fact.id);
        if (!row || !closures.get(entry.projectId)!.has(fact.closureId))
          receipt.refused.push({
            id: fact.id,
            message: 'This project has no such closure on the server. It may have been deleted there.',
          });
        else if (!sameFact(row.body, fact))
          receipt.refused.push({
            id: fact.id,
            message: 'Another record already has this identifier. Enter the reading again.',
          });
        else
          receipt.accepted.push({
            id: fact.id,
            seq: row.seq,
            receivedAt: row.receivedAt.toISOString(),
          });
      }
      return receipt;
    });
  }
}

async function closureIds(db: Queries, projectId: string): Promise<Set<string>> {
  const rows = await db
    .select({ id: planClosure.id })
    .from(planClosure)
    .where(eq(planClosure.projectId, projectId));
  return new Set(rows.map((row) => row.id));
}

/** jsonb does not keep the order of fields; the schema restores it. */
function sameFact(a: Fact, b: Fact): boolean {
  return JSON.stringify(factSchema.parse(a)) === JSON.stringify(factSchema.parse(b));
}
