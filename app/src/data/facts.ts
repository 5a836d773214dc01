import { closureOf, knownFact, type Fact, type UnknownFact } from '@cordel/core';
import { queryOptions, useQueries, useQuery, useQueryClient, type QueryClient } from '@tanstack/react-query';
import { useCallback } from 'react';
import { answerOf, api } from './api';
import { keys } from './keys';
import { outbox } from './outbox';

/** What is known of a closure's facts. The list only ever grows at its end, so a ledger can be carried on from where it was. */
export interface KnownFacts {
  readonly facts: readonly Fact[];
  /** Written by a newer Cordel: kept, passed on, and counted by nobody here. */
  readonly unread: readonly UnknownFact[];
  /** The server's number of the last fact that came from it. */
  readonly last: number;
}

type AnyFact = Fact | UnknownFact;

/** A page of what the server has, from a number on. */
interface FactPage {
  readonly facts: readonly AnyFact[];
  readonly last: number;
  readonly more: boolean;
}

const nothing: KnownFacts = { facts: [], unread: [], last: 0 };

function factsOptions(client: QueryClient, projectId: string, closureId: string) {
  const queryKey = keys.facts(projectId, closureId);
  return queryOptions({
    queryKey,
    // Comparing thousands of facts one by one on every answer is what keeps a verdict waiting.
    structuralSharing: false,
    refetchInterval: 15_000,
    queryFn: async (): Promise<KnownFacts> => {
      let { last } = client.getQueryData<KnownFacts>(queryKey) ?? nothing;
      const came: AnyFact[] = [];
      for (let more = true; more;) {
        const page = await answerOf<FactPage>(
          api.projects[':projectId'].closures[':closureId'].facts.$get({
            param: { projectId, closureId },
            query: { after: String(last) },
          }) as never,
        );
        came.push(...page.facts);
        ({ last, more } = page);
      }
      const waiting = outbox
        .waiting()
        .map((entry) => entry.fact)
        .filter((fact) => closureOf(fact) === closureId);
      // Read again: a reading may have been entered while the answer was on its way.
      const before = client.getQueryData<KnownFacts>(queryKey) ?? nothing;
      const facts: Fact[] = [];
      const unread: UnknownFact[] = [];
      for (const raw of [...came, ...waiting]) {
        const fact = knownFact(raw);
        if (fact) facts.push(fact);
        else unread.push(raw);
      }
      return {
        facts: withNew(before.facts, facts),
        unread: withNew(before.unread, unread),
        last,
      };
    },
  });
}

export function useClosureFacts(projectId: string, closureId: string) {
  const client = useQueryClient();
  return useQuery(factsOptions(client, projectId, closureId));
}

/** The facts of several closures, in their order; null until all are there. */
export function useFactsOf(
  projectId: string,
  closureIds: readonly string[],
): { facts: readonly (readonly Fact[])[] | null; error: Error | null; retry: () => void } {
  const client = useQueryClient();
  return useQueries({
    queries: closureIds.map((closureId) => factsOptions(client, projectId, closureId)),
    combine,
  });
}

// Outside the hook, so that the same answers give the same object.
function combine(
  results: readonly { data: KnownFacts | undefined; error: Error | null; refetch: () => unknown }[],
) {
  const there = results.every((result) => result.data !== undefined);
  return {
    facts: there ? results.map((result) => result.data!.facts) : null,
    error: results.find((result) => result.error)?.error ?? null,
    retry: () => results.forEach((result) => void result.refetch()),
  };
}

/**
 * Records a fact: kept on this device first, then in sight, and on its way to the server. Returns the closure's facts with it; null where
 * the device could not keep it, so that nothing was recorded (every screen tells it).
 */
export function useRecordFact(projectId: string): (fact: Fact) => readonly Fact[] | null {
  const client = useQueryClient();
  return useCallback(
    (fact) => {
      const queryKey = keys.facts(projectId, fact.subject.closureId);
      const before = client.getQueryData<KnownFacts>(queryKey) ?? nothing;
      if (!outbox.add(projectId, fact)) return null;
      const facts = withNew(before.facts, [fact]);
      client.setQueryData<KnownFacts>(queryKey, { ...before, facts });
      return facts;
    },
    [client, projectId],
  );
}

/** The server will not take it: it counts in no sum any more, and waits for the person. */
export function leaveOut(client: QueryClient, projectId: string, fact: AnyFact): void {
  const closureId = closureOf(fact);
  if (closureId === null) return;
  client.setQueryData<KnownFacts>(
    keys.facts(projectId, closureId),
    (before) => before && { ...before, facts: before.facts.filter((one) => one.id !== fact.id) },
  );
}

function withNew<F extends AnyFact>(known: readonly F[], more: readonly F[]): readonly F[] {
  const ids = new Set(known.map((fact) => fact.id));
  const fresh = more.filter((fact) => !ids.has(fact.id) && ids.add(fact.id));
  return fresh.length === 0 ? known : [...known, ...fresh];
}
