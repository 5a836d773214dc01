import type { Closure } from '@cordel/core';
import type { Ending } from '@cordel/core/prepare';
import { z } from 'zod';
import { storedValues } from '../../data/stored';

/** How a drop or pigtail ends, to choose from. */
export const endings: readonly { readonly value: Ending; readonly label: string }[] = [
  { value: 'splice', label: 'A splice' },
  { value: 'mechanical', label: 'A mechanical connector' },
  { value: 'fusion-connector', label: 'A fused connector' },
];

const chosen = storedValues<Ending>('ending', z.enum(['splice', 'mechanical', 'fusion-connector']), 'splice');

/** How a cable ends at a closure: as its plan says, or as it was chosen on this device. */
export function endingOf({ entries }: Pick<Closure, 'entries'>, cableId: string): Ending {
  const planned = entries.find((entry) => entry.cableId === cableId)?.ending;
  if (planned) return planned;
  return chosen(cableId).get();
}

export function keepEnding(cableId: string, ending: Ending): void {
  chosen(cableId).set(ending);
}
