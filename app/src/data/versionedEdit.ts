import { sameDocument } from '@cordel/core/edits';
import { useCallback, useState } from 'react';

/** The part of something that is edited: its version, and what it says. */
type PartOf<T> = (one: T) => object & { readonly version: number };

const itself = (one: unknown) => one as { readonly version: number };

export interface VersionedEdit<T> {
  /** What the editing began from: a save carries its version, and what is typed is compared with it. Stays as it is when somebody else saves. */
  readonly base: T | undefined;
  /** Key of the form: it begins anew only with `showNewer` and `settle`. */
  readonly round: number;
  /** Somebody else saved since the editing began. */
  readonly newer: boolean;
  /** Fetches what is newest, and begins anew from it. What was typed is gone. */
  readonly showNewer: () => void;
  /** Goes on from what was saved here. */
  readonly settle: (saved: T) => void;
}

/**
 * Editing of something that has a version. What is typed survives whatever is fetched meanwhile; a save of somebody else is told beside it, and the person
 * decides.
 * @param newest as it was fetched last; undefined while it is not there
 * @param partOf what of it is edited, if not all of it; a function that stays the same
 */
export function useVersionedEdit<T>(
  newest: T | undefined,
  refetch: () => Promise<{ readonly data?: unknown }>,
  partOf: PartOf<T> = itself,
): VersionedEdit<T> {
  const [state, setState] = useState<{ base: T | undefined; round: number }>({ base: newest, round: 0 });
  // The first copy that comes is what the editing begins from.
  const base = state.base ?? newest;
  if (state.base === undefined && newest !== undefined) setState({ ...state, base: newest });
  const counted = base !== undefined && newest !== undefined && partOf(newest).version > partOf(base).version;
  // What was saved here, and waited for the server, is there now: the same in a newer version.
  const same = counted && sameDocument(partOf(newest), partOf(base));
  if (same) setState({ ...state, base: newest });
  const settle = useCallback((saved: T) => setState(({ round }) => ({ base: saved, round: round + 1 })), []);
  const showNewer = useCallback(
    () => void refetch().then(() => setState(({ round }) => ({ base: undefined, round: round + 1 }))),
    [refetch],
  );
  return {
    base,
    round: state.round,
    newer: counted && !same,
    showNewer,
    settle,
  };
}
