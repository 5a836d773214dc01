import type { SpliceState } from '@cordel/core';
import { startTransition, useEffect, useState } from 'react';
import { correctedNow } from '../../../data/clock';
import { localFacts, useGear, useServerBook } from '../../../data/gear';
import { isPicked, useTonight } from '../../../data/gearTonight';
import { cablesOf, type ClosureAtHand } from '../../../data/ledger';
import { engine } from '../../../sync/here';
import { gearBook, joinBooks, type Gear } from '@cordel/core/gear';
import { gearAtBench, type GearAtBench } from './gearAtBench';

export interface BenchGear {
  readonly list: readonly Gear[];
  /** Whether gear has to be picked first. */
  readonly pick: boolean;
  /** What is to be said about the gear that was picked; null while that is not known. */
  readonly atBench: GearAtBench | null;
}

const noGear: readonly Gear[] = [];

/** How long nothing must have changed before it is counted. ms */
const settleMs = 120;

/** The gear of the night at a splice. */
export function useGearAtBench({ definition, closure, facts }: ClosureAtHand, here: SpliceState): BenchGear {
  const gear = useGear().data;
  const tonight = useTonight();
  const picked = isPicked(tonight);
  const inUse = picked && (tonight.machine !== null || tonight.cleaver !== null);
  const server = useServerBook(inUse).data;
  const { limits } = definition.project;
  const { splice } = here;
  const [atBench, setAtBench] = useState<GearAtBench | null>(null);
  useEffect(() => {
    // A reading is painted before anybody counts splices.
    const timer = setTimeout(() => {
      if (!gear || !inUse || !server) {
        setAtBench(null);
        return;
      }
      const local = gearBook(
        localFacts(
          facts,
          engine()
            .log.waiting()
            .flatMap((entry) => entry.fact ?? []),
        ),
        limits,
      );
      const next = gearAtBench(
        gear,
        tonight,
        joinBooks(server.book, local),
        new Date(correctedNow()).toISOString(),
        closure,
        splice,
        cablesOf(definition),
      );
      // Whoever taps meanwhile goes first.
      startTransition(() => setAtBench(next));
    }, settleMs);
    return () => clearTimeout(timer);
  }, [gear, inUse, server, facts, limits, tonight, closure, splice, definition]);
  const list = gear ?? noGear;
  return { list, pick: !picked && list.length > 0, atBench };
}
