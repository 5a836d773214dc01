import type { Cable, Construction } from '../../line/cable';
import { fiberCount, fiberUnits } from '../../line/fiberNumber';
import type { Pin, Tray } from '../closure';
import type { FiberEnd, FiberSide } from '../fiberEnd';
import type { PlannedSplice } from '../order/order';

export interface PlacedSplice extends PlannedSplice {
  /** 1 … from the bottom up. */
  readonly tray: number;
  /** 1 … in the tray. */
  readonly slot: number;
}

/** Why splices that belong together are where they are. */
export interface Placement {
  /** Position of the first of them in the order, and how many there are on this tray. */
  readonly first: number;
  readonly count: number;
  readonly tray: number;
  readonly because: 'next' | 'next-tray' | 'pinned' | 'room-left' | 'split';
  /** Free slots on the tray before, where it was passed over. */
  readonly passedOver: { readonly tray: number; readonly free: number } | null;
}

export interface TrayLayout {
  /** Tray by tray, slot by slot. */
  readonly placed: PlacedSplice[];
  /** In the order of the splices. */
  readonly unplaced: PlannedSplice[];
  readonly placements: Placement[];
  /** Pins that could not be kept, each with why. */
  readonly brokenPins: { readonly pin: Pin; readonly because: 'no-tray' | 'no-room' | 'nothing-there' }[];
}

export interface LayoutWishes {
  /** Slots to be left free on every tray. */
  readonly spareSlots?: number;
  readonly pins?: readonly Pin[];
}

/**
 * Puts splices into slots. Splices of one tube, on either side, stay together on a tray; the order is kept; what a person pinned to a
 * tray goes there; a tray takes sleeves of one kind; and as few trays are used as that allows. What is larger than a tray is split, by
 * the tubes of the left side first. What finds no room behind the last tray that was used goes where room is left, whole if it can,
 * and only what finds no slot at all stays out.
 *
 * With the order kept and groups whole, filling each tray before the next one uses the fewest trays: no other way is further along the
 * order after any number of trays.
 */
export function layOutTrays(
  splices: readonly PlannedSplice[],
  trays: readonly Tray[],
  cables: ReadonlyMap<string, Cable>,
  { spareSlots = 0, pins = [] }: LayoutWishes = {},
): TrayLayout {
  const holders = new Holders(cables);
  const room = new Room(trays, spareSlots);
  const largest = { single: room.largest('single'), ribbon: room.largest('ribbon') };
  const trayOf = new Int32Array(splices.length).fill(-1);
  const placements: Placement[] = [];

  const put = (
    group: readonly number[],
    tray: number,
    because: Placement['because'],
    passedOver: Placement['passedOver'] = null,
  ) => {
    for (const index of group) trayOf[index] = tray;
    room.take(tray, splices[group[0]!]!.kind, group.length);
    placements.push({ first: group[0]!, count: group.length, tray: tray + 1, because, passedOver });
  };

  const { groups, brokenPins, pinned } = bind(splices, holders, largest, pins);
  for (const { group, pin } of pinned) {
    const kind = splices[group[0]!]!.kind;
    if (pin.tray > trays.length) brokenPins.push({ pin, because: 'no-tray' });
    else if (room.free(pin.tray - 1, kind) < group.length) brokenPins.push({ pin, because: 'no-room' });
    else {
      put(group, pin.tray - 1, 'pinned');
      continue;
    }
    groups.push(group);
  }
  groups.sort((a, b) => a[0]! - b[0]!);

  const late: (readonly number[])[] = [];
  let at = 0;
  for (const group of groups) {
    const { kind } = splices[group[0]!]!;
    let tray = at;
    while (tray < trays.length && room.free(tray, kind) < group.length) tray += 1;
    if (tray >= trays.length) {
      late.push(group);
      continue;
    }
    const free = tray > at ? room.free(at, kind) : 0;
    put(group, tray, tray > at ? 'next-tray' : 'next', tray > at ? { tray: at + 1, free } : null);
    at = tray;
  }
  for (const group of late) {
    const { kind } = splices[group[0]!]!;
    const tray = trays.findIndex((_, index) => room.free(index, kind) >= group.length);
    if (tray >= 0) {
      put(group, tray, 'room-left');
      continue;
    }
    // No tray takes it whole any more.
    for (let start = 0, next = 0; start < group.length && next < trays.length; next += 1) {
      const piece = group.slice(start, start + room.free(next, kind));
      if (piece.length === 0) continue;
      put(piece, next, 'split');
      start += piece.length;
    }
  }
  return { ...inSlots(splices, trayOf, trays.length), placements, brokenPins };
}

/** What each splice belongs to, as groups of splice indexes in order, each small enough for a tray. */
function bind(
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
    const b = bound.number(holders.of(right[0]!), kind);
    leftOf[index] = a;
    bound.join(a, b);
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
    for (const part of byLeft.values())
      for (let start = 0; start < part.length; start += most) groups.push(part.slice(start, start + most));
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

/** Free slots of every tray. The first sleeve on a tray decides which kind it takes. */
class Room {
  private readonly left: { single: number; ribbon: number }[];

  constructor(trays: readonly Tray[], spare: number) {
    this.left = trays.map((tray) => ({
      single: Math.max(0, tray.singleSlots - spare),
      ribbon: Math.max(0, (tray.ribbonSlots ?? 0) - spare),
    }));
  }

  largest(kind: 'single' | 'ribbon'): number {
    return this.left.reduce((most, tray) => Math.max(most, tray[kind]), 0);
  }

  free(tray: number, kind: 'single' | 'ribbon'): number {
    return this.left[tray]![kind];
  }

  take(tray: number, kind: 'single' | 'ribbon', count: number): void {
    const left = this.left[tray]!;
    left[kind] -= count;
    left[kind === 'single' ? 'ribbon' : 'single'] = 0;
  }
}

/**
 * What a fiber is taken out of the cable with: its tube, also where ribbons lie in one. Ribbons of a central tube stand for themselves, and
 * so does every fiber that nothing holds. Counted once for each cable.
 */
class Holders {
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

function inSlots(splices: readonly PlannedSplice[], trayOf: Int32Array, trayCount: number) {
  const rows: number[][] = Array.from({ length: trayCount }, () => []);
  const unplaced: PlannedSplice[] = [];
  for (let index = 0; index < splices.length; index += 1) {
    const tray = trayOf[index]!;
    if (tray < 0) unplaced.push(splices[index]!);
    else rows[tray]!.push(index);
  }
  const placed: PlacedSplice[] = [];
  rows.forEach((row, tray) =>
    row.forEach((index, position) => {
      // Written out, not spread: objects made alike in one piece are what judging thousands of them reads twice as fast.
      const { id, kind, left, right, circuit, unread } = splices[index]!;
      const at = { id, kind, left, right, circuit, tray: tray + 1, slot: position + 1 };
      placed.push(unread ? { ...at, unread } : at);
    }),
  );
  return { placed, unplaced };
}
