import type { Cable, Closure } from '@cordel/core';
import type { DraftCheck, DraftTray, PlanDraft } from '@cordel/core/order';
import { startTransition, useEffect, useRef, useState } from 'react';
import type { PlanAnswer, PlanRequest } from './plan.worker';

/**
 * The check of a plan draft, made in a worker. While one is on its way only the newest draft waits behind it, so that fast typing never
 * piles up. `check` stays the one before until the next is there; `current` says whether it is of this very draft.
 */
export function useDraftCheck(
  draft: PlanDraft,
  saved: Closure,
  cables: readonly Cable[],
  touched: readonly string[],
): { check: DraftCheck | null; current: boolean; failed: boolean } {
  const [answer, setAnswer] = useState<{ draft: PlanDraft; check: DraftCheck } | null>(null);
  const [failed, setFailed] = useState(false);
  const worker = useRef<{ submit: (draft: PlanDraft) => void } | null>(null);
  const newest = useRef(draft);

  useEffect(() => {
    const thread = new Worker('/plan.worker.js', { type: 'module' });
    let sent = 0;
    let busy: PlanDraft | null = null;
    let waiting: PlanDraft | null = null;
    const send = (next: PlanDraft, about?: PlanRequest['about']) => {
      busy = next;
      sent += 1;
      thread.postMessage({ id: sent, draft: next, ...(about ? { about } : {}) } satisfies PlanRequest);
    };
    let trays: readonly DraftTray[] = [];
    thread.onmessage = ({ data }: MessageEvent<PlanAnswer>) => {
      if (data.id !== sent || !busy) return;
      const checked = busy;
      // A tray that did not change stays the same object: what shows it is not drawn again for every letter.
      trays = data.check.trays.map((tray, index) => tray ?? trays[index]!);
      const check = { ...data.check, trays };
      // Drawn in slices between the letters that are typed meanwhile.
      startTransition(() => setAnswer({ draft: checked, check }));
      busy = null;
      const next = waiting;
      waiting = null;
      if (next) send(next);
    };
    thread.onerror = () => setFailed(true);
    send(newest.current, { saved, cables, touched });
    worker.current = {
      submit: (next) => {
        if (next === busy) return;
        if (busy) waiting = next;
        else send(next);
      },
    };
    return () => {
      worker.current = null;
      thread.terminate();
    };
  }, [saved, cables, touched]);

  useEffect(() => {
    if (newest.current === draft) return;
    newest.current = draft;
    worker.current?.submit(draft);
  }, [draft]);

  return { check: answer?.check ?? null, current: answer?.draft === draft, failed };
}
