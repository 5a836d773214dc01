import './withoutEval';
import { checkDraft, type Cable, type Closure, type DraftCheck, type PlanDraft } from '@cordel/core';

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
  readonly check: DraftCheck;
  readonly ms: number;
}

let about: { saved: Closure; cables: ReadonlyMap<string, Cable>; touched: readonly string[] } | null = null;

self.onmessage = ({ data }: MessageEvent<PlanRequest>) => {
  if (data.about)
    about = {
      ...data.about,
      cables: new Map(data.about.cables.map((cable) => [cable.id, cable])),
    };
  if (!about) return;
  const began = performance.now();
  const check = checkDraft(data.draft, about.saved, about.cables, about.touched);
  self.postMessage({ id: data.id, check, ms: performance.now() - began } satisfies PlanAnswer);
};
