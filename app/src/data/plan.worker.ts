import './withoutEval';
import { type Cable, type Closure } from '@cordel/core';
import { checkDraft, type DraftCheck, type DraftTray, type PlanDraft } from '@cordel/core/order';

/** Checks plan drafts off the main thread, so that typing never waits for the layout of thousands of splices. */

export interface PlanRequest {
  readonly id: number;
  readonly draft: PlanDraft;
  /** Sent when they changed; kept for the requests after. */
  readonly about?: {
    readonly saved: Closure;
    readonly cables: readonly Cable[];
    readonly touched: readonly string[];
  };
}

export interface PlanAnswer {
  readonly id: number;
  /** null for a tray that is as in the answer before: most are, after one letter, and need not cross over. */
  readonly check: Omit<DraftCheck, 'trays'> & { readonly trays: readonly (DraftTray | null)[] };
}

/** The trays of the answer before, each as text. */
let sent: readonly string[] = [];
let about: { saved: Closure; cables: ReadonlyMap<string, Cable>; touched: readonly string[] } | null = null;

self.onmessage = ({ data }: MessageEvent<PlanRequest>) => {
  if (data.about) {
    sent = [];
    about = {
      ...data.about,
      cables: new Map(data.about.cables.map((cable) => [cable.id, cable])),
    };
  }
  if (!about) return;
  const check = checkDraft(data.draft, about.saved, about.cables, about.touched);
  const before = sent;
  sent = check.trays.map((tray) => JSON.stringify(tray));
  const trays = check.trays.map((tray, index) => (sent[index] === before[index] ? null : tray));
  self.postMessage({ id: data.id, check: { ...check, trays } } satisfies PlanAnswer);
};
