import { z } from 'zod';
import { conditionsSchema } from '../facts/gearRef';
import { idSchema, nameSchema, timeSchema } from '../schemas';

/**
 * What a splicing machine tells Cordel, and how. An adapter for a real one implements `MachineLink` and passes `linkConformance.ts`; docs/machine-link.md says how.
 * Losses in dB, angles in degrees, lengths in μm, times in UTC by the machine's own clock.
 */

const angle = z.number().min(0).max(90).nullable();
const length = z.number().min(0).max(1000).nullable();

const seenSchema = z.strictObject({ cleaveLeft: angle, cleaveRight: angle, offset: length, gap: length });
/** null: the machine shows none. */
export type SeenFiber = Readonly<z.infer<typeof seenSchema>>;

const fusedSchema = seenSchema.extend({ loss: z.number().min(0).max(99).nullable() });

const fibers = <T extends z.ZodType>(one: T) => z.array(one).min(1).max(24);

export const machineStates = [
  /** Open, or with nothing in it. */
  'ready',
  /** The ends are brought together and looked at. */
  'gap-set',
  /** It waits for a key before the arc. */
  'pause',
  'arc',
  'estimate',
  'proof-test',
  /** The splice is to be taken out. */
  'done',
  'calibration',
] as const;
export type MachineState = (typeof machineStates)[number];

const base = {
  /** Rises by one from event to event, as long as the machine keeps its memory. */
  number: z.int().min(1),
  at: timeSchema,
};

const resultShape = {
  /** The machine's own number of the splice. */
  splice: z.int().min(1),
  fibers: fibers(fusedSchema),
  proofTestFailed: z.boolean(),
  program: nameSchema.nullable(),
};

export const machineEventSchema = z.discriminatedUnion('kind', [
  z.strictObject({ ...base, kind: z.literal('state'), state: z.enum(machineStates) }),
  /** What it sees before the arc; again after the ends were seated or cleaved anew. */
  z.strictObject({ ...base, kind: z.literal('before'), fibers: fibers(seenSchema) }),
  z.strictObject({ ...base, kind: z.literal('result'), ...resultShape }),
  z.strictObject({
    ...base,
    kind: z.literal('calibration'),
    passed: z.boolean(),
    conditions: conditionsSchema,
  }),
  z.strictObject({
    ...base,
    kind: z.literal('heater'),
    did: z.enum(['began', 'ended']),
    program: nameSchema,
    seconds: z.int().min(1),
  }),
  /** What is set was changed at the machine. */
  z.strictObject({
    ...base,
    kind: z.literal('set'),
    program: nameSchema.nullable(),
    heater: nameSchema.nullable(),
  }),
]);
export type MachineEvent = Readonly<z.infer<typeof machineEventSchema>>;

export const machineStatusSchema = z.strictObject({
  state: z.enum(machineStates),
  program: nameSchema.nullable(),
  heater: nameSchema.nullable(),
  /** Arcs on its electrodes; null where it does not count them. */
  arcs: z.int().min(0).nullable(),
  conditions: conditionsSchema.nullable(),
  /** `number` of its last event; 0 where there was none. */
  last: z.int().min(0),
});
export type MachineStatus = Readonly<z.infer<typeof machineStatusSchema>>;

/** A splice in the machine's memory. */
export const logRowSchema = z.strictObject({ at: timeSchema, ...resultShape });
export type LogRow = Readonly<z.infer<typeof logRowSchema>>;

export const foundMachineSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  /** No glass is involved: what it says is recorded as simulated, and said everywhere. */
  simulated: z.boolean(),
});
export type FoundMachine = Readonly<z.infer<typeof foundMachineSchema>>;

/** What of an AbortSignal is needed. */
export interface Stop {
  readonly aborted: boolean;
  addEventListener(type: 'abort', listener: () => void): void;
}

/** A way to splicing machines. Every promise rejects with an Error whose message is for the person. */
export interface MachineLink {
  /** The machines that can be reached now. */
  discover(): Promise<readonly FoundMachine[]>;
  status(machineId: string): Promise<MachineStatus>;
  /**
   * Events with numbers above `after`, those that were missed first, then each as it happens. Ends when `signal` is aborted; throws where the machine cannot be reached any more, or has
   * forgotten what came after `after`.
   */
  events(machineId: string, after: number, signal: Stop): AsyncIterable<MachineEvent>;
  /** The machine's memory from a splice number on, oldest first. */
  log(machineId: string, after: number): Promise<readonly LogRow[]>;
}
