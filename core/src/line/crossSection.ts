import type { Construction } from './cable';

/**
 * The picture of a cable cut across, in units in which the sheath's radius is 1 and its middle is (0, 0). Drawn to be read, not to scale:
 * tubes lie in their place in the stranding, clockwise from the top.
 */
export interface CrossSection {
  readonly outline: 'round' | 'flat';
  /** Round strength members: the central one, or the rods of a flat drop. */
  readonly rods: readonly Circle[];
  readonly tubes: readonly TubePicture[];
  /** Ribbons that lie in the middle or in tubes. */
  readonly ribbons: readonly RibbonPicture[];
  /** Where a toning wire or messenger sits, outside the sheath. */
  readonly extras: readonly (Circle & { readonly what: 'toning-wire' | 'messenger' })[];
}

export interface Circle {
  readonly x: number;
  readonly y: number;
  readonly r: number;
}

export interface TubePicture extends Circle {
  /** Place in the stranding, from 1. */
  readonly place: number;
  /** Number of the tube, or null for a filler. */
  readonly tube: number | null;
}

export interface RibbonPicture {
  /** Number of the ribbon in the cable. */
  readonly unit: number;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Most positions in one layer; more are stranded in several (common practice). */
const perLayer = 18;

export function crossSection(construction: Construction): CrossSection {
  const empty = { outline: 'round' as const, rods: [], tubes: [], ribbons: [], extras: [] };
  switch (construction.kind) {
    case 'stranded-tubes':
    case 'stranded-ribbon': {
      const { circles, middle } = layers(construction.strands.length);
      let tube = 0;
      const tubes = construction.strands.map((strand, index): TubePicture => ({
        ...circles[index]!,
        place: index + 1,
        tube: strand.kind === 'filler' ? null : (tube += 1),
      }));
      let unit = 0;
      const ribbons = construction.strands.flatMap((strand, index): RibbonPicture[] => {
        if (strand.kind === 'filler' || !('ribbons' in strand)) return [];
        const first = unit;
        unit += strand.ribbons;
        return stack(strand.ribbons, first, circles[index]!);
      });
      return { ...empty, rods: middle > 0 ? [{ x: 0, y: 0, r: middle }] : [], tubes, ribbons };
    }
    case 'central-ribbon': {
      const core = { x: 0, y: 0, r: 0.78 };
      return {
        ...empty,
        rods: [
          { x: -0.89, y: 0, r: 0.07 },
          { x: 0.89, y: 0, r: 0.07 },
        ],
        tubes: [{ ...core, place: 1, tube: null }],
        ribbons: stack(construction.ribbons, 0, core),
      };
    }
    case 'drop': {
      const tube: TubePicture = { x: 0, y: 0, r: 0.3, place: 1, tube: 1 };
      const flat = construction.shape === 'flat';
      return {
        outline: flat ? 'flat' : 'round',
        rods: flat
          ? [
              { x: -0.62, y: 0, r: 0.12 },
              { x: 0.62, y: 0, r: 0.12 },
            ]
          : [],
        tubes: [{ ...tube, r: flat ? 0.3 : 0.6 }],
        ribbons: [],
        extras: [
          ...(construction.toningWire ? [{ x: 1.1, y: 0, r: 0.07, what: 'toning-wire' as const }] : []),
          ...(construction.messenger
            ? [{ x: 0, y: flat ? -0.75 : -1.3, r: 0.2, what: 'messenger' as const }]
            : []),
        ],
      };
    }
    case 'pigtails':
      return { ...empty, tubes: [{ x: 0, y: 0, r: 0.8, place: 1, tube: 1 }] };
  }
}

/** Equal circles around a middle, in as few layers as take them; the inner layers first. */
function layers(count: number): { circles: Circle[]; middle: number } {
  if (count === 1) return { circles: [{ x: 0, y: 0, r: 0.86 }], middle: 0 };
  const rings: number[] = [];
  for (let left = count; left > 0;) {
    // Every layer outward has room for six more (circles of one size around circles of that size).
    const rest = rings.length === 0 && left > perLayer ? innermost(left) : Math.min(left, roomIn(rings));
    rings.push(rest);
    left -= rest;
  }
  const inner = Math.max(rings[0]!, 3);
  // Circle radius r and ring radius R of a full ring of n: r = R sin(π / n).
  const ringOverTube = 1 / Math.sin(Math.PI / inner);
  const tubeRadius = 0.94 / (ringOverTube + 1 + 2 * (rings.length - 1));
  const circles: Circle[] = [];
  rings.forEach((size, ring) => {
    const radius = tubeRadius * (ringOverTube + 2 * ring);
    for (let index = 0; index < size; index += 1) {
      const angle = (2 * Math.PI * index) / size - Math.PI / 2;
      circles.push({ x: radius * Math.cos(angle), y: radius * Math.sin(angle), r: tubeRadius * 0.96 });
    }
  });
  return { circles, middle: Math.max(0, tubeRadius * (ringOverTube - 1) * 0.94) };
}

function roomIn(rings: readonly number[]): number {
  return rings.length === 0 ? perLayer : rings.at(-1)! + 6;
}

/** How many lie in the innermost layer so that the layers outside are full or nearly so. */
function innermost(count: number): number {
  for (let layersUsed = 2; ; layersUsed += 1) {
    // n + (n + 6) + … over the layers.
    const inner = Math.ceil((count - 3 * layersUsed * (layersUsed - 1)) / layersUsed);
    if (inner <= perLayer) return Math.max(3, inner);
  }
}

/** Ribbons one over the other in a square that fits a circle. */
function stack(count: number, first: number, { x, y, r }: Circle): RibbonPicture[] {
  const side = r * Math.SQRT2 * 0.94;
  const pitch = side / count;
  return Array.from({ length: count }, (_, index) => ({
    unit: first + index + 1,
    x: x - side / 2,
    y: y - side / 2 + index * pitch,
    width: side,
    height: pitch * 0.82,
  }));
}
