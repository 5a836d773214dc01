import type { Ending } from '@cordel/core/prepare';
import { keep, recall } from '../../data/stored';

/** How a drop or pigtail ends, to choose from. */
export const endings: readonly { readonly value: Ending; readonly label: string }[] = [
  { value: 'splice', label: 'A splice' },
  { value: 'mechanical', label: 'A mechanical connector' },
  { value: 'fusion-connector', label: 'A fused connector' },
];

/** What was chosen for a cable on this device. */
export function recallEnding(cableId: string): Ending {
  const kept = recall(`ending.${cableId}`);
  return endings.find(({ value }) => value === kept)?.value ?? 'splice';
}

export function keepEnding(cableId: string, ending: Ending): void {
  keep(`ending.${cableId}`, ending);
}
