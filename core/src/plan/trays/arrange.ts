import type { Room } from './room';
import type { Placement } from './trayLayout';

/** Splices that lie together, by their indexes in order. */
export interface Parcel {
  readonly group: readonly number[];
  /** The first of them, also where only the rest is meant. */
  readonly of: number;
  readonly kind: 'single' | 'ribbon';
}

/** Splices of a parcel that lie on one tray, counted from 0. */
export interface Part extends Pick<Placement, 'because' | 'passedOver'> {
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

export function isBetter(one: Arrangement, other: Arrangement): boolean {
  const differs = (['left', 'split', 'used'] as const).find((what) => one[what] !== other[what]);
  return differs !== undefined && one[differs] < other[differs];
}

/** In order where that leaves every parcel whole; else in the way that leaves most of them whole. */
export function arrange(parcels: readonly Parcel[], free: Room): Arrangement {
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
