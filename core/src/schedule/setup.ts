import { z } from 'zod';
import { idSchema, nameSchema, textSchema, timeSchema } from '../schemas';
import { daysLater } from './clock';

/**
 * What a plan of nights is made from, as people give it. It belongs to a project's settings: whoever plans sees the same, and it waits on the device where there is no
 * network. Times of day are minutes after midnight in the project's time zone.
 */

const dayMinute = z
  .int('Give a time of day.')
  .min(0, 'A day begins at 00:00.')
  .max(24 * 60 - 1, 'A day ends at 23:59.');

const seconds = (what: string, most: number) =>
  z
    .number(`${what}: give a time.`)
    .min(0, `${what} is not below 0.`)
    .max(most, `${what} is at most ${most / 3600} h.`);

/** A window in which the work is allowed. */
export const nightSchema = z
  .strictObject({ id: idSchema, opens: timeSchema, closes: timeSchema })
  .refine(({ opens, closes }) => Date.parse(opens) < Date.parse(closes), {
    path: ['closes'],
    message: 'The night ends before it begins. Mend one of the two.',
  })
  .refine(({ opens, closes }) => Date.parse(closes) - Date.parse(opens) <= 36 * 3_600_000, {
    path: ['closes'],
    message: 'A night of more than 36 h is several. Give each its own.',
  });
export type Night = z.infer<typeof nightSchema>;

/** A splicing machine that a crew carries. */
export const carriedMachineSchema = z.strictObject({
  /** Of the gear's list; null: one that is not in it. Two crews that carry the same one share it. */
  gearId: idSchema.nullable(),
  name: nameSchema,
  splices: z.enum(['single', 'ribbon', 'both']),
  /** Sleeves that its heater takes at once, where the gear's list does not say. */
  heaters: z.int('Give a whole number.').min(1, 'At least 1.').max(4, 'At most 4.'),
});
export type CarriedMachine = z.infer<typeof carriedMachineSchema>;

export const crewSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  /** Two at one closure at most: a third hand saves nothing there. */
  people: z.array(nameSchema).min(1, 'A crew has somebody in it.').max(6, 'At most 6.'),
  machines: z.array(carriedMachineSchema).max(6, 'At most 6.'),
  /** s at the beginning of a night, for arc calibration. */
  calibration: seconds('Calibration', 2 * 3600),
  /** Where it sets out from and returns to; null: that way does not count. */
  startSiteId: idSchema.nullable(),
  /** Nights on which it does not work. */
  offNightIds: z.array(idSchema).max(200),
  /** Printed on its sheet: telephone numbers, as somebody typed them. */
  contacts: textSchema.max(2000, 'At most 2 000 letters.'),
});
export type Crew = z.infer<typeof crewSchema>;

/** What holds for one closure beyond its plan. */
export const closureRuleSchema = z.strictObject({
  closureId: idSchema,
  /** Nobody works at it in these nights. */
  leftOut: z.boolean(),
  /** It may stay open under cover: then its work may go on another night. */
  mayStayOpen: z.boolean(),
  /** Its circuits are back by this time of each night. */
  backBy: dayMinute.nullable(),
  /** Its circuits may only be cut on this night. */
  onlyNightId: idSchema.nullable(),
  /** Sealed before this one is begun: on an earlier night, or by the same crew before it. */
  afterIds: z.array(idSchema).max(100),
});
export type ClosureRule = z.infer<typeof closureRuleSchema>;

/** Somebody's own choice, which a plan keeps. */
export const nightPinSchema = z.strictObject({
  closureId: idSchema,
  nightId: idSchema,
  /** null: whichever crew. */
  crewId: idSchema.nullable(),
});
export type NightPin = z.infer<typeof nightPinSchema>;

export const ownTravelSchema = z.strictObject({
  fromSiteId: idSchema,
  toSiteId: idSchema,
  /** s, either way. */
  seconds: seconds('The way', 24 * 3600),
});

/** A plan as it was kept: what the night is compared with. */
export const keptPlanSchema = z.strictObject({
  madeAt: timeSchema,
  places: z
    .array(
      z.strictObject({
        nightId: idSchema,
        crewId: idSchema,
        stops: z
          .array(
            z.strictObject({
              closureId: idSchema,
              /** Which part of its work, and of how many, from 1; null: all of it. */
              part: z.strictObject({ number: z.int().min(1), of: z.int().min(1) }).nullable(),
              begins: timeSchema,
              ends: timeSchema,
            }),
          )
          .max(200),
      }),
    )
    .max(2000),
});
export type KeptPlan = z.infer<typeof keptPlanSchema>;

/** Of a project. */
export const mostNights = 200;

export const nightsSetupSchema = z.strictObject({
  nights: z.array(nightSchema).max(mostNights, `At most ${mostNights} nights.`),
  crews: z.array(crewSchema).max(12, 'At most 12 crews.'),
  rules: z.array(closureRuleSchema).max(10_000),
  pins: z.array(nightPinSchema).max(10_000),
  /** The least chance with which each night ends in its window. */
  reserve: z.number().min(0.5, 'At least 50 %.').max(0.99, 'At most 99 %.'),
  /** m/s along the route. */
  speed: z.number('Give a speed.').positive('A speed is above 0.').max(60, 'At most 216 km/h.'),
  travel: z.array(ownTravelSchema).max(2000),
  /** s after a closure is sealed, until the crew drives on. */
  packUp: seconds('Packing up', 4 * 3600),
  /** How long a closure holds its pressure before it is read, and the owner's hours, or daylight, in which that is done; null: no holding test. */
  holding: z
    .strictObject({
      /** s */
      wait: seconds('The holding test', 14 * 24 * 3600),
      hours: z.strictObject({ from: dayMinute, to: dayMinute }).nullable(),
    })
    .nullable(),
  kept: keptPlanSchema.nullable(),
});
export type NightsSetup = z.infer<typeof nightsSetupSchema>;

/** Nothing planned yet. Speed on a road along a route, packing up, reserve and a day under pressure: common practice. */
export const newNightsSetup: NightsSetup = {
  nights: [],
  crews: [],
  rules: [],
  pins: [],
  reserve: 0.9,
  speed: 30 / 3.6,
  travel: [],
  packUp: 10 * 60,
  holding: { wait: 24 * 3600, hours: { from: 8 * 60, to: 18 * 60 } },
  kept: null,
};

/** The rule of a closure that nobody gave one. */
export function ruleOf(setup: Pick<NightsSetup, 'rules'>, closureId: string): ClosureRule {
  return (
    setup.rules.find((rule) => rule.closureId === closureId) ?? {
      closureId,
      leftOut: false,
      mayStayOpen: false,
      backBy: null,
      onlyNightId: null,
      afterIds: [],
    }
  );
}

/** As many nights as asked, like the last one there is, each a day after the one before it by the clocks of the zone; none where there is none. */
export function nightsAfter(
  nights: readonly Pick<Night, 'opens' | 'closes'>[],
  count: number,
  zone: string | null | undefined,
): Pick<Night, 'opens' | 'closes'>[] {
  const last = [...nights].sort((a, b) => Date.parse(a.opens) - Date.parse(b.opens)).at(-1);
  if (!last) return [];
  const later = (time: string, days: number) =>
    new Date(daysLater(Date.parse(time), days, zone)).toISOString();
  return Array.from({ length: count }, (_, index) => ({
    opens: later(last.opens, index + 1),
    closes: later(last.closes, index + 1),
  }));
}
