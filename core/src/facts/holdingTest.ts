import { z } from 'zod';
import { idSchema } from '../schemas';
import { factKind, type FactOf } from './kind';
import { mostPressure } from './flashTest';
import { closureSubject } from './subject';

const celsius = z
  .number('Give the temperature as a number.')
  .min(-60, 'At least −60 °C.')
  .max(90, 'At most 90 °C.');
const air = z
  .number('Give the air pressure as a number.')
  .min(45, 'Air at least 45 kPa (about 6 500 m up).')
  .max(110, 'Air at most 110 kPa.');
const error = (what: string, most: number) =>
  z
    .number(`Give the error of the ${what} as a number.`)
    .min(0, 'An error starts at 0.')
    .max(most, `At most ${most}.`);

/** Pressure held over hours: read at the start, and as often as somebody comes by. Gauge pressures and air in kPa, temperatures of the gas in the closure in °C. */
export const holdingTestKind = factKind({
  kind: 'holding-test',
  version: 2,
  subject: closureSubject,
  body: z.discriminatedUnion('did', [
    z.strictObject({
      did: z.literal('began'),
      gauge: z
        .number('Give the pressure as a number.')
        .positive('The pressure is above 0.')
        .max(mostPressure, 'Never more than 34.5 kPa (5 psi). Let it out first.'),
      celsius,
      air,
      /** What gauge and thermometer may be off by, either way: kPa and °C. */
      gaugeError: error('gauge', 20),
      celsiusError: error('thermometer', 20),
      /** The most that may be lost: kPa at the temperature of the start, within so many hours. */
      allowed: z.strictObject({
        kPa: z
          .number('Give the loss as a number.')
          .positive('A loss above 0.')
          .max(mostPressure, 'At most 34.5 kPa.'),
        hours: z
          .number('Give the hours as a number.')
          .positive('Above 0 hours.')
          .max(1000, 'At most 1 000 hours.'),
      }),
      /** Of gas in the closure, where it is known. */
      liters: z
        .number('Give the volume as a number.')
        .positive('A volume above 0.')
        .max(1000, 'At most 1 000 liters.')
        .nullable(),
    }),
    /** What the gauge showed later. It may have gone over the stop, with the sun. */
    z.strictObject({
      did: z.literal('read'),
      beganId: idSchema,
      gauge: z
        .number('Give the pressure as a number.')
        .min(-100, 'At least −100 kPa.')
        .max(1000, 'At most 1 000 kPa.'),
      celsius,
      air,
    }),
    /** Taken back, or given up. */
    z.strictObject({ did: z.literal('dropped'), beganId: idSchema }),
  ]),
  // There is no older one.
  upcast: () => null,
});
export type HoldingTest = FactOf<typeof holdingTestKind>;
