import type { Tray } from '../closure';

/** Free slots of every tray. The first sleeve on a tray decides which kind it takes. */
export class Room {
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
