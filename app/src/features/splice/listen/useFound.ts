import { useCallback, useEffect, useState } from 'react';
import { getLinked, getPractice, linkTo, settingsOf } from '../../../data/machine/linked';
import type { MachineFound, Machines } from '../../../data/machine/machines';

/** The machines that can be reached. One that is simulated and ended with its page or server is put up again, as it was set. */
export function useFound(machines: Machines): {
  found: readonly MachineFound[] | null;
  error: Error | null;
  look: () => void;
} {
  const [found, setFound] = useState<readonly MachineFound[] | null>(null);
  const [error, setError] = useState<Error | null>(null);
  const look = useCallback(
    () =>
      void lookFor(machines).then(
        (list) => {
          setFound(list);
          setError(null);
        },
        (reason: Error) => setError(reason),
      ),
    [machines],
  );
  useEffect(look, [look]);
  return { found, error, look };
}

async function lookFor(machines: Machines): Promise<readonly MachineFound[]> {
  const before = getLinked();
  const found = await machines.discover();
  const linked = getLinked();
  // Linked meanwhile, it is newer than what was found.
  if (linked?.id !== before?.id || !linked?.simulated || found.some(({ id }) => id === linked.id))
    return found;
  const like = found.find(({ name, where }) => name === linked.name && where === linked.where);
  if (!like) return found;
  linkTo({ ...linked, id: await machines.renew(like.id, settingsOf(getPractice())) });
  return machines.discover();
}
