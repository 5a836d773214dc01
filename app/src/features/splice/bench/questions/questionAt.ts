import type { BenchGear } from '../../gear/useGearAtBench';
import type { Asked } from './useTicksAsked';

/** What has to be answered before the next splice. */
export type Question = 'pick' | 'due' | 'ribbonize' | 'polarity';

/** The first question that is open, in the order in which the hands work; null: none. */
export function questionAt(gear: BenchGear, asked: Asked): Question | null {
  if (gear.pick) return 'pick';
  if (gear.atBench?.ask) return 'due';
  if (asked.ribbonize) return 'ribbonize';
  return asked.polarity ? 'polarity' : null;
}
