import {
  addFact,
  allFacts,
  buildLedger,
  closureOf,
  knownFact,
  planClosure,
  type ClosureLedger,
  type Fact,
  type Project,
  type RollUp,
} from '@cordel/core';
import { and, asc, eq, isNull } from 'drizzle-orm';
import type { Database } from './database/database';
import { breathe, factsAfter } from './factStore';
import { loadDefinition } from './projectStore';
import { lineProject } from './schema';

export interface ClosureProgress {
  readonly closureId: string;
  readonly rollUp: RollUp;
}

/** What the shelf says of a project. */
export interface ProjectSummary {
  readonly project: Project;
  readonly siteCount: number;
  readonly lengthMeters: number;
  readonly progress: readonly ClosureProgress[];
}

/** How far a project is changed: what its sums are made from. */
const position = { id: lineProject.id, revision: lineProject.revision, lastSeq: lineProject.lastSeq };
type Position = Pick<typeof lineProject.$inferSelect, keyof typeof position>;

interface Kept {
  /** What it was made from: of another revision or number it is made anew, or carried on. */
  readonly revision: number;
  readonly lastSeq: number;
  readonly summary: ProjectSummary;
  /** By closure; null where it was let go to save memory. */
  readonly ledgers: ReadonlyMap<string, ClosureLedger> | null;
  readonly facts: number;
}

/** Facts in the books that are held; beyond it those that were asked for longest ago are let go, and only their sums stay. */
const mostHeld = 60_000;
const slice = 500;

/**
 * How far each project is: sums that are kept, and carried on with what came since. Derived from plans and facts by the same functions as on every
 * device, and never stored. Each server keeps its own; what it was made from tells whether it still holds.
 */
export class ProgressBook {
  private readonly kept = new Map<string, Kept>();
  private readonly making = new Map<string, Promise<Kept | null>>();

  constructor(private readonly database: Database) {}

  /** Every project that is on the shelf, oldest first. */
  async shelf(): Promise<ProjectSummary[]> {
    const rows = await this.database.read
      .select(position)
      .from(lineProject)
      .where(and(isNull(lineProject.deletedAt), isNull(lineProject.importing)))
      .orderBy(asc(lineProject.createdAt), asc(lineProject.id));
    const summaries: ProjectSummary[] = [];
    for (const row of rows) {
      const kept = await this.current(row);
      // Gone from the shelf in this moment.
      if (kept) summaries.push(kept.summary);
    }
    const there = new Set(rows.map((row) => row.id));
    for (const id of this.kept.keys()) if (!there.has(id)) this.kept.delete(id);
    return summaries;
  }

  /** null where it is not on the shelf. */
  async project(id: string): Promise<ProjectSummary | null> {
    const [row] = await this.database.read
      .select(position)
      .from(lineProject)
      .where(and(eq(lineProject.id, id), isNull(lineProject.deletedAt), isNull(lineProject.importing)));
    return row ? ((await this.current(row))?.summary ?? null) : null;
  }

  private async current(row: Position): Promise<Kept | null> {
    for (;;) {
      const known = this.kept.get(row.id);
      if (known && known.revision >= row.revision && known.lastSeq >= row.lastSeq) return known;
      // Two who ask at once wait for the same work, and look whether it was begun late enough for them.
      const underWay = this.making.get(row.id);
      if (underWay) {
        await underWay.catch(() => undefined);
        continue;
      }
      const making = this.make(row, known).finally(() => this.making.delete(row.id));
      this.making.set(row.id, making);
      return making;
    }
  }

  private async make(row: Position, known: Kept | undefined): Promise<Kept | null> {
    const carriesOn = known?.ledgers && known.revision === row.revision;
    let ledgers: Map<string, ClosureLedger>;
    let lastSeq = carriesOn ? known.lastSeq : 0;
    let summary: Omit<ProjectSummary, 'progress'>;
    if (carriesOn) {
      ledgers = new Map(known.ledgers);
      summary = known.summary;
    } else {
      const definition = await loadDefinition(this.database.read, row.id);
      if (!definition) return null;
      const cables = new Map(definition.cables.map((cable) => [cable.id, cable]));
      const { limits } = definition.project;
      ledgers = new Map();
      for (const closure of definition.closures) {
        ledgers.set(closure.id, buildLedger(planClosure(closure, cables), [], limits));
        await breathe();
      }
      summary = {
        project: definition.project,
        siteCount: definition.sites.length,
        lengthMeters: definition.sites.reduce((most, site) => Math.max(most, site.chainage), 0),
      };
    }
    const fresh = new Map<string, Fact[]>();
    for (;;) {
      const rows = await factsAfter(this.database.read, row.id, lastSeq, slice);
      for (const { body } of rows) {
        const fact = knownFact(body);
        if (!fact) continue;
        const closureId = closureOf(fact);
        if (closureId === null) continue;
        const own = fresh.get(closureId);
        if (own) own.push(fact);
        else fresh.set(closureId, [fact]);
      }
      lastSeq = rows.at(-1)?.seq ?? lastSeq;
      if (rows.length < slice) break;
      await breathe();
    }
    for (const [closureId, facts] of fresh) {
      const ledger = ledgers.get(closureId);
      if (!ledger) continue;
      ledgers.set(
        closureId,
        facts.length < 50
          ? facts.reduce(addFact, ledger)
          : buildLedger(ledger.plan, [...allFacts(ledger), ...facts], ledger.limits),
      );
      await breathe();
    }
    const kept: Kept = {
      revision: row.revision,
      lastSeq,
      ledgers,
      facts: lastSeq,
      summary: {
        ...summary,
        progress: [...ledgers].map(([closureId, { rollUp }]) => ({ closureId, rollUp })),
      },
    };
    // Put at the end: the order of a map is that in which it was filled.
    this.kept.delete(row.id);
    this.kept.set(row.id, kept);
    this.letGo();
    return kept;
  }

  private letGo(): void {
    let held = 0;
    for (const [id, one] of [...this.kept].reverse()) {
      if (!one.ledgers) continue;
      held += one.facts;
      if (held > mostHeld) this.kept.set(id, { ...one, ledgers: null });
    }
  }
}
