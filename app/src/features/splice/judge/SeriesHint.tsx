import { causeWords, ruleTitles, type Said } from '@cordel/core/advice';
import { memo } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { Icon } from '../../../ui/Icon';
import { useCordelTheme } from '../../../ui/theme';
import { space, stroke, touch } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';

/** The one thing that the series says, in a line over the splice; a tap shows why, and what to do. */
export const SeriesHint = memo(function SeriesHint({ said, onOpen }: { said: Said; onOpen: () => void }) {
  const { palette, size } = useCordelTheme();
  return (
    <View role="status" aria-live="polite">
      <Pressable
        role="button"
        onPress={onOpen}
        style={[styles.hint, { borderColor: palette.accent, backgroundColor: palette.sheet }]}
      >
        <Icon name="chart" size={size('title')} color={palette.accent} />
        <View style={styles.words}>
          <Type look="smallStrong" tone="accent">
            {ruleTitles[said.strength.rule]}
          </Type>
          {said.cause ? <Type look="small">Likeliest: {causeWords(said.cause, said.strength)}</Type> : null}
        </View>
      </Pressable>
    </View>
  );
});

const styles = StyleSheet.create({
  hint: {
    flexDirection: 'row',
    alignItems: 'center',
    gap: space.small,
    minHeight: touch.bench,
    marginHorizontal: space.small,
    marginBottom: space.tight,
    paddingHorizontal: space.small,
    borderWidth: stroke.rule,
    borderStyle: 'dashed',
  },
  words: { flex: 1 },
});
