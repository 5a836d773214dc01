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

/** The most fibers a cable can have: 576 ribbons of 24. */
const mostFibers = 13_824;
const fiberNumber = z.int().min(1, 'Fibers are numbered from 1.').max(mostFibers);

export const fiberEndSchema = z.strictObject({
  cableId: idSchema,
  fiber: fiberNumber,
  side: fiberSideSchema,
});

/** Ends of one cable, one number after the other; `to` below `from` counts down. */
export const fiberRunSchema = z.strictObject({
  cableId: idSchema,
  from: fiberNumber,
  to: fiberNumber,
  side: fiberSideSchema,
});
export type FiberRun = Readonly<z.infer<typeof fiberRunSchema>>;

export function fiberEndKey(end: FiberEnd): string {
  return `${end.cableId}.${end.fiber}.${end.side}`;
}

/** The same ends in the same order, as few runs as they make. */
export function runsOf(ends: readonly FiberEnd[]): FiberRun[] {
  const runs: { cableId: string; from: number; to: number; side: FiberSide }[] = [];
  for (const { cableId, fiber, side } of ends) {
    const run = runs.at(-1);
    if (run && run.cableId === cableId && run.side === side) {
      const step = run.to === run.from ? fiber - run.to : Math.sign(run.to - run.from);
      if (Math.abs(step) === 1 && fiber === run.to + step) {
        run.to = fiber;
        continue;
      }
    }
    runs.push({ cableId, from: fiber, to: fiber, side });
  }
  return runs;
}

/** How many ends these runs are. */
export function countOfRuns(runs: readonly FiberRun[]): number {
  return runs.reduce((sum, { from, to }) => sum + Math.abs(to - from) + 1, 0);
}

/** The ends of these runs, in their order. */
export function endsOfRuns(runs: readonly FiberRun[]): FiberEnd[] {
  const ends: FiberEnd[] = [];
  for (const { cableId, from, to, side } of runs) {
    const step = to < from ? -1 : 1;
    for (let fiber = from; fiber !== to + step; fiber += step) ends.push({ cableId, fiber, side });
  }
  return ends;
}

/**
 * A splice is known by the ends it joins, not by its tray, slot or order line: laying out the trays anew, or swapping left and
 * right in an order, never cuts it from its facts. The same pairs give the same id, whichever side and whichever pair is named first, so a
 * reversed ribbon has one id too, and another than the straight one. Written as runs: "cable.13-24.low~cable.1-12.end". For comparing only; nothing is read
 * from it. Unique within its closure.
 */
export function spliceId(left: readonly FiberEnd[], right: readonly FiberEnd[]): string {
  if (left.length === 1 && right.length === 1) {
    const [one, other] = [left[0]!, right[0]!];
    return compareEnds(one, other) <= 0
      ? `${endKey(one)}~${endKey(other)}`
      : `${endKey(other)}~${endKey(one)}`;
  }
  const [one, other] = compareEnds(least(left), least(right)) <= 0 ? [left, right] : [right, left];
  const order = [...one.keys()].sort((a, b) => compareEnds(one[a]!, one[b]!));
  return `${keyOfSide(order.map((at) => one[at]!))}~${keyOfSide(order.map((at) => other[at]!))}`;
}

const endKey = (end: FiberEnd) => `${end.cableId}.${end.fiber}.${end.side}`;

function keyOfSide(ends: readonly FiberEnd[]): string {
  return runsOf(ends)
    .map(({ cableId, from, to, side }) => `${cableId}.${from === to ? from : `${from}-${to}`}.${side}`)
    .join('+');
}

function least(ends: readonly FiberEnd[]): FiberEnd {
  return ends.reduce((known, end) => (compareEnds(end, known) < 0 ? end : known));
}

function compareEnds(a: FiberEnd, b: FiberEnd): number {
  if (a.cableId !== b.cableId) return a.cableId < b.cableId ? -1 : 1;
  if (a.side !== b.side) return a.side < b.side ? -1 : 1;
  return a.fiber - b.fiber;
}

/**
 * The ends of a splice id as Cordel 0.1 wrote it, every end with its cable; null when it is not one. Which side was left is not kept in
 * it; the order of the pairs is.
 */
export function endsOfOldSpliceId(id: string): [FiberEnd[], FiberEnd[]] | null {
  const sides = id.split('~').map((side) => side.split('+').map(endOfKey));
  const [one, other] = sides;
  if (sides.length !== 2 || !one || !other || one.length !== other.length) return null;
  if (!one.every((end) => end !== null) || !other.every((end) => end !== null)) return null;
  return [one, other];
}

/** The end that `fiberEndKey` named, or null. */
export function endOfKey(key: string): FiberEnd | null {
  const [cableId, fiber, side, ...more] = key.split('.');
  const end = fiberEndSchema.safeParse({ cableId, fiber: Number(fiber), side });
  return end.success && more.length === 0 ? end.data : null;
}
