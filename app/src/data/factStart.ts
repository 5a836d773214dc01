import { v7 } from 'uuid';
import { getPreferences } from './preferences';

/**
 * What every fact made on this device begins with.
 * @param before what already happened to the same thing: the new fact comes after it even if the device's clock was set back
 */
export function factStart(closureId: string, before: readonly { readonly madeAt: string }[]) {
  const after = before.reduce((latest, fact) => Math.max(latest, Date.parse(fact.madeAt)), 0);
  const msecs = Math.max(Date.now(), after + 1);
  return {
    id: v7({ msecs }),
    closureId,
    madeAt: new Date(msecs).toISOString(),
    by: getPreferences().person.trim() || null,
  };
}
