import { formatLoss, ribbonPolarity, type Cable, type GlassColor, type PlacedSplice } from '@cordel/core';
import { memo } from 'react';
import { StyleSheet, View } from 'react-native';
import { useCordelTheme } from '../../../ui/theme';
import { glass, space, stroke } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';

/** A ribbon fiber by fiber: which meets which, and what was read so far. */
export const RibbonStrip = memo(function RibbonStrip({
  splice,
  cables,
  losses,
  fiber,
}: {
  splice: PlacedSplice;
  cables: ReadonlyMap<string, Cable>;
  /** dB, of the fibers that are read. */
  losses: readonly (number | null)[];
  /** Which one is read next, from 0. */
  fiber: number;
}) {
  const { pairs, polarity } = ribbonPolarity(splice, cables);
  const ends = pairs.at(-1)!;
  const words =
    polarity === 'reversed'
      ? `Reversed, as planned: ${pairs[0]!.left.fiber} meets ${pairs[0]!.right.fiber}, ${ends.left.fiber} meets ${ends.right.fiber}`
      : polarity === 'straight'
        ? `Straight: ${pairs[0]!.left.fiber} meets ${pairs[0]!.right.fiber}, ${ends.left.fiber} meets ${ends.right.fiber}`
        : 'Neither straight nor reversed: mend the order';
  return (
    <View style={styles.strip}>
      <Type look="small" tone={polarity === 'straight' ? 'soft' : 'ink'}>
        {words}
      </Type>
      <View
        role="img"
        aria-label={pairs
          .map(({ left, right }, index) => {
            const loss = losses[index];
            return `${left.fiber} ${left.color.name} to ${right.fiber} ${right.color.name}${loss === undefined || loss === null ? '' : `, ${formatLoss(loss)} dB`}`;
          })
          .join('; ')}
        style={styles.columns}
      >
        {pairs.map(({ left, right }, index) => {
          const loss = losses[index];
          const read = loss === undefined || loss === null ? '–' : formatLoss(loss).replace(/^0/, '');
          return (
            <Column
              key={left.fiber}
              left={left.color.base}
              right={right.color.base}
              read={pairs.length <= 12 ? read : null}
              next={index === fiber}
            />
          );
        })}
      </View>
    </View>
  );
});

/** One fiber of each side. Most of them look the same after a reading as before it. */
const Column = memo(function Column({
  left,
  right,
  read,
  next,
}: {
  left: GlassColor;
  right: GlassColor;
  /** null: there is no room for figures. */
  read: string | null;
  next: boolean;
}) {
  const { palette, textScale } = useCordelTheme();
  return (
    <View
      style={[
        styles.column,
        {
          borderTopColor: next ? palette.accent : 'transparent',
          // At a larger text size the columns go on in a second row instead of losing their figures.
          minWidth: read === null ? 0 : 24 * textScale,
        },
      ]}
    >
      <View style={[styles.end, { backgroundColor: glass[left], borderColor: palette.ink }]} />
      <View style={[styles.end, { backgroundColor: glass[right], borderColor: palette.ink }]} />
      {read === null ? null : (
        <Type look="small" style={styles.reading}>
          {read}
        </Type>
      )}
    </View>
  );
});

const styles = StyleSheet.create({
  strip: { gap: space.tight, paddingHorizontal: space.medium },
  columns: { flexDirection: 'row', flexWrap: 'wrap', rowGap: space.tight },
  column: { flexGrow: 1, flexBasis: 0, gap: space.hair, borderTopWidth: stroke.cord, paddingTop: 1 },
  end: { height: 10, borderWidth: stroke.hair },
  reading: { textAlign: 'center' },
});
