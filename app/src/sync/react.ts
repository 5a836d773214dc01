import type { Fact } from '@cordel/core';
import { useCallback, useEffect, useMemo, useRef, useSyncExternalStore } from 'react';
import type { StoredEdit } from './editList';
import type { KnownFacts } from './closureFacts';
import { engine } from './here';
import type { Entry } from './read';
import type { Sending } from './push';
import type { Trouble } from './log';
import type { Reach } from './store';

/** What the screens see of the facts on this device. */

/** Everything that was recorded here and is not confirmed, in order of entering. */
export function useEntries(): readonly Entry[] {
  return useSyncExternalStore(engine().log.subscribe, engine().log.entries);
}

/** Every edit of a document that was made on this device and is not confirmed. */
export function useAllEdits(): readonly StoredEdit[] {
  return useSyncExternalStore(engine().edits.subscribe, engine().edits.all);
}

/** Whether it is known what of this device's edits waits: before that no document is shown, since a form would begin from what it is not. */
export function useEditsKnown(): boolean {
  return useSyncExternalStore(engine().edits.subscribe, engine().edits.known);
}

/** Whether it is known what waits on this device. */
export function useWaitingKnown(): boolean {
  const entries = useSyncExternalStore(engine().log.subscribe, engine().log.known);
  return useEditsKnown() && entries;
}

/** Those of a project, or with "" of what all projects share, in order. */
export function useEdits(scope: string): readonly StoredEdit[] {
  return useSyncExternalStore(engine().edits.subscribe, () => engine().edits.of(scope));
}

/** Why the last record could not be kept on this device, so that it has to be entered again, or that the browser threw away what was kept; null where nothing is wrong. */
export function useNotKept(): Trouble | null {
  return useSyncExternalStore(engine().log.subscribe, engine().log.notKept);
}

/** What of which project is on this device. */
export function useReaches(): ReadonlyMap<string, Reach> {
  return useSyncExternalStore(engine().pull.subscribe, engine().pull.reaches);
}

/** What is being done about what waits. */
export function useSending(): Sending {
  return useSyncExternalStore(engine().push.subscribe, engine().push.sending);
}

/** Why a project could not be read from the server the last time. */
function useProjectError(projectId: string): Error | null {
  const subscribe = useCallback(
    (listener: () => void) => engine().pull.subscribeProject(projectId, listener),
    [projectId],
  );
  // Read now and then while this is shown.
  useEffect(() => engine().pull.watch(projectId), [projectId]);
  return useSyncExternalStore(subscribe, () => engine().pull.errorOf(projectId));
}

export function useClosureFacts(
  projectId: string,
  closureId: string,
): { data: KnownFacts | undefined; error: Error | null; refetch: () => Promise<void> } {
  const view = engine().closure(projectId, closureId);
  const known = useSyncExternalStore(view.subscribe, () => view.known);
  const error = useProjectError(projectId);
  return {
    data: known ?? undefined,
    error: known ? null : error,
    refetch: () => engine().pull.run(projectId),
  };
}

/** The facts of several closures, in their order, and how many of each a newer Cordel wrote; null until all are there. */
export function useFactsOf(
  projectId: string,
  closureIds: readonly string[],
): {
  facts: readonly (readonly Fact[])[] | null;
  unread: readonly number[] | null;
  error: Error | null;
  retry: () => void;
} {
  const list = closureIds.join();
  const views = useMemo(
    () => (list === '' ? [] : list.split(',')).map((id) => engine().closure(projectId, id)),
    [projectId, list],
  );
  const subscribe = useCallback(
    (listener: () => void) => {
      const ends = views.map((view) => view.subscribe(listener));
      return () => ends.forEach((end) => end());
    },
    [views],
  );
  // The same facts give the same list.
  const before = useRef<readonly KnownFacts[] | null>(null);
  const known = useSyncExternalStore(subscribe, () => {
    if (views.some((view) => view.known === null)) return null;
    const next = views.map((view) => view.known!);
    if (before.current?.length !== next.length || before.current.some((one, index) => one !== next[index]))
      before.current = next;
    return before.current;
  });
  const facts = useMemo(() => known?.map((one) => one.facts) ?? null, [known]);
  const unread = useMemo(() => known?.map((one) => one.unread.length) ?? null, [known]);
  const error = useProjectError(projectId);
  const retry = useCallback(() => void engine().pull.run(projectId), [projectId]);
  return { facts, unread, error: facts ? null : error, retry };
}

/** See `Engine.append`. */
export type RecordFact = (
  fact: Fact,
  shown?: (facts: readonly Fact[]) => void,
  takenBack?: () => void,
  picture?: ArrayBuffer,
) => Promise<boolean>;

/**
 * Records a fact: on the disk of this device, in sight, and on its way to the server. Resolves with false where the device could not keep it, so that nothing was
 * recorded (every screen tells it).
 */
export function useRecordFact(projectId: string): RecordFact {
  return useCallback(
    (fact, shown, takenBack, picture) => engine().append(projectId, fact, shown, takenBack, picture),
    [projectId],
  );
}
