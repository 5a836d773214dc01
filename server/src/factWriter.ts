import { closureOf, factTimeTrouble, readFact, sameFact } from '@cordel/core';
import { and, asc, eq, inArray, isNull } from 'drizzle-orm';
import type { Clock } from './clock';
import { sqlState, type Database, type Queries } from './database/database';
import { factsById, insertFacts, type AnyFact } from './factStore';
import { lineProject, planClosure } from './schema';

export interface FactReceipt {
  readonly accepted: { readonly id: string; readonly seq: number; readonly receivedAt: string }[];
  /** Facts that were not stored, each with what to do about it. `id` is "" where it had none that can be read. */
  readonly refused: {
    readonly id: string;
    /** The field that is wrong, where it is one: "body.readings.0.loss". */
    readonly path?: string;
    readonly message: string;
  }[];
}

interface Waiting {
  readonly projectId: string;
  readonly facts: readonly AnyFact[];
  readonly receipt: FactReceipt;
  readonly resolve: (receipt: FactReceipt) => void;
  readonly reject: (error: unknown) => void;
}

/** Facts in one transaction, so that nobody waits long for those before. */
const mostInGroup = 2000;

/**
 * Appends facts from many clients. While one transaction is on its way to the disk the next facts gather, and all that gathered go
 * in one transaction: the disk is waited for once per group, and nobody is answered before their own facts are on it.
 * What one of them gets wrong is its own: the others are stored.
 */
export class FactWriter {
  private waiting: Waiting[] = [];
  private writing = false;

  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
  ) {}

  /** @param facts as they came: of any age, and with any mistake */
  append(projectId: string, facts: readonly unknown[]): Promise<FactReceipt> {
    const receipt: FactReceipt = { accepted: [], refused: [] };
    const sound: AnyFact[] = [];
    const now = this.clock.trusted();
    for (const raw of facts) {
      const read = readFact(raw);
      if (read.status === 'wrong') {
        receipt.refused.push({ id: idOf(raw), path: read.path.map(String).join('.'), message: read.message });
        continue;
      }
      const message = factTimeTrouble(read.fact, now);
      if (message === null) sound.push(read.fact);
      else receipt.refused.push({ id: read.fact.id, path: 'madeAt', message });
    }
    if (sound.length === 0) return Promise.resolve(receipt);
    return new Promise((resolve, reject) => {
      this.waiting.push({ projectId, facts: sound, receipt, resolve, reject });
      if (!this.writing) void this.drain();
    });
  }

  private async drain(): Promise<void> {
    this.writing = true;
    while (this.waiting.length > 0) {
      const group = this.nextGroup();
      try {
        await this.store(group);
        group.forEach((entry) => entry.resolve(entry.receipt));
      } catch (error) {
        if (group.length === 1 && group[0]!.facts.length === 1) this.giveUp(group[0]!, error);
        else await this.oneByOne(group);
      }
    }
    this.writing = false;
  }

  private nextGroup(): Waiting[] {
    let count = 0;
    const fits = this.waiting.findIndex(({ facts }) => (count += facts.length) > mostInGroup);
    return this.waiting.splice(0, fits < 0 ? this.waiting.length : Math.max(1, fits));
  }

  /** A group that failed is stored fact by fact, so that the one that cannot be stored is told and nobody else's waits for it. */
  private async oneByOne(group: readonly Waiting[]): Promise<void> {
    for (const entry of group) {
      try {
        for (const fact of entry.facts) {
          const single = { ...entry, facts: [fact] };
          try {
            await this.store([single]);
          } catch (error) {
            if (!isOfTheFact(error)) throw error;
            entry.receipt.refused.push({ id: fact.id, message: cannotBeStored });
          }
        }
        entry.resolve(entry.receipt);
      } catch (error) {
        entry.reject(error);
      }
    }
  }

  private giveUp(entry: Waiting, error: unknown): void {
    if (!isOfTheFact(error)) return entry.reject(error);
    entry.receipt.refused.push({ id: entry.facts[0]!.id, message: cannotBeStored });
    entry.resolve(entry.receipt);
  }

  private async store(group: readonly Waiting[]): Promise<void> {
    const outcomes = await this.database.write((db) => this.writeGroup(db, group));
    // Only now is it on the disk.
    outcomes.forEach(({ accepted, refused }, index) => {
      group[index]!.receipt.accepted.push(...accepted);
      group[index]!.receipt.refused.push(...refused);
    });
  }

  private async writeGroup(db: Queries, group: readonly Waiting[]): Promise<FactReceipt[]> {
    const receivedAt = this.clock.now().toISOString();
    const projectIds = [...new Set(group.map((entry) => entry.projectId))];
    // In the order of their ids, so that two servers never wait for each other.
    const projects = await db
      .select({ id: lineProject.id, lastSeq: lineProject.lastSeq })
      .from(lineProject)
      .where(and(inArray(lineProject.id, projectIds), isNull(lineProject.importing)))
      .orderBy(asc(lineProject.id))
      .for('update');
    const closures = await closuresOf(
      db,
      projects.map(({ id }) => id),
    );
    const ids = group.flatMap((entry) => entry.facts.map((fact) => fact.id));
    const known = new Map((await factsById(db, ids)).map((row) => [row.id, row]));

    for (const { id, lastSeq } of projects) {
      const fresh = new Map<string, AnyFact>();
      for (const entry of group)
        if (entry.projectId === id)
          for (const fact of entry.facts)
            if (!known.has(fact.id) && !fresh.has(fact.id) && belongs(fact, closures.get(id)))
              fresh.set(fact.id, fact);
      if (fresh.size === 0) continue;
      const facts = [...fresh.values()];
      const last = await insertFacts(
        db,
        id,
        facts.map((fact) => ({ fact, receivedAt })),
        lastSeq,
      );
      await db.update(lineProject).set({ lastSeq: last }).where(eq(lineProject.id, id));
      facts.forEach((body, index) =>
        known.set(body.id, {
          id: body.id,
          projectId: id,
          seq: lastSeq + 1 + index,
          body,
          receivedAt: new Date(receivedAt),
        }),
      );
    }

    return group.map(({ projectId, facts }) => {
      const receipt: FactReceipt = { accepted: [], refused: [] };
      for (const fact of facts) {
        const row = known.get(fact.id);
        if (!belongs(fact, closures.get(projectId)))
          receipt.refused.push({
            id: fact.id,
            message: 'This project has no such closure on the server. It may have been deleted there.',
          });
        else if (!row || row.projectId !== projectId || !sameFact(row.body, fact))
          receipt.refused.push({
            id: fact.id,
            message: 'Another record already has this identifier. Enter the reading again.',
          });
        else receipt.accepted.push({ id: fact.id, seq: row.seq, receivedAt: row.receivedAt.toISOString() });
      }
      return receipt;
    });
  }
}

const cannotBeStored = 'The database cannot store this record. Enter it again, and report it with its text.';

/** Whether the database refused what is in the fact (a bad value, a broken rule), and not because it is away or full. */
function isOfTheFact(error: unknown): boolean {
  return /^2[123]/.test(sqlState(error) ?? '');
}

function belongs(fact: AnyFact, closures: ReadonlySet<string> | undefined): boolean {
  const closureId = closureOf(fact);
  return closures !== undefined && (closureId === null || closures.has(closureId));
}

function idOf(raw: unknown): string {
  const { id } = (raw ?? {}) as { id?: unknown };
  return typeof id === 'string' ? id.slice(0, 100) : '';
}

async function closuresOf(db: Queries, projectIds: readonly string[]): Promise<Map<string, Set<string>>> {
  const sets = new Map(projectIds.map((id) => [id, new Set<string>()]));
  if (projectIds.length > 0)
    for (const row of await db
      .select({ id: planClosure.id, projectId: planClosure.projectId })
      .from(planClosure)
      .where(inArray(planClosure.projectId, [...projectIds])))
      sets.get(row.projectId)!.add(row.id);
  return sets;
}
