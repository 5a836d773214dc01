import type { Finding } from '../finding';
import type { Cable } from '../line/cable';
import { fiberCount } from '../line/fiberNumber';
import type { Closure, FiberRange } from './closure';
import { fiberEndKey, spliceId, type FiberEnd } from './fiberEnd';

/** A splice as planned: ends left joined to ends right. A single splice has one end on each side, a ribbon as many as it has fibers. */
export interface PlannedSplice {
  readonly id: string;
  readonly kind: 'single' | 'ribbon';
  readonly left: readonly FiberEnd[];
  readonly right: readonly FiberEnd[];
  readonly circuit: string | null;
}

/**
 * The splices that a closure's order asks for, in the order of its lines. What can't be done is left out and told:
 * an unknown cable, a fiber that does not exist, ranges of different length, an end used twice.
 */
export function expandOrder(
  closure: Closure,
  cables: ReadonlyMap<string, Cable>,
): { splices: PlannedSplice[]; findings: Finding[] } {
  const splices: PlannedSplice[] = [];
  const findings: Finding[] = [];
  const usedIn = new Map<string, number>();

  closure.order.forEach((line, index) => {
    const where = `order line ${index + 1}`;
    const say = (code: string, message: string) =>
      void findings.push({ code, severity: 'error', where, message });

    const ranges = [line.left, line.right];
    const troubles = ranges.map((range) => rangeTrouble(range, cables.get(range.cableId)));
    troubles.forEach((trouble) => trouble && say('range', trouble));
    if (troubles.some(Boolean)) return;

    const length = line.left.to - line.left.from + 1;
    const rightLength = line.right.to - line.right.from + 1;
    if (length !== rightLength) {
      say(
        'range-lengths-differ',
        `Order line ${index + 1} joins ${length} fibers to ${rightLength}. Give both sides the same number.`,
      );
      return;
    }

    for (let step = 0; step < length; step += 1) {
      const left = endOf(line.left, step);
      const right = endOf(line.right, step);
      const taken = [left, right].find((end) => usedIn.has(fiberEndKey(end)));
      if (taken || fiberEndKey(left) === fiberEndKey(right)) {
        const end = taken ?? left;
        const before = usedIn.get(fiberEndKey(end)) ?? index + 1;
        say(
          'end-used-twice',
          `${cables.get(end.cableId)!.label} fiber ${end.fiber} is used twice, in order lines ${before} and ${index + 1}. Take it out of one.`,
        );
        continue;
      }
      usedIn.set(fiberEndKey(left), index + 1);
      usedIn.set(fiberEndKey(right), index + 1);
      splices.push({
        id: spliceId([left], [right]),
        kind: 'single',
        left: [left],
        right: [right],
        circuit: line.circuit,
      });
    }
  });
  return { splices, findings };
}

function endOf(range: FiberRange, step: number): FiberEnd {
  return { cableId: range.cableId, fiber: range.from + step, side: range.side };
}

function rangeTrouble(range: FiberRange, cable: Cable | undefined): string | null {
  if (!cable) return 'The order names a cable that the project does not have. Pick one of its cables.';
  const count = fiberCount(cable.construction);
  if (range.to < range.from)
    return `${cable.label} ${range.from}–${range.to} runs backwards. Put the lower number first.`;
  if (range.to > count)
    return `${cable.label} has ${count} fibers, so there is no fiber ${range.to}. End the range at ${count} or less.`;
  return null;
}
