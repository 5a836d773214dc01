import type { ColorMark, FiberName, UnitKind } from '@cordel/core';
import { memo } from 'react';
import { StyleSheet, View } from 'react-native';
import { useCordelTheme, useWide } from './theme';
import { glass, space, stroke } from './tokens';
import { Type } from './Type';

/** A capsule in the glass's color, with a tracer stripe where the scheme has one and an outline that keeps white, black and slate visible. */
export function GlassCapsule({
  color,
  size = 'fiber',
}: {
  color: ColorMark;
  size?: 'fiber' | 'tube' | 'ribbon';
}) {
  const { palette, textScale } = useCordelTheme();
  const height = { fiber: 20, tube: 16, ribbon: 10 }[size] * Math.min(textScale, 1.5);
  return (
    <View
      aria-hidden
      style={[
        styles.capsule,
        {
          width: height * { fiber: 1.7, tube: 2, ribbon: 3.2 }[size],
          height,
          // A ribbon is flat, with hardly a round at its edges.
          borderRadius: size === 'ribbon' ? 2 : height / 2,
          backgroundColor: glass[color.base],
          borderColor: palette.ink,
        },
      ]}
    >
      <Tracers color={color} />
    </View>
  );
}

/** Half of the picture of a splice: a length of fiber, cut square. */
export const FiberLength = memo(function FiberLength({
  color,
  side,
}: {
  color: ColorMark;
  side: 'left' | 'right';
}) {
  const wide = useWide();
  const { palette } = useCordelTheme();
  return (
    <View
      aria-hidden
      style={[
        styles.length,
        { height: wide ? 60 : 40 },
        side === 'left' ? styles.cutRight : styles.cutLeft,
        { backgroundColor: glass[color.base], borderColor: palette.ink },
      ]}
    >
      <Tracers color={color} />
    </View>
  );
});

function Tracers({ color }: { color: ColorMark }) {
  if (!color.tracer) return null;
  const stripe = { backgroundColor: glass[color.tracer] };
  return (
    <View style={styles.tracers}>
      {Array.from({ length: color.stripes }, (_, index) => (
        <View key={index} style={[styles.tracer, stripe]} />
      ))}
    </View>
  );
}

/** Number and two-letter code beside the capsule: color is never the only sign. */
export const FiberToken = memo(function FiberToken({ name }: { name: FiberName }) {
  return (
    <View style={styles.token}>
      <GlassCapsule color={name.fiberColor} />
      <Type look="strong">{fiberLabel(name)}</Type>
    </View>
  );
});

/** A tube or ribbon: a larger token of the same family. */
export const UnitToken = memo(function UnitToken({
  unit,
  color,
  kind = 'tube',
  bare = false,
}: {
  unit: number;
  color: ColorMark;
  kind?: UnitKind;
  bare?: boolean;
}) {
  return (
    <View style={styles.token}>
      <GlassCapsule color={color} size={kind === 'ribbon' ? 'ribbon' : 'tube'} />
      <Type look="smallStrong">{bare ? `${unit} ${color.code}` : `${kind} ${unit} ${color.code}`}</Type>
    </View>
  );
});

/** What a fiber is found in: its ribbon or tube, and the tube around the ribbon. Nothing for a drop. */
export const HolderTokens = memo(function HolderTokens({ name }: { name: FiberName }) {
  if (name.unitKind === 'bundle') return null;
  return (
    <>
      {name.tube ? <UnitToken unit={name.tube.number} color={name.tube.color} /> : null}
      <UnitToken unit={name.unit} color={name.unitColor} kind={name.unitKind} />
    </>
  );
});

/** "43 · 7 RD": number in the cable, place in the tube, color. */
export function fiberLabel(name: FiberName): string {
  const place = name.group === null ? `${name.fiber}` : `${name.group}.${name.fiber}`;
  return name.number === name.fiber && name.group === null
    ? `${name.number} ${name.fiberColor.code}`
    : `${name.number} · ${place} ${name.fiberColor.code}`;
}

export function spokenFiber(name: FiberName): string {
  const group = name.group === null ? '' : `group ${name.group}, `;
  const unit = name.unitKind === 'bundle' ? '' : `${name.unitKind} ${name.unit} ${name.unitColor.name}, `;
  return `fiber ${name.number}, ${unit}${group}${name.fiberColor.name}`;
}

const styles = StyleSheet.create({
  capsule: { borderWidth: stroke.rule, overflow: 'hidden', justifyContent: 'center', flexShrink: 0 },
  tracers: { flex: 1, flexDirection: 'row', justifyContent: 'space-evenly', alignItems: 'stretch' },
  tracer: { width: stroke.cord, transform: [{ skewX: '-25deg' }] },
  length: {
    flex: 1,
    borderTopWidth: stroke.rule,
    borderBottomWidth: stroke.rule,
  },
  cutRight: { borderRightWidth: stroke.heavy },
  cutLeft: { borderLeftWidth: stroke.heavy },
  token: { flexDirection: 'row', alignItems: 'center', gap: space.small, flexShrink: 1 },
});
