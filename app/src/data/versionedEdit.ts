import type { ProjectDefinition } from '@cordel/core';
import { useCallback, useState } from 'react';

/** The version of a project's sites and cables, which are edited together. */
export const lineVersionOf = ({ project }: ProjectDefinition) => project.lineVersion;

interface Versioned {
  readonly version: number;
}

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
 * @param versionOf where the version of what is edited stands, if not in `version`
 */
export function useVersionedEdit<T>(
  newest: T | undefined,
  refetch: () => Promise<{ readonly data?: unknown }>,
  versionOf: (one: T) => number = (one) => (one as unknown as Versioned).version,
): VersionedEdit<T> {
  const [state, setState] = useState<{ base: T | undefined; round: number }>({ base: newest, round: 0 });
  // The first copy that comes is what the editing begins from.
  const base = state.base ?? newest;
  if (state.base === undefined && newest !== undefined) setState({ ...state, base: newest });
  const settle = useCallback((saved: T) => setState(({ round }) => ({ base: saved, round: round + 1 })), []);
  const showNewer = useCallback(
    () => void refetch().then(() => setState(({ round }) => ({ base: undefined, round: round + 1 }))),
    [refetch],
  );
  return {
    base,
    round: state.round,
    newer: base !== undefined && newest !== undefined && versionOf(newest) > versionOf(base),
    showNewer,
    settle,
  };
}
