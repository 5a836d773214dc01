import { z } from 'zod';
import { shownNumber } from '../../units/decimals';

/** Beyond this the light is not in the fiber: a typing mistake or a broken splice, not a reading to judge. */
export const absurdLoss = 10;

/** An estimated loss in dB as the splicing machine shows it: 0 … 10. */
export const lossSchema = z
  .number({
    error: (issue) =>
      Number.isNaN(issue.input) || issue.input === Infinity || issue.input === -Infinity
        ? 'The reading is not a finite number. Enter what the machine shows, like 0.03.'
        : 'A reading is a number in dB, like 0.03.',
  })
  .min(0, 'A splice cannot read below 0 dB on the machine. Check the sign.')
  .max(
    absurdLoss,
    `A reading over ${absurdLoss} dB is not a splice. Check the decimal point, or mark the proof test failed.`,
  );

/** A cleave angle in degrees, 0 … 45. */
export const cleaveAngleSchema = z
  .number({ error: 'A cleave angle is a number in degrees, like 0.6.' })
  .min(0, 'A cleave angle cannot be below 0°.')
  .max(45, 'A cleave angle over 45° is not a cleave. Check the decimal point.');

const micrometers = (what: string, most: number) =>
  z
    .number({ error: `${what} is a number in μm.` })
    .min(0, `${what} cannot be below 0 μm.`)
    .max(most, `${what} over ${most} μm is no alignment. Check the decimal point.`);

/** Axis offset and gap in μm, as the machine shows them before the arc. */
export const offsetSchema = micrometers('An axis offset', 100);
export const gapSchema = micrometers('A gap', 500);

/** One fiber's reading. `loss` is null only when the fiber broke before one could be read. */
export const readingSchema = z.strictObject({
  loss: lossSchema.nullable(),
  cleaveLeft: cleaveAngleSchema.nullable(),
  cleaveRight: cleaveAngleSchema.nullable(),
  offset: offsetSchema.nullable().optional(),
  gap: gapSchema.nullable().optional(),
});
export type Reading = z.infer<typeof readingSchema>;

/** Why this loss can't be taken, or null when it can. For a pad or a typed entry, before anything is stored. */
export function lossRefusal(loss: number): string | null {
  return firstMessage(lossSchema.safeParse(loss));
}

/** Why this cleave angle can't be taken, or null when it can. */
export function cleaveAngleRefusal(angle: number): string | null {
  return firstMessage(cleaveAngleSchema.safeParse(angle));
}

function firstMessage(result: z.ZodSafeParseResult<number>): string | null {
  return result.success ? null : result.error.issues[0]!.message;
}

/** As readings are shown everywhere: at least two decimals, a third where it was given. "0.03", "0.145", in the sign of the person. */
export function formatLoss(loss: number): string {
  return shownNumber(lossText(loss));
}

/** The same with a point, for files. */
export function lossText(loss: number): string {
  const thousandths = Math.round(loss * 1000);
  return (written[thousandths] ??= (thousandths / 1000).toFixed(thousandths % 10 === 0 ? 2 : 3));
}

/** What was written before, by thousandths: the same few readings are written thousands of times. */
const written: Record<number, string> = {};

/** The highest loss among these fibers, dB; null when none was read. */
export function highestLoss(readings: readonly Reading[]): number | null {
  let highest: number | null = null;
  for (const { loss } of readings) if (loss !== null && (highest === null || loss > highest)) highest = loss;
  return highest;
}

/** Means and quantiles are computed, not read: three decimals, so that 0.034 can be told from a limit of 0.03. */
export function formatMean(loss: number): string {
  return shownNumber(loss.toFixed(3));
}
