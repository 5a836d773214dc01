import './withoutEval';
import { idSchema, readFact, type Fact, type UnknownFact } from '@cordel/core';
import { useSyncExternalStore } from 'react';
import { z } from 'zod';
import { forget, keep, keptKeys, recall } from './stored';

/**
 * Facts made on this device that the server has not confirmed yet. Each is kept under a key of its own before anything else
 * happens to it, so a reload, a crash or a night without network loses none.
 */
const entrySchema = z.object({
  projectId: idSchema,
  /** Brought up where an older version of the app wrote it. */
  fact: z.unknown().transform((raw, context): Fact | UnknownFact => {
    const read = readFact(raw);
    if (read.status !== 'wrong') return read.fact;
    context.addIssue(read.message);
    return z.NEVER;
  }),
  /** Why the server will not take it; it waits for the person. */
  refused: z.string().nullable(),
});
export type OutboxEntry = z.infer<typeof entrySchema>;

const start = 'outbox.';
const listeners = new Set<() => void>();
let entries: readonly OutboxEntry[] = readAll();

function readAll(): OutboxEntry[] {
  return keptKeys(start)
    .sort()
    .map((key) => entrySchema.safeParse(recall(key)).data)
    .filter((entry) => entry !== undefined);
}

function change(next: readonly OutboxEntry[]): void {
  entries = next;
  listeners.forEach((listener) => listener());
}

/** The disk of this device did not take the last entry. */
let notKept = false;

export const outbox = {
  entries: () => entries,
  /** Those that are on their way; the others were refused. */
  waiting: () => entries.filter((entry) => entry.refused === null),
  /** Whether it is kept. Where this device has no room for it, nothing of it is, and that is told. */
  add(projectId: string, fact: Fact): boolean {
    const entry = { projectId, fact, refused: null };
    try {
      keep(start + fact.id, entry);
    } catch {
      notKept = true;
      change(entries);
      return false;
    }
    notKept = false;
    change([...entries, entry]);
    return true;
  },
  notKept: () => notKept,
  /** The server has them. */
  remove(ids: ReadonlySet<string>): void {
    ids.forEach((id) => forget(start + id));
    change(entries.filter((entry) => !ids.has(entry.fact.id)));
  },
  refuse(id: string, refused: string): void {
    change(
      entries.map((entry) => {
        if (entry.fact.id !== id) return entry;
        const next = { ...entry, refused };
        keep(start + id, next);
        return next;
      }),
    );
  },
  subscribe(listener: () => void): () => void {
    listeners.add(listener);
    return () => listeners.delete(listener);
  },
};

/** Whether the last entry could not be kept, so that it has to be entered again. */
export function useNotKept(): boolean {
  return useSyncExternalStore(outbox.subscribe, outbox.notKept);
}

export function useOutbox(): readonly OutboxEntry[] {
  return useSyncExternalStore(outbox.subscribe, outbox.entries);
}
