import { measuredAt, writeDecimalsWith, type DecimalSign } from '@cordel/core';
import { z } from 'zod';
import { storedValue } from './stored';

const preferencesSchema = z.object({
  appearance: z.enum(['system', 'day', 'night']).catch('system'),
  /** Times the normal text size. */
  textSize: z.number().min(1).max(2).catch(1),
  /** What stands before the decimals of a number. */
  decimalSign: z.enum(['device', '.', ',']).catch('device'),
  /** First name that stands on the facts made on this device. */
  person: z.string().max(40).catch(''),
  /** Ways of working that people differ in. */
  tubeSchool: z.enum(['scorer', 'fixed-depth']).catch('scorer'),
  wipeSchool: z.enum(['dry', 'moist']).catch('dry'),
  ribbonizingSchool: z.enum(['pads', 'block']).catch('pads'),
  sheathSchool: z.enum(['ring-first', 'ripcord-first']).catch('ripcord-first'),
  secondRing: z.boolean().catch(false),
  scorerMotion: z.enum(['round', 'swing']).catch('round'),
  rodSchool: z.enum(['marked', 'trimmed']).catch('marked'),
  /** Whether the bench says "sleeve on first" with every splice. */
  sleeveReminder: z.boolean().catch(true),
  /** Whether sleeves in the heater and on the cooling tray have their clocks at the bench. */
  heaterLane: z.boolean().catch(true),
  /** Whether the screen stays on at the bench. */
  screenStaysOn: z.boolean().catch(true),
  /** What a bench that listens to a machine says beside the screen. */
  tones: z.boolean().catch(false),
  voice: z.boolean().catch(false),
  buzzes: z.boolean().catch(true),
  /** Keys of a foot switch or a keyboard, as `KeyboardEvent.key`. */
  listenKeys: z
    .object({ next: z.string().max(40), again: z.string().max(40), skip: z.string().max(40) })
    .catch({ next: 'n', again: 'a', skip: 's' }),
  /** How the air pressure at an arc calibration is given. */
  pressureBy: z.enum(['altitude', 'pressure']).catch('altitude'),
  /** Soapy water on the seals before a closure is pumped up, or after. */
  soapSchool: z.enum(['before', 'after']).catch('after'),
  /** What the gauge of a holding test may be off by, kPa, and its thermometer, °C. */
  gaugeError: z.number().positive().max(20).catch(0.5),
  celsiusError: z.number().positive().max(20).catch(1),
  /** The sheet on which labels are printed; see `labelSizes`. */
  labelSize: z.string().max(40).catch('a4-24'),
  /** People who know the steps see them as a checklist. */
  stepsFolded: z.boolean().catch(false),
  /** What splices are measured with, and at which wavelength, nm. */
  measuredWith: z.enum(['otdr', 'power-meter']).catch('otdr'),
  measuredNm: z.literal(measuredAt).catch(1550),
  /** How a cable's thickness is measured. */
  thicknessBy: z.enum(['caliper', 'tape']).catch('caliper'),
  /** Times that a person set, seconds; the usual ones stand in for the others. */
  pace: z.record(z.string(), z.number().min(0).max(36_000)).catch({}),
});
type Preferences = z.infer<typeof preferencesSchema>;

const preferences = storedValue('preferences', preferencesSchema, preferencesSchema.parse({}));

export function setPreferences(change: Partial<Preferences>): void {
  preferences.set({ ...preferences.get(), ...change });
}

export const getPreferences = preferences.get;
export const usePreferences = preferences.use;

/** The sign with which numbers are written for the person here, set for all that is drawn below. */
export function useDecimalSign(): DecimalSign {
  const { decimalSign } = usePreferences();
  const sign = decimalSign === 'device' ? signOfDevice() : decimalSign;
  writeDecimalsWith(sign);
  return sign;
}

/** As the language of the browser writes it. */
function signOfDevice(): DecimalSign {
  const parts = new Intl.NumberFormat(navigator.language).formatToParts(0.5);
  return parts.some(({ type, value }) => type === 'decimal' && value === ',') ? ',' : '.';
}
