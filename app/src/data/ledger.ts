import {
  addFact,
  buildLedger,
  planClosure,
  planClosureInSteps,
  type Cable,
  type Closure,
  type ClosureLedger,
  type ClosurePlan,
  type Fact,
  type Limits,
  type ProjectDefinition,
} from '@cordel/core';
import { startTransition, useEffect, useMemo, useReducer } from 'react';
import { useClosureFacts, useEdits, useEntries, useFactsOf } from '../sync/react';
import { useProgress, useProject } from './projects';

const cableMaps = new WeakMap<readonly Cable[], ReadonlyMap<string, Cable>>();

/** A project's cables by id. */
export function cablesOf(definition: ProjectDefinition): ReadonlyMap<string, Cable> {
  const known = cableMaps.get(definition.cables);
  if (known) return known;
  const map = new Map(definition.cables.map((cable) => [cable.id, cable]));
  cableMaps.set(definition.cables, map);
  return map;
}

// A closure is replaced, never changed in place, so its plan stays true as long as the object is there.
const plans = new WeakMap<Closure, { cables: ReadonlyMap<string, Cable>; plan: ClosurePlan }>();

/** A closure's plan, made once. */
export function planOf(closure: Closure, definition: ProjectDefinition): ClosurePlan {
  const cables = cablesOf(definition);
  const known = plans.get(closure);
  if (known?.cables === cables) return known.plan;
  const plan = planClosure(closure, cables);
  plans.set(closure, { cables, plan });
  return plan;
}

interface KeptLedger {
  readonly limits: Limits;
  readonly facts: readonly Fact[];
  readonly ledger: ClosureLedger;
}
const ledgers = new WeakMap<ClosurePlan, KeptLedger>();

/** The ledger of a closure. When facts were only added since the last call, it carries on from there instead of judging all anew. */
export function ledgerOf(
  definition: ProjectDefinition,
  closure: Closure,
  facts: readonly Fact[],
): ClosureLedger {
  const plan = planOf(closure, definition);
  const { limits } = definition.project;
  const kept = ledgers.get(plan);
  if (kept?.limits === limits && kept.facts === facts) return kept.ledger;
  const ledger =
    kept?.limits === limits && continues(facts, kept.facts)
      ? facts.slice(kept.facts.length).reduce(addFact, kept.ledger)
      : buildLedger(plan, facts, limits);
  ledgers.set(plan, { limits, facts, ledger });
  return ledger;
}

/** Whether `facts` is `before` with a few more at its end. */
function continues(facts: readonly Fact[], before: readonly Fact[]): boolean {
  const added = facts.length - before.length;
  return added >= 0 && added < 50 && before.length > 0 && facts[before.length - 1] === before.at(-1);
}

/** From this many splices on, a closure that was not opened yet is worked out in steps, so that no frame waits for all of it. */
const inSteps = 1500;

/** false while a large closure is being worked out. What was worked out is kept, so it is only the first time. */
function useStaged(
  definition: ProjectDefinition | undefined,
  closure: Closure | undefined,
  facts: readonly Fact[] | undefined,
): boolean {
  const [, again] = useReducer((count: number) => count + 1, 0);
  const wanting =
    definition !== undefined &&
    closure !== undefined &&
    facts !== undefined &&
    plans.get(closure)?.cables !== cablesOf(definition) &&
    closure.order.reduce((sum, { left }) => sum + left.to - left.from + 1, 0) >= inSteps;
  useEffect(() => {
    if (!wanting) return;
    const cables = cablesOf(definition);
    const steps = planClosureInSteps(closure, cables);
    const step = () => {
      const { done, value } = steps.next();
      if (done) plans.set(closure, { cables, plan: value });
      timer = setTimeout(done ? judge : step);
    };
    const judge = () => {
      ledgerOf(definition, closure, facts);
      startTransition(again);
    };
    let timer = setTimeout(step);
    return () => clearTimeout(timer);
  }, [wanting, definition, closure, facts]);
  return !wanting;
}

export interface ClosureAtHand {
  readonly definition: ProjectDefinition;
  readonly closure: Closure;
  readonly ledger: ClosureLedger;
  readonly facts: readonly Fact[];
}

/** A closure with its project and its ledger, or why it is not there yet. */
export function useClosure(projectId: string, closureId: string) {
  const project = useProject(projectId);
  const known = useClosureFacts(projectId, closureId);
  const definition = project.data;
  const facts = known.data?.facts;
  const closure = definition?.closures.find((candidate) => candidate.id === closureId);
  const ready = useStaged(definition, closure, facts);
  const atHand = useMemo((): ClosureAtHand | null => {
    if (!ready || !definition || !closure || !facts) return null;
    return { definition, closure, facts, ledger: ledgerOf(definition, closure, facts) };
  }, [ready, definition, closure, facts]);
  // A closure that is at hand stays usable when a later refresh fails: nothing at the bench waits for the network.
  const error = atHand
    ? null
    : (project.error ??
      known.error ??
      (definition && !definition.closures.some((one) => one.id === closureId)
        ? new Error('This project has no such closure. It may have been deleted.')
        : null));
  return {
    atHand,
    error,
    retry: () => {
      void project.refetch();
      void known.refetch();
    },
  };
}

/** The ledgers of all closures of a project by closure; null until the facts of all are there. */
export function useLedgers(definition: ProjectDefinition): {
  ledgers: ReadonlyMap<string, ClosureLedger> | null;
  error: Error | null;
  retry: () => void;
} {
  const { facts, error, retry } = useFactsOf(
    definition.project.id,
    definition.closures.map((closure) => closure.id),
  );
  const ledgers = useMemo(
    () =>
      facts &&
      new Map(
        definition.closures.map((closure, index) => [
          closure.id,
          ledgerOf(definition, closure, facts[index]!),
        ]),
      ),
    [definition, facts],
  );
  return { ledgers, error: ledgers ? null : error, retry };
}

/** How far each closure is: as the server counts, and from what is on this device while it has something that the server has not. */
export function useProgressOf(definition: ProjectDefinition) {
  const { id } = definition.project;
  const ofServer = useProgress(id);
  const entries = useEntries().some((entry) => entry.projectId === id && entry.refused === null);
  const waiting = useEdits(id).length > 0 || entries;
  const counted = useMemo(
    () => (waiting ? definition : { ...definition, closures: [] }),
    [waiting, definition],
  );
  const { ledgers } = useLedgers(counted);
  const here = useMemo(
    () =>
      waiting && ledgers
        ? definition.closures.flatMap((closure) => {
            const rollUp = ledgers.get(closure.id)?.rollUp;
            return rollUp ? [{ closureId: closure.id, rollUp }] : [];
          })
        : null,
    [waiting, ledgers, definition],
  );
  return { data: here ?? ofServer.data, error: ofServer.error, refetch: ofServer.refetch };
}
