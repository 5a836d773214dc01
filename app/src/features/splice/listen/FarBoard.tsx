import { StyleSheet, View } from 'react-native';
import { FarText } from '../../../ui/FarText';
import { Knot } from '../../../ui/Knot';
import { useCordelTheme } from '../../../ui/theme';
import { far, space, stroke } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import type { Board } from './boardOf';

/** The verdict, or what to do, as it is read at two meters. */
export function FarBoard({ board }: { board: Board }) {
  const { palette, dark } = useCordelTheme();
  // In a dark van a whole field of it would glare.
  const filled = board.halt && !dark;
  const tone = filled ? 'onAccent' : board.halt ? 'accent' : 'ink';
  return (
    <View
      role="status"
      aria-live="polite"
      testID="far-board"
      style={[
        styles.board,
        {
          borderColor: board.halt ? palette.accent : palette.ink,
          backgroundColor: filled ? palette.accent : palette.sheet,
        },
      ]}
    >
      {board.reading === null ? null : (
        <View style={styles.reading}>
          <View style={styles.grow}>
            <FarText text={board.reading} most={far.most} tone={tone} />
          </View>
          <Type look="huge" tone={tone}>
            dB
          </Type>
        </View>
      )}
      <View style={styles.reading}>
        {board.mark ? <Knot mark={board.mark} size={56} /> : null}
        <View style={styles.grow}>
          <FarText text={board.far} tone={tone} />
        </View>
      </View>
      {board.words ? (
        <Type look="strong" tone={tone}>
          {board.words}
        </Type>
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  // As tall for a verdict as for two words: what is below stays where it is.
  board: {
    minHeight: 280,
    justifyContent: 'center',
    borderWidth: stroke.heavy,
    padding: space.medium,
    gap: space.tight,
  },
  reading: { flexDirection: 'row', alignItems: 'center', gap: space.small },
  grow: { flex: 1 },
});
