/**
 * Fiber types with what splicing needs to know of them. Nominal values; a cable may carry its own mode-field diameter.
 */
export interface FiberType {
  readonly id: string;
  readonly name: string;
  readonly mode: 'single' | 'multi';
  /** Mode-field diameter at 1310 nm, μm; null for multimode. */
  readonly modeField: number | null;
  /** Core diameter of multimode fiber, μm. */
  readonly core: number | null;
  /** Group index at 1310 nm (single mode) or 1300 nm (multimode). */
  readonly index: number;
  /** Highest cabled attenuation, dB/km, at 1310 and 1550 nm (single mode) or 850 and 1300 nm (multimode). */
  readonly attenuation: readonly [number, number];
  /** Smallest radius at which it may be coiled, mm. */
  readonly bendRadius: number;
  readonly source: string;
}

export const fiberTypeIds = [
  'g652d',
  'g657a1',
  'g657a2',
  'g657b3',
  'om1',
  'om2',
  'om3',
  'om4',
  'om5',
] as const;
export type FiberTypeId = (typeof fiberTypeIds)[number];

/** ITU-T G.652 and G.657 give 8.6 to 9.2 μm (9.5 in older editions for G.657) as the range of nominal values. */
const single = (
  name: string,
  modeField: number,
  bendRadius: number,
  source: string,
): Omit<FiberType, 'id'> => ({
  name,
  mode: 'single',
  modeField,
  core: null,
  index: 1.4677,
  attenuation: [0.4, 0.3],
  bendRadius,
  source,
});
const multi = (name: string, core: number, bendRadius: number): Omit<FiberType, 'id'> => ({
  name,
  mode: 'multi',
  modeField: null,
  core,
  index: core === 50 ? 1.482 : 1.496,
  attenuation: [3.5, 1.5],
  bendRadius,
  source: 'ISO/IEC 11801 (from memory); bend radius is common practice',
});

const table: Readonly<Record<FiberTypeId, Omit<FiberType, 'id'>>> = {
  g652d: single('G.652.D', 9.2, 30, 'ITU-T G.652; 30 mm from memory'),
  g657a1: single('G.657.A1', 9.0, 10, 'ITU-T G.657'),
  g657a2: single('G.657.A2', 8.6, 7.5, 'ITU-T G.657'),
  g657b3: single('G.657.B3', 8.6, 5, 'ITU-T G.657'),
  om1: multi('OM1 62.5/125', 62.5, 30),
  om2: multi('OM2 50/125', 50, 30),
  om3: multi('OM3 50/125', 50, 30),
  om4: multi('OM4 50/125', 50, 30),
  om5: multi('OM5 50/125', 50, 30),
};

export const fiberTypes: readonly FiberType[] = fiberTypeIds.map((id) => ({ id, ...table[id] }));

/** The fiber in a cable: its type, and the mode field that counts, μm (null for multimode). */
export function fiberOf(cable: {
  readonly fiberType?: FiberTypeId | undefined;
  readonly modeField?: number | undefined;
}): {
  readonly type: FiberType;
  readonly modeField: number | null;
} {
  const type = { id: cable.fiberType ?? 'g652d', ...table[cable.fiberType ?? 'g652d'] };
  return { type, modeField: type.mode === 'single' ? (cable.modeField ?? type.modeField) : null };
}
