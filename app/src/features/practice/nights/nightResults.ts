import { nightIds, type NightId } from '@cordel/core/nightNames';
import { z } from 'zod';
import { storedValue } from '../../../data/stored';

const runningSchema = z.object({ seed: z.int().min(0), actions: z.array(z.unknown()) });
/** A night that was begun, by what was done in it; see `nightActionSchema`. */
export type Running = z.infer<typeof runningSchema>;

/** Nights that were begun on this device and are not over. */
const running = storedValue<Partial<Record<NightId, Running>>>(
  'nights-running',
  z.partialRecord(z.enum(nightIds), runningSchema),
  {},
);

export const useRunning = running.use;
export const runningNight = (id: NightId): Running | undefined => running.get()[id];

export function keepRunning(id: NightId, night: Running | null): void {
  const { [id]: _, ...others } = running.get();
  running.set(night ? { ...others, [id]: night } : others);
}

const resultSchema = z.object({
  /** ms since 1970 */
  at: z.number(),
  night: z.enum(nightIds),
  seed: z.number(),
  points: z.number(),
  named: z.boolean(),
  /** dB, true */
  mean: z.number(),
  sleeves: z.number(),
  minutes: z.number(),
});
export type NightRemembered = z.infer<typeof resultSchema>;

/** Nights that are remembered, the latest first. */
const most = 30;

export const nightResults = storedValue<NightRemembered[]>('night-results', z.array(resultSchema), []);

export function rememberNight(result: NightRemembered): void {
  nightResults.set([result, ...nightResults.get()].slice(0, most));
}
