import { z } from 'zod';
import { idSchema } from '../schemas';

/**
 * Which cut face of a cable's fiber. A cable that ends in the closure offers one per fiber ("end"); an express cable offers two
 * for a fiber that is cut, toward the low and toward the high chainage.
 */
export const fiberSideSchema = z.enum(['end', 'low', 'high']);
export type FiberSide = z.infer<typeof fiberSideSchema>;

export interface FiberEnd {
  readonly cableId: string;
  /** Number in the cable. */
  readonly fiber: number;
  readonly side: FiberSide;
}

export const fiberEndSchema = z.strictObject({
  cableId: idSchema,
  fiber: z.int().min(1),
  side: fiberSideSchema,
});

export function fiberEndKey(end: FiberEnd): string {
  return `${end.cableId}.${end.fiber}.${end.side}`;
}

/**
 * A splice is known by the ends it joins, not by its tray, slot or order line: laying out the trays anew, or swapping left and
 * right in an order, never cuts it from its facts. Unique within its closure.
 */
export function spliceId(left: readonly FiberEnd[], right: readonly FiberEnd[]): string {
  const one = keyOfSide(left);
  const other = keyOfSide(right);
  return one < other ? `${one}~${other}` : `${other}~${one}`;
}

function keyOfSide(ends: readonly FiberEnd[]): string {
  return ends.length === 1 ? fiberEndKey(ends[0]!) : ends.map(fiberEndKey).join('+');
}

/** How many fibers a splice of this id joins on each side. */
export function fibersOfSpliceId(id: string): number {
  return id.split('~')[0]!.split('+').length;
}

/** The ends a splice id was made of, or null when it is not one. Which side was left is not kept in an id. */
export function endsOfSpliceId(id: string): [FiberEnd[], FiberEnd[]] | null {
  const sides = id.split('~').map((side) => side.split('+').map(endOfKey));
  const [one, other] = sides;
  if (sides.length !== 2 || !one || !other || one.length !== other.length) return null;
  if (!one.every((end) => end !== null) || !other.every((end) => end !== null)) return null;
  return [one, other];
}

function endOfKey(key: string): FiberEnd | null {
  const [cableId, fiber, side] = key.split('.');
  const end = fiberEndSchema.safeParse({ cableId, fiber: Number(fiber), side });
  return end.success ? end.data : null;
}
