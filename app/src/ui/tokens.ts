import type { GlassColor } from '@cordel/core';

/** Every color, size and face of the interface. Screens name tokens, never values. */

export interface Palette {
  readonly ground: string;
  readonly sheet: string;
  readonly ink: string;
  readonly soft: string;
  readonly hairline: string;
  /** "Act here", and nothing else. */
  readonly accent: string;
  readonly onAccent: string;
}

export const day: Palette = {
  ground: '#F5F0E4',
  sheet: '#FCF9F1',
  ink: '#1D1B17',
  soft: '#5C564B',
  hairline: '#CFC7B5',
  accent: '#B5381A',
  onAccent: '#FFF8EE',
};

export const night: Palette = {
  ground: '#16171B',
  sheet: '#202127',
  ink: '#ECE5D6',
  soft: '#A9A294',
  hairline: '#3C3D44',
  accent: '#F27A4F',
  onAccent: '#1A1210',
};

/** Strong color is reserved for glass. The same by day and by night: a fiber does not change. */
export const glass: Readonly<Record<GlassColor, string>> = {
  blue: '#1E5CB8',
  orange: '#EF7B1A',
  green: '#2B8A3E',
  brown: '#7B4A21',
  slate: '#8B9096',
  white: '#FFFFFF',
  red: '#D1232A',
  black: '#121212',
  yellow: '#F3D01C',
  violet: '#7A3FA3',
  rose: '#EE8DB2',
  aqua: '#33C1CE',
};

export const faces = {
  slab: 'ZillaSlab_600SemiBold',
  sans: 'AtkinsonHyperlegibleNext_400Regular',
  sansBold: 'AtkinsonHyperlegibleNext_700Bold',
} as const;

/** Font sizes at 100 % text. */
export const sizes = {
  huge: 34,
  key: 28,
  title: 22,
  reading: 20,
  heading: 18,
  body: 16,
  small: 14,
} as const;

/** To be read at two meters, px: a capital is two thirds of it, and one of 10 mm is read from there (a two-hundredth of the distance, common practice). Fitted to the width. */
export const far = { most: 128, word: 88, pair: 64, least: 40 } as const;

export const space = { hair: 2, tight: 4, small: 8, medium: 12, large: 16, wide: 24, huge: 40 } as const;

export const stroke = { hair: 1, rule: 2, heavy: 3, cord: 4 } as const;

/** Smallest targets for a gloved hand. */
export const touch = { bench: 56, normal: 44 } as const;

/** The cord's gutter: how wide it is, and where in it the cord runs. */
export const gutter = { width: 52, cord: 26 } as const;

/** From this width the panes stand side by side. */
export const wideFrom = 1000;
