import type { Say } from '../../finding';
import type { Cable } from '../../line/cable';
import { fiberCount } from '../../line/fiberNumber';
import type { OrderRange } from '../closure';
import type { FiberSide } from '../fiberEnd';
import type { PlanFinding } from '../words';

interface TakenEnd {
  readonly cableId: string;
  readonly fiber: number;
  /** The line that took it before. */
  readonly line: number;
}

/** Ends that a line takes though another took them before, as few runs as they make. */
export class Overlaps {
  private readonly runs: { cableId: string; line: number; from: number; to: number }[] = [];

  constructor(private readonly cables: ReadonlyMap<string, Cable>) {}

  add({ cableId, fiber, line }: TakenEnd): void {
    const last = this.runs.at(-1);
    const beside = last?.cableId === cableId && last.line === line ? last : null;
    if (beside && fiber === beside.to + 1) beside.to = fiber;
    else if (beside && fiber === beside.from - 1) beside.from = fiber;
    else this.runs.push({ cableId, line, from: fiber, to: fiber });
  }

  tell(say: Say<PlanFinding>, number: number): void {
    for (const { cableId, line, from, to } of this.runs)
      say('end-used-twice', { label: this.cables.get(cableId)!.label, from, to, lines: [line, number] });
  }
}

/** Which order line took each end, by cable and side. */
export class UsedEnds {
  private readonly lines = new Map<string, Partial<Record<FiberSide, Int32Array>>>();

  constructor(private readonly cables: ReadonlyMap<string, Cable>) {}

  private of({ cableId, side }: OrderRange): Int32Array {
    let sides = this.lines.get(cableId);
    if (!sides) this.lines.set(cableId, (sides = {}));
    return (sides[side] ??= new Int32Array(fiberCount(this.cables.get(cableId)!.construction) + 1));
  }

  /** Takes `size` ends on both sides for a line. When one of them is taken already, takes none and returns it. */
  take(
    left: OrderRange,
    leftFirst: number,
    right: OrderRange,
    rightFirst: number,
    size: number,
    line: number,
  ): TakenEnd | null {
    const [a, b] = [this.of(left), this.of(right)];
    for (let step = 0; step < size; step += 1) {
      if (a[leftFirst + step])
        return { cableId: left.cableId, fiber: leftFirst + step, line: a[leftFirst + step]! };
      if (b[rightFirst + step])
        return { cableId: right.cableId, fiber: rightFirst + step, line: b[rightFirst + step]! };
      if (a === b && leftFirst < rightFirst + size && rightFirst < leftFirst + size)
        return { cableId: left.cableId, fiber: leftFirst, line };
    }
    a.fill(line, leftFirst, leftFirst + size);
    b.fill(line, rightFirst, rightFirst + size);
    return null;
  }

  /** Takes one end for a line; when it is taken already, returns it. */
  takeOne(range: OrderRange, fiber: number, line: number): TakenEnd | null {
    const lines = this.of(range);
    const before = lines[fiber]!;
    if (before) return { cableId: range.cableId, fiber, line: before };
    lines[fiber] = line;
    return null;
  }
}
