import type { Closure } from '../../plan/closure';
import type { ClosureLengths } from '../../plan/models/closureModel';

/** Every length that a cut sheet asks for, mm. */
export type PreparationLengths = Required<ClosureLengths>;

/**
 * Used where a closure's own table says nothing. Common practice, no published source: the maker's instruction comes first.
 */
export const usualLengths: PreparationLengths = {
  sheathOpening: 1625.6,
  strengthMember: 203.2,
  tube: 57.15,
  trayFiber: 700,
  tubeToTray: 640,
  clampMark: 0,
  aramid: 76.2,
  ripcord: 101.6,
  testCut: 101.6,
  windowInset: 381,
  exitStub: 0,
  dropOpening: 914.4,
  // 12 in: the drop at the customer's end.
  connectorOpening: 304.8,
  coils: 2,
  coilDiameter: 80,
  basketDiameter: 0,
  basketTurns: 0,
  redo: 35,
  cableLoop: 600,
};

/** How far a tube reaches into its tray, mm (common practice: splice modules mark fibers at 30 mm). */
export const tubeInTray = 30;

/** The second of two binder groups is cut this much shorter, mm (common practice: 1 in). */
export const groupStep = 25.4;

/** Longest piece in which a tube is pulled off, mm (common practice: about 24 in). */
export const tubePiece = 609.6;

/** The first part of a ripcord is laid open with a knife, mm (common practice: 3 in). */
export const ripcordWindow = 76.2;

/** The second ring cut at a rack lies so far from the end, mm (common practice: 2 to 3 in). */
export const ringStart = 63.5;

/** Toning wire and messenger come off to this far below the sheath's edge, mm, so that the seal closes on round sheath. */
export const throughSeal = 150;

/** What ribbonizing takes from the free ends each time, mm (common practice: 3 in of free ends, cut away with 1/8 in of the ribbon). */
export const ribbonizingTrim = 76.2 + 3.175;

/** A ribbon made of loose fibers is so long, mm (common practice: 4 in). */
export const madeRibbon = 101.6;

/** A flat jacket of so many 12-fiber ribbons goes into a splice module as it is (common practice: an opening of 14 mm). */
export const ribbonsInJacket = 6;

/** How far a drop is opened where the closure's table says nothing, by its kind, mm: as far as a cable in a dome or an inline closure (common practice: 64 in). */
const dropOpenings: Partial<Record<Closure['kind'], number>> = { dome: 1625.6, inline: 1625.6, rack: 1219.2 };

/** The lengths that count at a closure: its own, and the usual ones where it has none. A window is not opened before its tube lies in the tray. */
export function lengthsOf(closure: Pick<Closure, 'kind' | 'lengths'>): PreparationLengths {
  const lengths = {
    ...usualLengths,
    dropOpening: dropOpenings[closure.kind] ?? usualLengths.dropOpening,
    ...closure.lengths,
  };
  return { ...lengths, windowInset: Math.max(lengths.windowInset, lengths.tubeToTray + tubeInTray) };
}
