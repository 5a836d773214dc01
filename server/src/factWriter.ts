import { closureOf, factTimeTrouble, readFact, sameFact } from '@cordel/core';
import { eq } from 'drizzle-orm';
import type { Clock } from './clock';
import { sqlState, type Database } from './database/database';
import { appendFacts, breathe, factsById, type AnyFact } from './factStore';
import { planClosure } from './schema';

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
  readonly facts: readonly AnyFact[];
  readonly receipt: FactReceipt;
  readonly resolve: (receipt: FactReceipt) => void;
  readonly reject: (error: unknown) => void;
}

/** Facts in one statement, so that nobody waits long for those before. */
const mostInGroup = 2000;

/**
 * Appends facts from many clients. While one statement is on its way to the disk the next facts gather, and all of a project that gathered go
 * in one: the disk is waited for once per group, and nobody is answered before their own facts are on it.
 * What one of them gets wrong is its own: the others are stored.
 */
export class FactWriter {
  /** What waits, by project; a project that is here is being written. */
  private readonly waiting = new Map<string, Waiting[]>();

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
      const entry = { facts: sound, receipt, resolve, reject };
      const others = this.waiting.get(projectId);
      if (others) others.push(entry);
      else {
        this.waiting.set(projectId, [entry]);
        void this.drain(projectId);
      }
    });
  }

  private async drain(projectId: string): Promise<void> {
    const waiting = this.waiting.get(projectId)!;
    while (waiting.length > 0) {
      // What came while the last statement ran, and lies at the door, goes along.
      for (let before = 0; before < waiting.length; await breathe()) before = waiting.length;
      const group = nextGroup(waiting);
      try {
        await this.store(projectId, group);
        group.forEach((entry) => entry.resolve(entry.receipt));
      } catch (error) {
        if (group.length === 1 && group[0]!.facts.length === 1) giveUp(group[0]!, error);
        else await this.oneByOne(projectId, group);
      }
    }
    this.waiting.delete(projectId);
  }

  /** A group that failed is stored fact by fact, so that the one that cannot be stored is told and nobody else's waits for it. */
  private async oneByOne(projectId: string, group: readonly Waiting[]): Promise<void> {
    for (const entry of group) {
      try {
        for (const fact of entry.facts) {
          try {
            await this.store(projectId, [{ ...entry, facts: [fact] }]);
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

  private async store(projectId: string, group: readonly Waiting[]): Promise<void> {
    const receivedAt = this.clock.now();
    const facts = [...new Map(group.flatMap((entry) => entry.facts.map((one) => [one.id, one]))).values()];
    const stored = new Map<string, Stored>();
    const append = () => this.database.writeOne((db) => appendFacts(db, projectId, facts, receivedAt));
    const appended = await append().catch((error: unknown) => {
      // Another server stored one of them in the meantime: it is there now, and left out.
      if (sqlState(error) === '23505') return append();
      throw error;
    });
    // Only now they are on the disk.
    for (const { id, seq } of appended) stored.set(id, { projectId, seq, receivedAt, body: null });
    const others = facts.filter((one) => !stored.has(one.id));
    const closures = await this.lookUp(projectId, others, stored);
    for (const { facts: sent, receipt } of group)
      for (const one of sent) tell(one, projectId, stored.get(one.id), closures, receipt);
  }

  /**
   * Why some were not appended, which is rare: they are there already, as a phone sends again that did not hear the answer; or they belong to no closure
   * of the project. Adds those that are there to `stored`; gives the project's closures, null where nothing had to be looked up.
   */
  private async lookUp(
    projectId: string,
    facts: readonly AnyFact[],
    stored: Map<string, Stored>,
  ): Promise<ReadonlySet<string> | null> {
    if (facts.length === 0) return null;
    for (const row of await factsById(
      this.database.read,
      facts.map((one) => one.id),
    ))
      stored.set(row.id, row);
    const rows = await this.database.read
      .select({ id: planClosure.id })
      .from(planClosure)
      .where(eq(planClosure.projectId, projectId));
    return new Set(rows.map((row) => row.id));
  }
}

interface Stored {
  readonly projectId: string;
  readonly seq: number;
  readonly receivedAt: Date;
  /** null: stored just now, as it came. */
  readonly body: AnyFact | null;
}

/** Writes down what became of a fact. */
function tell(
  fact: AnyFact,
  projectId: string,
  row: Stored | undefined,
  closures: ReadonlySet<string> | null,
  receipt: FactReceipt,
): void {
  const closureId = closureOf(fact);
  if (row && row.projectId === projectId && (row.body === null || sameFact(row.body, fact)))
    receipt.accepted.push({ id: fact.id, seq: row.seq, receivedAt: row.receivedAt.toISOString() });
  else
    receipt.refused.push({
      id: fact.id,
      message:
        row && (closureId === null || closures?.has(closureId))
          ? 'Another record already has this identifier. Enter the reading again.'
          : 'This project has no such closure on the server. It may have been deleted there.',
    });
}

/** The oldest that wait, as many as go together. */
function nextGroup(waiting: Waiting[]): Waiting[] {
  let count = 0;
  const fits = waiting.findIndex(({ facts }) => (count += facts.length) > mostInGroup);
  return waiting.splice(0, fits < 0 ? waiting.length : Math.max(1, fits));
}

/** A single fact that could not be stored: refused where that is its own fault. */
function giveUp(entry: Waiting, error: unknown): void {
  if (!isOfTheFact(error)) return entry.reject(error);
  entry.receipt.refused.push({ id: entry.facts[0]!.id, message: cannotBeStored });
  entry.resolve(entry.receipt);
}

const cannotBeStored = 'The database cannot store this record. Enter it again, and report it with its text.';

/** Whether the database refused what is in the fact (a bad value, a broken rule), and not because it is away or full. */
function isOfTheFact(error: unknown): boolean {
  return /^2[123]/.test(sqlState(error) ?? '');
}

function idOf(raw: unknown): string {
  const { id } = (raw ?? {}) as { id?: unknown };
  return typeof id === 'string' ? id.slice(0, 100) : '';
}
