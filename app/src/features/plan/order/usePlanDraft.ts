import { closureSchema, type Closure } from '@cordel/core';
import { writeOrder, type PlanDraft } from '@cordel/core/order';
import { useCallback, useEffect, useState } from 'react';
import { z } from 'zod';
import { forget, keep, recall } from '../../../data/stored';

const keptSchema = z.object({ closure: closureSchema, text: z.string() });
const kept = (closureId: string) => `plan-draft.${closureId}`;

/** Steps that can be undone. */
const mostSteps = 200;

interface Steps {
  readonly past: readonly PlanDraft[];
  readonly now: PlanDraft;
  /** Whether the last step was typing: letters typed one after the other are one step. */
  readonly typing: boolean;
}

function start(saved: Closure): PlanDraft {
  return { closure: saved, text: writeOrder(saved) };
}

/** A plan being edited: every change can be undone, and what is not saved yet is kept on this device across reloads. */
export function usePlanDraft(saved: Closure) {
  const [steps, setSteps] = useState<Steps>(() => {
    const found = keptSchema.safeParse(recall(kept(saved.id)));
    if (!found.success) return { past: [], now: start(saved), typing: false };
    // Somebody saved meanwhile: the words typed here are kept, on top of the newer plan.
    const { closure, text } = found.data;
    const now = closure.version === saved.version ? found.data : { closure: saved, text };
    return { past: [start(saved)], now, typing: false };
  });

  const change = useCallback((next: Partial<PlanDraft>, typing = false) => {
    setSteps((before) => {
      const goesOn = typing && before.typing && before.past.length > 0;
      return {
        past: goesOn ? before.past : [...before.past.slice(-mostSteps), before.now],
        now: { ...before.now, ...next },
        typing,
      };
    });
  }, []);
  const undo = useCallback(
    () =>
      setSteps((before) =>
        before.past.length === 0
          ? before
          : { past: before.past.slice(0, -1), now: before.past.at(-1)!, typing: false },
      ),
    [],
  );
  const discard = useCallback(() => {
    forget(kept(saved.id));
    setSteps({ past: [], now: start(saved), typing: false });
  }, [saved]);

  /** What was saved is no draft any more. */
  const settle = useCallback(() => forget(kept(saved.id)), [saved.id]);

  const { now } = steps;
  const dirty = steps.past.length > 0;
  useEffect(() => {
    if (dirty) keep(kept(saved.id), now);
    else forget(kept(saved.id));
  }, [dirty, now, saved.id]);

  return { draft: now, dirty, change, undo, discard, settle };
}

export type PlanEditing = ReturnType<typeof usePlanDraft>;
