import { listWithEdits, type DocumentKinds } from '@cordel/core/edits';
import { useMemo } from 'react';
import { useEdits, useEditsKnown } from '../sync/react';

/**
 * A list that all projects share, with what was edited on this device and is not on the server yet, by name.
 * @param stored as the server gave it out; undefined while it is not there
 * @param nameOf a function that stays the same
 */
export function useShownList<K extends 'model' | 'gear'>(
  stored: readonly DocumentKinds[K][] | undefined,
  kind: K,
  nameOf: (one: DocumentKinds[K]) => string,
): DocumentKinds[K][] | undefined {
  const edits = useEdits('');
  const known = useEditsKnown();
  return useMemo(() => {
    if (!known || !stored) return undefined;
    const order = (a: DocumentKinds[K], b: DocumentKinds[K]) =>
      nameOf(a) < nameOf(b) ? -1 : nameOf(a) > nameOf(b) ? 1 : 0;
    return listWithEdits(stored, edits, kind).sort(order);
  }, [known, stored, edits, kind, nameOf]);
}
