import {
  alongTheRoute,
  isGearFact,
  measuredDiameters,
  prepareState,
  siteOf,
  type Closure,
  type ClosureLedger,
  type Fact,
  type ProjectDefinition,
  type Site,
} from '@cordel/core';
import { passedOverBook } from '@cordel/core/gear';
import { readyLines, type ReadyLine } from '@cordel/core/ready';
import { sealStage, type SealStage } from '@cordel/core/seal';
import { useMemo } from 'react';
import { useServerBook } from '../../data/gear';
import { cablesOf, useLedgers } from '../../data/ledger';
import { useFactsOf } from '../../sync/react';

/** A closure with all that is on record of it, and what stands against its acceptance. */
export interface ClosureBook {
  readonly closure: Closure;
  readonly site: Site;
  readonly ledger: ClosureLedger;
  readonly facts: readonly Fact[];
  readonly seal: SealStage;
  readonly ready: readonly ReadyLine[];
}

export interface HandoverGiven {
  readonly definition: ProjectDefinition;
  /** In the order of the cord. */
  readonly books: readonly ClosureBook[];
  /** The closure that is looked at; all where it is undefined. */
  readonly closureId: string | undefined;
}

/** Every closure of a project with its records, from what is on this device; null until all are there. */
export function useBooks(definition: ProjectDefinition): {
  books: readonly ClosureBook[] | null;
  error: Error | null;
  retry: () => void;
} {
  const { ledgers, error, retry } = useLedgers(definition);
  const { facts, unread } = useFactsOf(
    definition.project.id,
    definition.closures.map(({ id }) => id),
  );
  const server = useServerBook(true).data;
  const books = useMemo(() => {
    if (!ledgers || !facts || !unread) return null;
    const cables = cablesOf(definition);
    const gear = new Map(
      [...(server?.book.facts ?? []), ...facts.flat()].filter(isGearFact).map((fact) => [fact.id, fact]),
    );
    const book = passedOverBook(gear.values());
    const { limits } = definition.project;
    return alongTheRoute(
      definition.sites,
      definition.closures.map((closure, index): ClosureBook => {
        const own = facts[index]!;
        const ledger = ledgers.get(closure.id)!;
        const seal = sealStage({
          closure,
          cables,
          plan: ledger.plan,
          facts: own,
          diameters: measuredDiameters(closure, prepareState(own)),
        });
        return {
          closure,
          site: siteOf(definition.sites, closure.siteId),
          ledger,
          facts: own,
          seal,
          ready: readyLines({ ledger, facts: own, seal, book, limits, unread: unread[index]! }),
        };
      }),
    );
  }, [definition, ledgers, facts, unread, server]);
  return { books, error, retry };
}
