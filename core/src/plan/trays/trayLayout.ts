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
  readonly because: 'next' | 'next-tray' | 'pinned' | 'room-left' | 'kept-whole' | 'split';
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
 * tray goes there; a tray takes sleeves of one kind; and as few trays are used as that allows. What is larger than a tray goes on from one to the next.
 *
 * With the order kept and groups whole, filling each tray before the next one uses the fewest trays: no other way is further along the
 * order after any number of trays. Where that leaves something without a whole place, the order is given up before a tube is split: as many as possible lie whole
 * on a tray, and trays that take either kind of sleeve are kept for the kind that fits nowhere else.
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
  const { groups, brokenPins, pinned } = bind(splices, holders, largest, pins);
  const fixed: Part[] = [];
  for (const { group, pin } of pinned) {
    const kind = splices[group[0]!]!.kind;
    if (pin.tray > trays.length) brokenPins.push({ pin, because: 'no-tray' });
    else if (room.free(pin.tray - 1, kind) < group.length) brokenPins.push({ pin, because: 'no-room' });
    else {
      room.take(pin.tray - 1, kind, group.length);
      fixed.push({ group, of: group[0]!, tray: pin.tray - 1, because: 'pinned', passedOver: null });
      continue;
    }
    groups.push(group);
  }
  groups.sort((a, b) => a[0]! - b[0]!);
  const parcels = groups.map((group): Parcel => ({ group, of: group[0]!, kind: splices[group[0]!]!.kind }));

  let best = arrange(parcels, room);
  if (best.left + best.split > 0 && new Set(parcels.map(({ kind }) => kind)).size === 2)
    for (const reserved of room.reservations()) {
      const other = arrange(parcels, reserved);
      if (isBetter(other, best)) best = other;
    }

  const trayOf = new Int32Array(splices.length).fill(-1);
  const placements: Placement[] = [];
  for (const { group, tray, because, passedOver } of [...fixed, ...best.parts]) {
    for (const index of group) trayOf[index] = tray;
    placements.push({ first: group[0]!, count: group.length, tray: tray + 1, because, passedOver });
  }
  return { ...inSlots(splices, trayOf, trays.length), placements, brokenPins };
}

/** Splices that lie together, by their indexes in order. */
interface Parcel {
  readonly group: readonly number[];
  /** The first of them, also where only the rest is meant. */
  readonly of: number;
  readonly kind: 'single' | 'ribbon';
}

/** Splices of a parcel that lie on one tray, counted from 0. */
interface Part extends Pick<Placement, 'because' | 'passedOver'> {
  readonly group: readonly number[];
  readonly tray: number;
  /** The first splice of all of its parcel. */
  readonly of: number;
}

interface Arrangement {
  readonly parts: readonly Part[];
  /** Splices without a slot, parcels that are on several trays, and trays that are used. */
  readonly left: number;
  readonly split: number;
  readonly used: number;
}

function isBetter(one: Arrangement, other: Arrangement): boolean {
  const differs = (['left', 'split', 'used'] as const).find((what) => one[what] !== other[what]);
  return differs !== undefined && one[differs] < other[differs];
}

/** In order where that leaves every parcel whole; else in the way that leaves most of them whole. */
function arrange(parcels: readonly Parcel[], free: Room): Arrangement {
  const inOrder = fillInOrder(parcels, free.copy());
  const wanting = parcels.length - inOrder.whole;
  const oversized = parcels.filter(({ group, kind }) => group.length > free.largest(kind)).length;
  if (wanting <= oversized && inOrder.left === 0) return inOrder;
  const packed = packWhole(parcels, free.copy());
  return isBetter(packed, inOrder) ? packed : inOrder;
}

/** Every tray is filled before the next one; what found no room behind goes where room is left, whole if it can. */
function fillInOrder(parcels: readonly Parcel[], room: Room): Arrangement & { readonly whole: number } {
  const parts: Part[] = [];
  const late: Parcel[] = [];
  let at = 0;
  let whole = 0;
  const put = (
    parcel: Parcel,
    tray: number,
    because: Part['because'],
    passedOver: Part['passedOver'] = null,
  ) => {
    room.take(tray, parcel.kind, parcel.group.length);
    parts.push({ group: parcel.group, of: parcel.of, tray, because, passedOver });
    whole += 1;
  };
  for (const parcel of parcels) {
    const { group, kind } = parcel;
    if (group.length > room.largestAtAll(kind)) {
      // No tray holds it whole: it goes on from where the one before ended.
      const rest = flow(parcel, room, at, parts);
      if (rest.length > 0) late.push({ ...parcel, group: rest });
      at = Math.max(at, ...parts.slice(-1).map(({ tray }) => tray));
      continue;
    }
    let tray = at;
    while (tray < room.trays && room.free(tray, kind) < group.length) tray += 1;
    if (tray >= room.trays) {
      late.push(parcel);
      continue;
    }
    const free = tray > at ? room.free(at, kind) : 0;
    put(parcel, tray, tray > at ? 'next-tray' : 'next', tray > at ? { tray: at + 1, free } : null);
    at = tray;
  }
  let left = 0;
  for (const parcel of late) {
    const tray = room.firstWith(parcel.kind, parcel.group.length);
    if (tray >= 0) put(parcel, tray, 'room-left');
    // No tray takes it whole any more.
    else left += flow(parcel, room, 0, parts).length;
  }
  return { ...counted(parts, left), whole };
}

/** Puts a parcel in pieces on the trays from one on, as far as there is room; returns what found none. */
function flow({ group, kind, of }: Parcel, room: Room, from: number, parts: Part[]): readonly number[] {
  let start = 0;
  for (let tray = from; start < group.length && tray < room.trays; tray += 1) {
    const piece = group.slice(start, start + room.free(tray, kind));
    if (piece.length === 0) continue;
    room.take(tray, kind, piece.length);
    parts.push({ group: piece, of, tray, because: 'split', passedOver: null });
    start += piece.length;
  }
  return group.slice(start);
}

/** Steps of the search for a way to keep parcels whole; a closure's plan needs a few hundred. */
const mostSteps = 20_000;

/** Finds places for as many parcels as possible, the largest first, each on the tray that it fills best; the others are split over what is left. */
function packWhole(parcels: readonly Parcel[], room: Room): Arrangement {
  const order = parcels
    .map((_, index) => index)
    .sort((a, b) => parcels[b]!.group.length - parcels[a]!.group.length || a - b);
  const chosen = new Int32Array(parcels.length).fill(-1);
  let best = chosen.slice();
  let most = -1;
  let steps = 0;
  const search = (at: number, whole: number): void => {
    if (whole > most) {
      most = whole;
      best = chosen.slice();
    }
    steps += 1;
    if (at === order.length || steps > mostSteps || whole + order.length - at <= most) return;
    const index = order[at]!;
    const { group, kind } = parcels[index]!;
    const seen = new Set<string>();
    const fits: number[] = [];
    for (let tray = 0; tray < room.trays; tray += 1) {
      if (room.free(tray, kind) < group.length) continue;
      // Trays that are alike are tried once.
      const like = room.like(tray);
      if (!seen.has(like)) fits.push(tray);
      seen.add(like);
    }
    fits.sort((a, b) => room.free(a, kind) - room.free(b, kind) || a - b);
    for (const tray of fits) {
      const before = room.state(tray);
      room.take(tray, kind, group.length);
      chosen[index] = tray;
      search(at + 1, whole + 1);
      chosen[index] = -1;
      room.restore(tray, before);
      if (most === order.length) return;
    }
    search(at + 1, whole);
  };
  search(0, 0);
  const parts: Part[] = [];
  parcels.forEach(({ group, kind }, index) => {
    const tray = best[index]!;
    if (tray < 0) return;
    room.take(tray, kind, group.length);
    parts.push({ group, of: group[0]!, tray, because: 'kept-whole', passedOver: null });
  });
  let left = 0;
  parcels.forEach((parcel, index) => {
    if (best[index]! < 0) left += flow(parcel, room, 0, parts).length;
  });
  return counted(parts, left);
}

function counted(parts: readonly Part[], left: number): Arrangement {
  const split = new Set(parts.flatMap(({ because, of }) => (because === 'split' ? [of] : []))).size;
  const used = new Set(parts.map(({ tray }) => tray)).size;
  return { parts, left, split, used };
}

/** What each splice belongs to, as groups of splice indexes in order; where all that is bound is larger than any tray, each tube of the left side by itself. */
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

/** Free slots of every tray. The first sleeve on a tray decides which kind it takes. */
class Room {
  private left: { single: number; ribbon: number }[];
  private readonly whole: Readonly<Record<'single' | 'ribbon', number>>;

  constructor(trays: readonly Tray[], spare: number) {
    this.left = trays.map((tray) => ({
      single: Math.max(0, tray.singleSlots - spare),
      ribbon: Math.max(0, (tray.ribbonSlots ?? 0) - spare),
    }));
    this.whole = { single: this.largest('single'), ribbon: this.largest('ribbon') };
  }

  get trays(): number {
    return this.left.length;
  }

  copy(): Room {
    const copy = Object.create(Room.prototype) as Room;
    return Object.assign(copy, { left: this.left.map((tray) => ({ ...tray })), whole: this.whole });
  }

  /** On one tray, as it is now. */
  largest(kind: 'single' | 'ribbon'): number {
    return this.left.reduce((most, tray) => Math.max(most, tray[kind]), 0);
  }

  /** On one tray when all were empty. */
  largestAtAll(kind: 'single' | 'ribbon'): number {
    return this.whole[kind];
  }

  firstWith(kind: 'single' | 'ribbon', count: number): number {
    return this.left.findIndex((tray) => tray[kind] >= count);
  }

  free(tray: number, kind: 'single' | 'ribbon'): number {
    return this.left[tray]![kind];
  }

  take(tray: number, kind: 'single' | 'ribbon', count: number): void {
    const left = this.left[tray]!;
    left[kind] -= count;
    left[kind === 'single' ? 'ribbon' : 'single'] = 0;
  }

  like(tray: number): string {
    const { single, ribbon } = this.left[tray]!;
    return `${single} ${ribbon}`;
  }

  state(tray: number): { readonly single: number; readonly ribbon: number } {
    return { ...this.left[tray]! };
  }

  restore(tray: number, state: { readonly single: number; readonly ribbon: number }): void {
    this.left[tray] = { ...state };
  }

  /** The same room with trays that take either kind kept for one of them: the first or the last few. */
  *reservations(): Generator<Room> {
    const either = this.left.flatMap(({ single, ribbon }, tray) => (single > 0 && ribbon > 0 ? [tray] : []));
    for (let count = 1; count <= Math.min(either.length, mostReserved); count += 1)
      for (const kept of [either.slice(0, count), either.slice(-count)])
        for (const kind of ['ribbon', 'single'] as const) {
          const room = this.copy();
          for (const tray of kept) room.left[tray]![kind === 'ribbon' ? 'single' : 'ribbon'] = 0;
          yield room;
        }
  }
}

/** Trays that are kept for one kind, at most; a closure with both kinds has a few. */
const mostReserved = 24;

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
