import { factVersion, type Fact } from '@cordel/core';
import { v7 } from 'uuid';
import { clockOff, correctedNow } from './clock';
import { device } from './device';
import { getPreferences } from './preferences';

/**
 * What every fact made on this device begins with.
 * @param before what already happened to the same thing: the new fact comes after it even if the device's clock was set back
 */
export function factStart<K extends Fact['kind']>(kind: K, before: readonly { readonly madeAt: string }[]) {
  const off = clockOff();
  const after = before.reduce((latest, fact) => Math.max(latest, Date.parse(fact.madeAt)), 0);
  const msecs = Math.max(correctedNow(), after + 1);
  return {
    v: factVersion(kind),
    id: v7({ msecs }),
    kind,
    madeAt: new Date(msecs).toISOString(),
    by: getPreferences().person.trim() || null,
    device,
    ...(off === 0 ? {} : { clockOff: off }),
  };
}
