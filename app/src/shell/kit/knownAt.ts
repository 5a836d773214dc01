import {
  fiberEndKey,
  measuredDiameters,
  needsSplicing,
  prepareState,
  type Closure,
  type Fact,
  type KitDone,
  type ProjectDefinition,
} from '@cordel/core';
import { endState } from '@cordel/core/prepare';
import { isSealed } from '@cordel/core/seal';
import { cablesOf, ledgerOf } from '../../data/ledger';

/**
 * What the facts of a closure say to its kit: the diameters that were measured, and what is done: its settled splices, the connectors that are on, the cables out of which
 * one was tried, which are open and sealed in, and whether it is closed.
 */
export function knownAt(
  definition: ProjectDefinition,
  closure: Closure,
  facts: readonly Fact[],
): { readonly done: KitDone; readonly diameters: ReadonlyMap<string, number> } {
  const state = prepareState(facts);
  const diameters = measuredDiameters(closure, state);
  const { trays, plan } = ledgerOf(definition, closure, facts);
  const states = trays.flatMap(({ splices }) => splices);
  const connected = plan.ends.filter(
    (end) => end.connector !== 'own' && ['on', 'passes'].includes(endState(end, state)),
  );
  const tried = states.filter(({ verdict }) => verdict.tries > 0);
  const done = {
    settled: new Set(states.filter((state) => !needsSplicing(state)).map(({ splice }) => splice.id)),
    connected: new Set(connected.map(fiberEndKey)),
    opened: new Set(
      [...tried.flatMap(({ splice }) => [...splice.left, ...splice.right]), ...connected].map(
        (end) => end.cableId,
      ),
    ),
    sealed: isSealed({ closure, plan, cables: cablesOf(definition), diameters, facts }),
  };
  return { done, diameters };
}
