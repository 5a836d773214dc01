import './withoutEval';
import { useSyncExternalStore } from 'react';
import { z } from 'zod';
import { keep, recall } from './stored';

const preferencesSchema = z.object({
  appearance: z.enum(['system', 'day', 'night']).catch('system'),
  /** Times the normal text size. */
  textSize: z.number().min(1).max(2).catch(1),
  /** First name that stands on the facts made on this device. */
  person: z.string().max(40).catch(''),
  /** Ways of working that people differ in. */
  tubeSchool: z.enum(['scorer', 'fixed-depth']).catch('scorer'),
  wipeSchool: z.enum(['dry', 'moist']).catch('dry'),
  ribbonizingSchool: z.enum(['pads', 'block']).catch('pads'),
  /** Whether the bench says "sleeve on first" with every splice. */
  sleeveReminder: z.boolean().catch(true),
  /** Whether sleeves in the heater and on the cooling tray have their clocks at the bench. */
  heaterLane: z.boolean().catch(true),
  /** How the air pressure at an arc calibration is given. */
  pressureBy: z.enum(['altitude', 'pressure']).catch('altitude'),
  /** People who know the steps see them as a checklist. */
  stepsFolded: z.boolean().catch(false),
  /** How a cable's thickness is measured. */
  thicknessBy: z.enum(['caliper', 'tape']).catch('caliper'),
  /** Times that a person set, seconds; the usual ones stand in for the others. */
  pace: z.record(z.string(), z.number().min(0).max(36_000)).catch({}),
});
type Preferences = z.infer<typeof preferencesSchema>;

const key = 'preferences';
let current: Preferences = preferencesSchema.parse(recall(key) ?? {});
const listeners = new Set<() => void>();

export function setPreferences(change: Partial<Preferences>): void {
  current = { ...current, ...change };
  keep(key, current);
  listeners.forEach((listener) => listener());
}

export const getPreferences = () => current;

export function usePreferences(): Preferences {
  return useSyncExternalStore((listener) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  }, getPreferences);
}
