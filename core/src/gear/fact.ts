import { z } from 'zod';
import { factBase, noteSchema } from '../factBase';
import { idSchema, nameSchema } from '../schemas';

/** Names a piece of gear in a fact: its identifier, and the label it had then, so that the fact can be read without the list of gear. */
export const gearRefSchema = z.strictObject({ id: idSchema, label: nameSchema });
export type GearRef = z.infer<typeof gearRefSchema>;

/** What can fall due at a machine or a cleaver. */
const dueAboutSchema = z.enum(['calibration', 'electrodes', 'blade']);
export type DueAbout = z.infer<typeof dueAboutSchema>;

/** The gear that stands on an attempt. */
export const usedGearSchema = z.strictObject({
  machine: gearRefSchema.optional(),
  cleaver: gearRefSchema.optional(),
  stripper: gearRefSchema.optional(),
  /** Names of the machine's programs that were on. */
  program: nameSchema.optional(),
  heater: nameSchema.optional(),
  /** μm; 125 where it is not given. */
  cladding: z.literal(400).optional(),
  /** What was due and passed over when the splice was made. */
  wentOn: z.array(dueAboutSchema).max(3).optional(),
});
export type UsedGear = z.infer<typeof usedGearSchema>;

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

const gearFact = factBase.extend({ gear: gearRefSchema, note: noteSchema });

/** One try at an arc calibration. The number of tries is that of the failed ones before it, and this one. */
export const calibrationSchema = gearFact.extend({
  kind: z.literal('calibration'),
  passed: z.boolean(),
  conditions: conditionsSchema,
});

/** Something was done to the gear that starts a count again, or its own counter was read. */
export const gearEventSchema = gearFact.extend({
  kind: z.literal('gear-event'),
  event: z.enum([
    'electrodes-cleaned',
    'electrodes-replaced',
    'blade-turned',
    'blade-replaced',
    /** `value`: arcs that the machine's own counter shows. */
    'arcs-read',
    /** `value`: fibers cleaved on the blade position that is on. */
    'cleaves-read',
    /** `value`: the blade position that is on, from 1. */
    'position-read',
  ]),
  value: z
    .int('Give a whole number.')
    .min(0, 'Not below 0.')
    .max(10_000_000, 'At most 10 000 000.')
    .optional(),
});

/** The weather where a machine stands was looked at without calibrating it. */
export const weatherSchema = gearFact.extend({
  kind: z.literal('weather'),
  conditions: conditionsSchema,
});

/** Something is due, and the person splices on without it. */
export const wentOnSchema = gearFact.extend({
  kind: z.literal('went-on'),
  about: dueAboutSchema,
  /** Codes of the rules that had tripped. Only another one asks again. */
  rules: z.array(z.string().min(1).max(40)).min(1).max(20),
});

export type Calibration = z.infer<typeof calibrationSchema>;
export type GearEvent = z.infer<typeof gearEventSchema>;
export type Weather = z.infer<typeof weatherSchema>;
export type WentOn = z.infer<typeof wentOnSchema>;
/** What happened to the gear. */
export type GearFact = Calibration | GearEvent | Weather | WentOn;
