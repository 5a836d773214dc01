import { z } from 'zod';
import { weightsSchema } from './weights';

const lossLimit = z
  .number('Give a limit in dB, like 0.10.')
  .positive('A limit is above 0 dB.')
  .max(5, 'A limit above 5 dB judges nothing.');

const beforeArc = (what: string) =>
  z
    .number('Give a limit in μm, or leave it empty.')
    .positive(`${what} limit is above 0 μm.`)
    .max(200, `${what} limit above 200 μm judges nothing.`);

/** What the project's owner asks of the splices. All losses in dB, estimated at the splicing machine. */
export const limitsSchema = z.strictObject({
  /** Largest loss of a single splice. */
  singleMax: lossLimit,
  /** Largest loss of each fiber of a ribbon splice. */
  ribbonFiberMax: lossLimit,
  trayMean: lossLimit,
  closureMean: lossLimit,
  /** Largest cleave angle of either end, degrees. */
  cleaveAngleMax: z
    .number('Give an angle in degrees, like 1.0.')
    .positive('A cleave angle limit is above 0°.')
    .max(10, 'No splicing machine takes a cleave beyond 10°.'),
  /** Largest axis offset and gap before the arc, μm; the machine's own limits alone where they are not given. */
  offsetMax: beforeArc('An offset').optional(),
  gapMax: beforeArc('A gap').optional(),
  /** What a redo is weighed against; as usual where it is not given. */
  weights: weightsSchema.optional(),
  /** The owner wants measured losses (from both ends), not the machine’s estimates. */
  measured: z.boolean().optional(),
  /** How often a splice is tried before it is the owner's call. */
  tries: z.int('Give a whole number of tries.').min(1, 'At least 1 try.').max(10, 'At most 10 tries.'),
});
export type Limits = z.infer<typeof limitsSchema>;

/** Rounding of decimal fractions must not decide: 0.05 added up 24 times and divided by 24 is not over 0.05. */
const tolerance = 1e-9;

/** A limit is the largest value that still holds. */
export function exceeds(value: number, limit: number): boolean {
  return value > limit + tolerance;
}
