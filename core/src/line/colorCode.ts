import { z } from 'zod';
import { textSchema } from '../schemas';

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

const glassColorSchema = z.enum(Object.keys(glassColors) as [GlassColor, ...GlassColor[]]);

export const colorSchemeSchema = z.strictObject({
  id: textSchema.trim().min(1).max(40),
  name: textSchema.trim().min(1, 'Give the color code a name.').max(80),
  source: textSchema.trim().max(200),
  /** Colors of positions 1, 2, 3 … After the last the sequence starts again, one tracer stripe more each time. */
  sequence: z
    .array(glassColorSchema)
    .min(2, 'A color code has at least 2 colors.')
    .max(12)
    .superRefine((sequence, context) => {
      sequence.forEach((color, index) => {
        const before = sequence.indexOf(color);
        if (before < index)
          context.addIssue({
            code: 'custom',
            path: [index],
            message: `${color} stands at ${before + 1} and at ${index + 1}. Two fibers of one color cannot be told apart.`,
          });
      });
    }),
  /** Color of the tracer stripe, and the exception for a base color on which it would not show. */
  tracer: glassColorSchema,
  tracerOn: z.partialRecord(glassColorSchema, glassColorSchema),
});
type SchemeData = z.infer<typeof colorSchemeSchema>;
export type ColorScheme = Readonly<Omit<SchemeData, 'sequence'>> & {
  readonly sequence: readonly GlassColor[];
};

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

/** Turquoise and pink carry the tokens of aqua and rose here too. */
export const frenchSequence: ColorScheme = {
  id: 'french-12',
  name: 'French sequence',
  source: 'national practice, no published source at hand (from memory)',
  sequence: [
    'red',
    'blue',
    'green',
    'yellow',
    'violet',
    'white',
    'orange',
    'slate',
    'brown',
    'black',
    'aqua',
    'rose',
  ],
  tracer: 'black',
  tracerOn: { black: 'yellow' },
};

export const swissSequence: ColorScheme = {
  id: 'swiss-12',
  name: 'Swiss sequence',
  source: 'national practice, no published source at hand (from memory)',
  sequence: [
    'red',
    'green',
    'yellow',
    'blue',
    'white',
    'violet',
    'orange',
    'black',
    'slate',
    'brown',
    'rose',
    'aqua',
  ],
  tracer: 'black',
  tracerOn: { black: 'yellow' },
};

export const colorSchemes: readonly ColorScheme[] = [tia598, dinVde0888, frenchSequence, swissSequence];

/** The color code of a cable: its own, or the built-in one it names. */
export function schemeOf(cable: {
  readonly schemeId: string;
  readonly ownScheme?: ColorScheme | undefined;
}): ColorScheme {
  return cable.ownScheme ?? colorScheme(cable.schemeId);
}

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
  let known = marked.get(scheme);
  if (!known) marked.set(scheme, (known = new Map<number, ColorMark>()));
  let mark = known.get(position);
  if (!mark) known.set(position, (mark = makeMark(scheme, position)));
  return mark;
}

// The same mark is the same object, so that what shows it can see that nothing changed.
const marked = new WeakMap<ColorScheme, Map<number, ColorMark>>();

function makeMark(scheme: ColorScheme, position: number): ColorMark {
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
