import { knownFact, type Fact, type UnknownFact } from '@cordel/core';
import { Listeners } from './listeners';
import type { AnyFact } from './store';

/** What is known of a closure's facts. `facts` mostly grows at its end, so that a ledger can be carried on from where it was. */
export interface KnownFacts {
  readonly facts: readonly Fact[];
  /** Written by a newer Cordel: kept, passed on, and counted by nobody here. */
  readonly unread: readonly UnknownFact[];
}

const nothing: KnownFacts = { facts: [], unread: [] };

/** The facts of a closure that somebody looks at: those of the server as far as they were read, and those that are on their way. */
export class ClosureFacts {
  /** null until a whole state of the project is here. */
  known: KnownFacts | null = null;
  /** Up to this number of the server's everything was read from the disk. */
  seq = 0;
  /** Ends when what is being read of it from the disk is read. */
  reading: Promise<void> = Promise.resolve();
  private readonly ids = new Set<string>();
  private readonly listeners = new Listeners();
  readonly subscribe = this.listeners.subscribe;

  constructor(
    readonly projectId: string,
    readonly closureId: string,
  ) {}

  /** From now on they are shown. */
  begin(): void {
    if (this.known) return;
    this.known = nothing;
    this.listeners.tell();
  }

  add(raws: readonly unknown[]): void {
    if (!this.known) return;
    const facts: Fact[] = [];
    const unread: UnknownFact[] = [];
    for (const raw of raws as readonly AnyFact[]) {
      if (this.ids.has(raw.id)) continue;
      this.ids.add(raw.id);
      const fact = knownFact(raw);
      if (fact) facts.push(fact);
      else unread.push(raw);
    }
    if (facts.length + unread.length === 0) return;
    this.known = {
      facts: facts.length > 0 ? [...this.known.facts, ...facts] : this.known.facts,
      unread: unread.length > 0 ? [...this.known.unread, ...unread] : this.known.unread,
    };
    this.listeners.tell();
  }

  /** It is not on this device any more. */
  end(): void {
    this.known = null;
    this.seq = 0;
    this.ids.clear();
    this.listeners.tell();
  }

  /** They do not count any more. */
  leaveOut(ids: ReadonlySet<string>): void {
    const there = [...ids].filter((id) => this.ids.delete(id));
    if (!this.known || there.length === 0) return;
    const stays = (fact: AnyFact) => !ids.has(fact.id);
    this.known = { facts: this.known.facts.filter(stays), unread: this.known.unread.filter(stays) };
    this.listeners.tell();
  }
}
