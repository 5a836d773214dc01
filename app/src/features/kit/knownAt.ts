import {
  isDone,
  measuredDiameters,
  needsSplicing,
  prepareState,
  tickTargets,
  type Closure,
  type Fact,
  type KitDone,
  type ProjectDefinition,
} from '@cordel/core';
import { ledgerOf } from '../../data/ledger';

/**
 * What the facts of a closure say to its kit: the diameters that were measured, and what is done: its settled splices, the cables out of which one was tried, which are
 * open and sealed in, and whether it is closed.
 */
export function knownAt(
  definition: ProjectDefinition,
  closure: Closure,
  facts: readonly Fact[],
): { readonly done: KitDone; readonly diameters: ReadonlyMap<string, number> } {
  const state = prepareState(facts);
  const states = ledgerOf(definition, closure, facts).trays.flatMap(({ splices }) => splices);
  const tried = states.filter(({ verdict }) => verdict.tries > 0);
  const done = {
    settled: new Set(states.filter((state) => !needsSplicing(state)).map(({ splice }) => splice.id)),
    opened: new Set(
      tried.flatMap(({ splice }) => [...splice.left, ...splice.right].map((end) => end.cableId)),
    ),
    sealed: isDone(state, tickTargets.sealed),
  };
  return { done, diameters: measuredDiameters(closure, state) };
}
