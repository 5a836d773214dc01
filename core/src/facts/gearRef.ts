import { z } from 'zod';
import { idSchema, nameSchema } from '../schemas';
import type { FlatFact } from './kind';

/** Names a piece of gear in a fact: its identifier, and the label it had then, so that the fact can be read without the list of gear. */
export const gearRefSchema = z.strictObject({ id: idSchema, label: nameSchema });
export type GearRef = z.infer<typeof gearRefSchema>;

/** What can fall due at a machine or a cleaver. */
export const dueAboutSchema = z.enum(['calibration', 'electrodes', 'blade']);
export type DueAbout = z.infer<typeof dueAboutSchema>;

const numberOf = (what: string, least: number, most: number, unit: string) =>
  z
    .number(`${what} is a number in ${unit}.`)
    .min(least, `${what} is at least ${least} ${unit}.`)
    .max(most, `${what} is at most ${most} ${unit}.`)
    .nullable();

/** The weather that an arc feels. null: not looked at. */
export const conditionsSchema = z.strictObject({
  /** °C */
  temperature: numberOf('Temperature', -60, 70, '°C'),
  /** Relative, % */
  humidity: numberOf('Humidity', 0, 100, '%'),
  /** kPa; see `pressureAt` for an altitude. */
  pressure: numberOf('Air pressure', 40, 120, 'kPa'),
});
export type Conditions = z.infer<typeof conditionsSchema>;

/** The subject of a flat fact about gear. */
export function flatGearSubject({ closureId, gear }: FlatFact): unknown {
  const { id, label } = (gear ?? {}) as { id?: unknown; label?: unknown };
  return { on: 'gear', closureId, gearId: id, label };
}
