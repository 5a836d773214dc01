import { colorAt, schemeOf, type ColorMark } from './colorCode';
import type { Cable, Construction } from './cable';

/**
 * A fiber has one number in its cable (1 … n) and one position: unit (tube or ribbon) → group where there is one → fiber.
 * Number ↔ position is a bijection, computed here and never stored.
 */
export interface FiberPosition {
  /** Number of the tube or ribbon, counting only those that carry fiber: a filler takes a place but no number. */
  readonly unit: number;
  /** Place in the stranding, fillers counted. */
  readonly place: number;
  /** Binder group in the tube, or null where there are none. */
  readonly group: number | null;
  /** 1 … in the group, or in the tube where there are no groups. */
  readonly fiber: number;
}

/** What holds fibers together: a buffer tube, a ribbon, or nothing but the cable itself (drops, pigtails). */
export type UnitKind = 'tube' | 'ribbon' | 'bundle';

export interface FiberUnit {
  readonly kind: UnitKind;
  readonly unit: number;
  readonly place: number;
  /** Where ribbons lie in stranded tubes: the number of the tube, and of the ribbon in it. null elsewhere. */
  readonly tube: number | null;
  readonly inTube: number | null;
  readonly fibers: number;
  readonly groupSize: number | null;
  /** Cable number of its first fiber. */
  readonly first: number;
}

// Constructions are never changed in place, so what was counted once stays true.
const counted = new WeakMap<Construction, readonly FiberUnit[]>();

/** Tubes or ribbons that carry fiber, in numbering order. */
export function fiberUnits(construction: Construction): readonly FiberUnit[] {
  const known = counted.get(construction);
  if (known) return known;
  const units: FiberUnit[] = [];
  let first = 1;
  const add = (unit: Omit<FiberUnit, 'unit' | 'first'>) => {
    units.push({ ...unit, unit: units.length + 1, first });
    first += unit.fibers;
  };
  const loose = { tube: null, inTube: null, groupSize: null };
  switch (construction.kind) {
    case 'stranded-tubes':
      construction.strands.forEach((strand, index) => {
        if (strand.kind === 'filler') return;
        const groupSize = strand.groupSize ?? null;
        add({ ...loose, kind: 'tube', place: index + 1, fibers: strand.fibers, groupSize });
      });
      break;
    case 'central-ribbon':
      for (let place = 1; place <= construction.ribbons; place += 1)
        add({ ...loose, kind: 'ribbon', place, fibers: construction.fibersPerRibbon });
      break;
    case 'stranded-ribbon': {
      let tube = 0;
      construction.strands.forEach((strand, index) => {
        if (strand.kind === 'filler') return;
        tube += 1;
        for (let inTube = 1; inTube <= strand.ribbons; inTube += 1)
          add({
            kind: 'ribbon',
            place: index + 1,
            tube,
            inTube,
            fibers: strand.fibersPerRibbon,
            groupSize: null,
          });
      });
      break;
    }
    case 'drop':
    case 'pigtails':
      add({ ...loose, kind: 'bundle', place: 1, fibers: construction.fibers });
  }
  counted.set(construction, units);
  return units;
}

export function fiberCount(construction: Construction): number {
  const last = fiberUnits(construction).at(-1)!;
  return last.first + last.fibers - 1;
}

/** The tube or ribbon that holds fiber `number`. Throws RangeError when the cable has no such fiber. */
export function unitOf(construction: Construction, number: number): FiberUnit {
  const units = fiberUnits(construction);
  let low = 0;
  let high = units.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (units[middle]!.first <= number) low = middle;
    else high = middle - 1;
  }
  const found = units[low]!;
  if (!Number.isInteger(number) || number < 1 || number >= found.first + found.fibers)
    throw new RangeError(`The cable has no fiber ${number}`);
  return found;
}

/** Position of fiber `number` (1 … count). Throws RangeError when the cable has no such fiber. */
export function fiberPosition(construction: Construction, number: number): FiberPosition {
  const unit = unitOf(construction, number);
  const inUnit = number - unit.first;
  if (unit.groupSize === null) return { unit: unit.unit, place: unit.place, group: null, fiber: inUnit + 1 };
  return {
    unit: unit.unit,
    place: unit.place,
    group: Math.floor(inUnit / unit.groupSize) + 1,
    fiber: (inUnit % unit.groupSize) + 1,
  };
}

/** Number of the fiber at a position. Throws RangeError when the cable has no such position. */
export function fiberNumber(
  construction: Construction,
  position: Pick<FiberPosition, 'unit' | 'group' | 'fiber'>,
): number {
  const unit = fiberUnits(construction)[position.unit - 1];
  const inUnit = unit && (position.group === null ? 0 : position.group - 1) * (unit.groupSize ?? 0);
  const size = unit && (unit.groupSize ?? unit.fibers);
  if (
    unit === undefined ||
    inUnit === undefined ||
    size === undefined ||
    (position.group === null) !== (unit.groupSize === null) ||
    !Number.isInteger(position.fiber) ||
    position.fiber < 1 ||
    position.fiber > size ||
    inUnit < 0 ||
    inUnit + position.fiber > unit.fibers
  )
    throw new RangeError(`The cable has no fiber at tube ${position.unit}, fiber ${position.fiber}`);
  return unit.first + inUnit + position.fiber - 1;
}

export interface FiberName {
  /** Number in the cable. */
  readonly number: number;
  readonly unitKind: UnitKind;
  /** Number of the tube or ribbon in the cable. */
  readonly unit: number;
  readonly unitColor: ColorMark;
  /** The tube that the ribbon lies in, where ribbons lie in stranded tubes. */
  readonly tube: { readonly number: number; readonly color: ColorMark } | null;
  readonly group: number | null;
  readonly fiber: number;
  readonly fiberColor: ColorMark;
}

/** Everything a technician needs to find a fiber by eye. Throws RangeError when the cable has no such fiber. */
export function fiberName(cable: Cable, number: number): FiberName {
  let known = named.get(cable);
  if (!known) named.set(cable, (known = new Map<number, FiberName>()));
  let name = known.get(number);
  if (!name) known.set(number, (name = makeName(cable, number)));
  return name;
}

// Cables are never changed in place; the same name is the same object, so that what shows it can see that nothing changed.
const named = new WeakMap<Cable, Map<number, FiberName>>();

function makeName(cable: Cable, number: number): FiberName {
  const scheme = schemeOf(cable);
  const { kind, unit, tube, inTube } = unitOf(cable.construction, number);
  const { group, fiber } = fiberPosition(cable.construction, number);
  return {
    number,
    unitKind: kind,
    unit,
    // Ribbons in stranded tubes are colored anew in each tube (common practice).
    unitColor: colorAt(scheme, inTube ?? unit),
    tube: tube === null ? null : { number: tube, color: colorAt(scheme, tube) },
    group,
    fiber,
    fiberColor: colorAt(scheme, fiber),
  };
}

/** Fibers of a cable that look like this: any of unit, group and fiber color codes may be left out. In numbering order. */
export function fibersByColor(
  cable: Cable,
  wanted: {
    readonly tube?: string;
    readonly unit?: string;
    readonly group?: number;
    readonly fiber?: string;
  },
): FiberName[] {
  const names: FiberName[] = [];
  for (let number = 1; number <= fiberCount(cable.construction); number += 1) {
    const name = fiberName(cable, number);
    if (wanted.tube !== undefined && name.tube?.color.code !== wanted.tube) continue;
    if (wanted.unit !== undefined && name.unitColor.code !== wanted.unit) continue;
    if (wanted.group !== undefined && name.group !== wanted.group) continue;
    if (wanted.fiber !== undefined && name.fiberColor.code !== wanted.fiber) continue;
    names.push(name);
  }
  return names;
}
