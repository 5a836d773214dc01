import type { Cable, Construction } from '../../line/cable';
import { fiberCount, fiberUnits } from '../../line/fiberNumber';
import type { Pin } from '../closure';
import type { FiberEnd, FiberSide } from '../fiberEnd';
import type { PlannedSplice } from '../order/order';
import type { TrayLayout } from './trayLayout';

/** What each splice belongs to, as groups of splice indexes in order; where all that is bound is larger than any tray, each tube of the left side by itself. */
export function bind(
  splices: readonly PlannedSplice[],
  holders: Holders,
  largest: Readonly<Record<'single' | 'ribbon', number>>,
  pins: readonly Pin[],
) {
  const bound = new Bound();
  const leftOf = new Int32Array(splices.length);
  for (let index = 0; index < splices.length; index += 1) {
    const { kind, left, right } = splices[index]!;
    const a = bound.number(holders.of(left[0]!), kind);
    leftOf[index] = a;
    // A ribbon that was made of loose fibers may hold some of two tubes.
    for (const end of kind === 'single' ? [right[0]!] : [...left.slice(1), ...right])
      bound.join(a, bound.number(holders.of(end), kind));
  }
  const whole = new Map<number, number[]>();
  for (let index = 0; index < splices.length; index += 1) {
    const root = bound.root(leftOf[index]!);
    const known = whole.get(root);
    if (known) known.push(index);
    else whole.set(root, [index]);
  }

  const groups: number[][] = [];
  for (const group of whole.values()) {
    const most = Math.max(1, largest[splices[group[0]!]!.kind]);
    if (group.length <= most) {
      groups.push(group);
      continue;
    }
    const byLeft = new Map<number, number[]>();
    for (const index of group) {
      const known = byLeft.get(leftOf[index]!);
      if (known) known.push(index);
      else byLeft.set(leftOf[index]!, [index]);
    }
    groups.push(...byLeft.values());
  }

  const brokenPins: TrayLayout['brokenPins'] = [];
  const pinned: { group: number[]; pin: Pin }[] = [];
  for (const pin of pins) {
    const hit = groups.findIndex((group) =>
      group.some((index) => {
        const { left, right } = splices[index]!;
        return [left[0]!, right[0]!].some(
          (end) => end.cableId === pin.cableId && holders.unit(end) === pin.unit,
        );
      }),
    );
    if (hit < 0) brokenPins.push({ pin, because: 'nothing-there' });
    else pinned.push({ group: groups.splice(hit, 1)[0]!, pin });
  }
  return { groups, pinned, brokenPins };
}

/**
 * What a fiber is taken out of the cable with: its tube, also where ribbons lie in one. Ribbons of a central tube stand for themselves, and
 * so does every fiber that nothing holds. Counted once for each cable.
 */
export class Holders {
  /** By cable and then by side: names joined to one key would be made anew for every fiber. */
  private readonly known = new Map<string, Partial<Record<FiberSide, { units: Int32Array; base: number }>>>();
  private next = 0;

  constructor(private readonly cables: ReadonlyMap<string, Cable>) {}

  private side({ cableId, side }: FiberEnd): { units: Int32Array; base: number } {
    let sides = this.known.get(cableId);
    if (!sides) this.known.set(cableId, (sides = {}));
    const known = sides[side];
    if (known) return known;
    const units = unitByFiber(this.cables.get(cableId)!.construction);
    const made = { units, base: this.next };
    this.next += 2 * units.length;
    return (sides[side] = made);
  }

  /** Number of the tube, or of the ribbon; 0 where nothing holds the fiber. */
  unit(end: FiberEnd): number {
    return this.side(end).units[end.fiber]!;
  }

  /** One number for each holder on each side of each cable; one of its own for a fiber that nothing holds. */
  of(end: FiberEnd): number {
    const { units, base } = this.side(end);
    const unit = units[end.fiber]!;
    return base + (unit > 0 ? unit : units.length + end.fiber);
  }
}

const byFiber = new WeakMap<Construction, Int32Array>();

/** For each fiber of a cable, by its number, the tube or ribbon that it is taken out with; 0 where nothing holds it. */
export function unitByFiber(construction: Construction): Int32Array {
  const known = byFiber.get(construction);
  if (known) return known;
  const holder = new Int32Array(fiberCount(construction) + 1);
  for (const unit of fiberUnits(construction)) {
    const number = unit.kind === 'bundle' ? 0 : (unit.tube ?? unit.unit);
    holder.fill(number, unit.first, unit.first + unit.fibers);
  }
  byFiber.set(construction, holder);
  return holder;
}

/** Joins what belongs together (disjoint sets; path halving). Sleeves of different kinds are never bound: they lie on different trays. */
class Bound {
  private readonly numbers = { single: new Map<number, number>(), ribbon: new Map<number, number>() };
  private readonly up: number[] = [];

  number(holder: number, kind: 'single' | 'ribbon'): number {
    const known = this.numbers[kind].get(holder);
    if (known !== undefined) return known;
    const number = this.up.length;
    this.up.push(number);
    this.numbers[kind].set(holder, number);
    return number;
  }

  root(number: number): number {
    let at = number;
    while (this.up[at] !== at) at = this.up[at] = this.up[this.up[at]!]!;
    return at;
  }

  join(a: number, b: number): void {
    const [one, other] = [this.root(a), this.root(b)];
    if (one !== other) this.up[Math.max(one, other)] = Math.min(one, other);
  }
}
