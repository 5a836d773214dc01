import { memo, type ReactNode } from 'react';
import { StyleSheet, View, type ViewStyle } from 'react-native';
import { useCordelTheme } from './theme';
import { gutter, space, stroke } from './tokens';

/** How a stretch of cord is drawn: inked where done, dashed where open, absent before the beginning and after the end. */
export type Stretch = 'done' | 'open' | 'none';

interface CordRowProps {
  above: Stretch;
  below: Stretch;
  knot: ReactNode;
  knotSize?: number;
  /** Distance of the knot's center from the row's top; the middle of the row without it. */
  knotAt?: number;
  children: ReactNode;
  style?: ViewStyle;
}

/** One thing that hangs on the cord: the cord in the gutter, a knot on it, and beside it what it is. */
export function CordRow({ children, style, ...gutterProps }: CordRowProps) {
  return (
    <View style={[styles.row, style]}>
      <Gutter {...gutterProps} />
      <View style={styles.content}>{children}</View>
    </View>
  );
}

/** Drawn anew only when the cord changes, not with every word beside it. */
const Gutter = memo(function Gutter({
  above,
  below,
  knot,
  knotSize = 20,
  knotAt,
}: Omit<CordRowProps, 'children' | 'style'>) {
  return (
    <View style={styles.gutter} aria-hidden>
      <View style={knotAt === undefined ? styles.half : [styles.fixed, { height: knotAt }]}>
        <CordStretch kind={above} />
      </View>
      <View style={styles.half}>
        <CordStretch kind={below} />
      </View>
      <View
        style={[
          styles.knot,
          {
            left: gutter.cord - knotSize / 2,
            top: knotAt === undefined ? '50%' : knotAt,
            marginTop: -knotSize / 2,
            width: knotSize,
            height: knotSize,
          },
        ]}
      >
        {knot}
      </View>
    </View>
  );
});

/** The bare cord, for the space between and behind things. */
function CordStretch({ kind }: { kind: Stretch }) {
  const { palette } = useCordelTheme();
  if (kind === 'none') return null;
  return (
    <View
      style={[
        styles.stretch,
        {
          borderLeftWidth: stroke.cord,
          borderLeftColor: palette.ink,
          borderStyle: kind === 'done' ? 'solid' : 'dotted',
        },
      ]}
    />
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', alignItems: 'stretch' },
  gutter: { width: gutter.width, position: 'relative' },
  half: { flex: 1, position: 'relative' },
  fixed: { position: 'relative' },
  stretch: {
    position: 'absolute',
    top: 0,
    bottom: 0,
    left: gutter.cord - stroke.cord / 2,
    width: 0,
  },
  knot: { position: 'absolute' },
  content: { flex: 1, minWidth: 0, paddingRight: space.medium },
});
