import type { Cable } from '../../line/cable';
import type { Pin, Tray } from '../closure';
import type { PlannedSplice } from '../order/order';
import { arrange, isBetter, type Parcel, type Part } from './arrange';
import { bind, Holders } from './bind';
import { Room } from './room';

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
