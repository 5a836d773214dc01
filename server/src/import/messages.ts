import type { ProjectDefinition, StoredFact } from '@cordel/core';
import type { TextProblem } from '../documentText';

/** What the server and its import worker tell each other. */
export type ToWorker =
  /** A piece of the file, in its order. */
  | { readonly kind: 'bytes'; readonly bytes: Uint8Array }
  /** That was all of it. */
  | { readonly kind: 'read'; readonly now: number | null }
  | { readonly kind: 'next' };

export type FromWorker =
  | { readonly kind: 'wrong'; readonly problems: readonly TextProblem[]; readonly count: number }
  | { readonly kind: 'read'; readonly definition: ProjectDefinition; readonly facts: number }
  | { readonly kind: 'slice'; readonly facts: readonly StoredFact[] };
