import type { ColorMark, FiberName } from '@cordel/core';
import { memo } from 'react';
import { StyleSheet, View } from 'react-native';
import { useCordelTheme, useWide } from './theme';
import { glass, space, stroke } from './tokens';
import { Type } from './Type';

/** A capsule in the glass's color, with a tracer stripe where the scheme has one and an outline that keeps white, black and slate visible. */
function GlassCapsule({ color, size = 'fiber' }: { color: ColorMark; size?: 'fiber' | 'tube' }) {
  const { palette, textScale } = useCordelTheme();
  const height = (size === 'fiber' ? 20 : 16) * Math.min(textScale, 1.5);
  return (
    <View
      aria-hidden
      style={[
        styles.capsule,
        {
          width: height * (size === 'fiber' ? 1.7 : 2),
          height,
          borderRadius: height / 2,
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
export function FiberToken({ name }: { name: FiberName }) {
  return (
    <View style={styles.token}>
      <GlassCapsule color={name.fiberColor} />
      <Type look="strong">{fiberLabel(name)}</Type>
    </View>
  );
}

export const TubeToken = memo(function TubeToken({
  unit,
  color,
  bare = false,
}: {
  unit: number;
  color: ColorMark;
  bare?: boolean;
}) {
  return (
    <View style={styles.token}>
      <GlassCapsule color={color} size="tube" />
      <Type look="smallStrong">{bare ? `${unit} ${color.code}` : `tube ${unit} ${color.code}`}</Type>
    </View>
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
  return `fiber ${name.number}, tube ${name.unit} ${name.unitColor.name}, ${group}${name.fiberColor.name}`;
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
