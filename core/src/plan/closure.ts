import { z } from 'zod';
import { idSchema, nameSchema, versionSchema } from '../schemas';
import { fiberSideSchema } from './fiberEnd';

const fiberRangeSchema = z.strictObject({
  cableId: idSchema,
  side: fiberSideSchema,
  from: z.int().min(1, 'Fibers are numbered from 1.'),
  to: z.int().min(1, 'Fibers are numbered from 1.'),
});
export type FiberRange = z.infer<typeof fiberRangeSchema>;

/** One line of the order as people say it: fibers from–to of one cable meet fibers from–to of another, first to first. */
export const orderLineSchema = z.strictObject({
  id: idSchema,
  left: fiberRangeSchema,
  right: fiberRangeSchema,
  mode: z.literal('single'),
  circuit: nameSchema.nullable(),
});
export type OrderLine = z.infer<typeof orderLineSchema>;

/** How a cable meets the closure. Express, window, branch and drop join here. */
const entrySchema = z.strictObject({ cableId: idSchema, manner: z.literal('cut') });

const traySchema = z.strictObject({
  /** Sleeve holders for single sleeves. */
  singleSlots: z.int().min(1, 'A tray has at least 1 slot.').max(144, 'A tray has at most 144 slots.'),
});
export type Tray = z.infer<typeof traySchema>;

/** A closure at a site, with its own copy of its model, so that a catalogue edit never changes a closure that is in the ground. */
export const closureSchema = z.strictObject({
  id: idSchema,
  siteId: idSchema,
  kind: z.enum(['dome', 'inline', 'terminal', 'drop', 'rack']),
  entries: z.array(entrySchema).max(200),
  /** Trays 1, 2, 3 … from the bottom up. */
  trays: z.array(traySchema).min(1, 'A closure has at least one tray.').max(1000),
  order: z.array(orderLineSchema).max(10_000),
  version: versionSchema,
});
export type Closure = z.infer<typeof closureSchema>;
