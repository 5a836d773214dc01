/**
 * Color codes of fibers and of the tubes or ribbons that hold them. A scheme is data; a cable names the one it follows.
 */

export const glassColors = {
  blue: 'BL',
  orange: 'OR',
  green: 'GR',
  brown: 'BR',
  slate: 'SL',
  white: 'WH',
  red: 'RD',
  black: 'BK',
  yellow: 'YL',
  violet: 'VI',
  rose: 'RS',
  aqua: 'AQ',
} as const;

export type GlassColor = keyof typeof glassColors;

export interface ColorScheme {
  readonly id: string;
  readonly name: string;
  readonly source: string;
  /** Colors of positions 1, 2, 3 … After the last the sequence starts again, one tracer stripe more each time. */
  readonly sequence: readonly GlassColor[];
  /** Color of the tracer stripe, and the exception for a base color on which it would not show. */
  readonly tracer: GlassColor;
  readonly tracerOn: Partial<Readonly<Record<GlassColor, GlassColor>>>;
}

export const tia598: ColorScheme = {
  id: 'tia-598-d',
  name: 'TIA-598-D',
  source: 'ANSI/TIA-598-D, Optical Fiber Cable Color Coding',
  sequence: [
    'blue',
    'orange',
    'green',
    'brown',
    'slate',
    'white',
    'red',
    'black',
    'yellow',
    'violet',
    'rose',
    'aqua',
  ],
  tracer: 'black',
  tracerOn: { black: 'yellow' },
};

/** Turquoise and pink of this sequence are close to aqua and rose and carry their tokens. */
export const dinVde0888: ColorScheme = {
  id: 'din-vde-0888',
  name: 'DIN VDE 0888',
  source: 'DIN VDE 0888 (from memory)',
  sequence: [
    'red',
    'green',
    'blue',
    'yellow',
    'white',
    'slate',
    'brown',
    'violet',
    'aqua',
    'black',
    'orange',
    'rose',
  ],
  tracer: 'black',
  tracerOn: { black: 'yellow' },
};

export const colorSchemes: readonly ColorScheme[] = [tia598, dinVde0888];

/** The built-in scheme of this id. Throws on an unknown id: schemas let none through. */
export function colorScheme(id: string): ColorScheme {
  const found = colorSchemes.find((scheme) => scheme.id === id);
  if (!found) throw new Error(`Unknown color scheme ${id}`);
  return found;
}

export interface ColorMark {
  readonly base: GlassColor;
  /** null without a stripe. */
  readonly tracer: GlassColor | null;
  /** How many tracer stripes: 0 for the first round of the sequence, 1 for the second … */
  readonly stripes: number;
  /** Two letters, with the tracer's letters behind a dash: BL, BL-BK, BL-BK2. */
  readonly code: string;
  /** In words: "blue", "blue with black tracer". */
  readonly name: string;
}

/**
 * Color of position `position` (1, 2, 3 …) in a scheme.
 * 13–24 with one tracer are TIA-598-D; a further stripe for each further round is common practice.
 * Throws RangeError unless `position` is a whole number from 1 up.
 */
export function colorAt(scheme: ColorScheme, position: number): ColorMark {
  if (!Number.isInteger(position) || position < 1) throw new RangeError(`No color for position ${position}`);
  const length = scheme.sequence.length;
  const base = scheme.sequence[(position - 1) % length]!;
  const stripes = Math.floor((position - 1) / length);
  if (stripes === 0) return { base, tracer: null, stripes, code: glassColors[base], name: base };
  const tracer = scheme.tracerOn[base] ?? scheme.tracer;
  const times = stripes > 1 ? String(stripes) : '';
  return {
    base,
    tracer,
    stripes,
    code: `${glassColors[base]}-${glassColors[tracer]}${times}`,
    name: `${base} with ${stripes > 1 ? `${stripes} ${tracer} tracers` : `${tracer} tracer`}`,
  };
}
