import { formatLoss, ribbonPolarity, type Cable, type PlacedSplice } from '@cordel/core';
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
  const { palette, textScale } = useCordelTheme();
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
          return (
            <View
              key={left.fiber}
              style={[
                styles.column,
                {
                  borderTopColor: index === fiber ? palette.accent : 'transparent',
                  // At a larger text size the columns go on in a second row instead of losing their figures.
                  minWidth: pairs.length <= 12 ? 24 * textScale : 0,
                },
              ]}
            >
              <View
                style={[styles.end, { backgroundColor: glass[left.color.base], borderColor: palette.ink }]}
              />
              <View
                style={[styles.end, { backgroundColor: glass[right.color.base], borderColor: palette.ink }]}
              />
              {pairs.length <= 12 ? (
                <Type look="small" style={styles.reading}>
                  {loss === undefined || loss === null ? '–' : formatLoss(loss).replace(/^0/, '')}
                </Type>
              ) : null}
            </View>
          );
        })}
      </View>
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
