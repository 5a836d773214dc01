import { z } from 'zod';
import { idSchema, nameSchema, textSchema, unitNumberSchema, versionSchema } from '../schemas';
import { closureLengthsSchema, kitPartSchema, portSchema, sealingSchema } from './models/closureModel';
import { fiberSideSchema } from './fiberEnd';

/** Fibers, tubes or ribbons from–to of one cable, both included. */
const orderRangeSchema = z.strictObject({
  cableId: idSchema,
  side: fiberSideSchema,
  /** What is counted; fibers where it is not given. */
  of: z.enum(['fiber', 'tube', 'ribbon']).optional(),
  from: unitNumberSchema,
  to: unitNumberSchema,
});
export type OrderRange = z.infer<typeof orderRangeSchema>;

/** One fiber each; whole ribbons; or loose fibers made into ribbons first. */
const spliceModeSchema = z.enum(['single', 'ribbon', 'ribbonized']);
export type SpliceMode = z.infer<typeof spliceModeSchema>;

/** What a fiber end wears where no other fiber is joined to it: a connector that is put on here, or the one with which a pigtail came. */
const connectorSchema = z.enum(['mechanical', 'fusion-connector', 'own']);
export type Connector = z.infer<typeof connectorSchema>;

export const connectorNames: Readonly<Record<Connector, string>> = {
  mechanical: 'mechanical connector',
  'fusion-connector': 'fused connector',
  own: 'own connector',
};

/**
 * One line of the order as people say it: a range of one cable meets a range of another, first to first; or its fibers end here, each in a connector.
 */
export const orderLineSchema = z
  .strictObject({
    id: idSchema,
    left: orderRangeSchema,
    /** null: its fibers end in connectors. */
    right: orderRangeSchema.nullable(),
    connector: connectorSchema.optional(),
    mode: spliceModeSchema,
    /** Reversed: the first fiber of each ribbon meets the last; of single fibers, the first of the range. Straight where it is not given. */
    polarity: z.enum(['straight', 'reversed']).optional(),
    circuit: nameSchema.nullable(),
  })
  .refine(
    ({ right, connector, mode }) =>
      right === null ? connector !== undefined && mode === 'single' : connector === undefined,
    'A line of the order leads to other fibers, or to a connector.',
  );
export type OrderLine = z.infer<typeof orderLineSchema>;

/** The ranges of a line: two, or one where its fibers end in connectors. */
export const rangesOf = ({ left, right }: Pick<OrderLine, 'left' | 'right'>): OrderRange[] =>
  right ? [left, right] : [left];

/**
 * How a cable meets the closure. Cut, branch and drop end in it; express and window go through, with only some tubes opened.
 */
const entrySchema = z.strictObject({
  cableId: idSchema,
  manner: z.enum(['cut', 'express', 'window', 'branch', 'drop']),
  /** The letter by which the order calls the cable here: "A". By its place in the list where it is not given. */
  key: z
    .string()
    .regex(/^[A-Z]{1,3}$/, 'One to three capital letters.')
    .optional(),
  /** Name of the port it enters by; any that fits where it is not given. */
  port: textSchema.max(20).optional(),
  /** Tubes or ribbons that must go through whole. */
  through: z.array(unitNumberSchema).max(1152).optional(),
  /** A drop or pigtails whose splices are splice-on connectors; fused as any other where it is not given. */
  ending: z.enum(['mechanical', 'fusion-connector']).optional(),
});
export type Entry = z.infer<typeof entrySchema>;

const traySchema = z.strictObject({
  /** Sleeve holders for single sleeves. */
  singleSlots: z.int().min(0).max(144, 'A tray has at most 144 slots.'),
  /** Holders for ribbon sleeves. A tray takes sleeves of one kind, not both. None where it is not given. */
  ribbonSlots: z.int().min(0).max(144, 'A tray has at most 144 slots.').optional(),
});
export type Tray = z.infer<typeof traySchema>;

/** Keeps a tube or ribbon of one cable on a tray that a person chose. */
const pinSchema = z.strictObject({
  cableId: idSchema,
  unit: unitNumberSchema,
  tray: z.int().min(1).max(1000),
});
export type Pin = z.infer<typeof pinSchema>;

/** A closure at a site, with its own copy of its model, so that a catalogue edit never changes a closure that is in the ground. */
export const closureSchema = z.strictObject({
  id: idSchema,
  siteId: idSchema,
  kind: z.enum(['dome', 'inline', 'terminal', 'drop', 'rack']),
  /** Name of the model it was copied from. */
  model: nameSchema.optional(),
  ports: z.array(portSchema).max(200).optional(),
  lengths: closureLengthsSchema.optional(),
  /** Parts of the closure's own kit. */
  parts: z.array(kitPartSchema).max(60).optional(),
  /** kPa */
  testPressure: z.number().min(0).max(34.5, 'Never more than 34.5 kPa (5 psi).').optional(),
  sealing: sealingSchema.optional(),
  entries: z.array(entrySchema).max(200),
  /** Trays 1, 2, 3 … from the bottom up. */
  trays: z.array(traySchema).min(1, 'A closure has at least one tray.').max(1000),
  order: z.array(orderLineSchema).max(10_000),
  /** Length of the single sleeves that its holders take, mm; 60 where it is not given. */
  sleeveLength: z.literal([40, 60], 'A single sleeve is 40 or 60 mm long.').optional(),
  /** Slots to be left free on every tray. */
  spareSlots: z.int().min(0).max(100).optional(),
  pins: z.array(pinSchema).max(2000).optional(),
  version: versionSchema,
});
export type Closure = z.infer<typeof closureSchema>;

/** The letter by which the order calls an entry: its own, or that of its place (A, B, … Z, AA, AB, …). */
export function entryKey(entry: Pick<Entry, 'key'>, index: number): string {
  if (entry.key) return entry.key;
  const letter = String.fromCharCode(65 + (index % 26));
  return index < 26 ? letter : entryKey({}, Math.floor(index / 26) - 1) + letter;
}

/** Whether a cable that meets a closure like this goes on behind it: its cut fibers then have two ends. */
export function goesThrough(manner: Entry['manner']): boolean {
  return manner === 'express' || manner === 'window';
}
