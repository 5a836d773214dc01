import type { ProjectDefinition, StoredFact } from '@cordel/core';
import type { TextProblem } from '../documentText';

/** What the server and its import worker tell each other. */
export type ToWorker =
  | { readonly kind: 'read'; readonly bytes: ArrayBuffer; readonly now: number | null }
  | { readonly kind: 'next' };

export type FromWorker =
  | { readonly kind: 'wrong'; readonly problems: readonly TextProblem[]; readonly count: number }
  | { readonly kind: 'read'; readonly definition: ProjectDefinition; readonly facts: number }
  | { readonly kind: 'slice'; readonly facts: readonly StoredFact[] };
