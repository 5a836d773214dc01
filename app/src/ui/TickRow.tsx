import type { ReactNode } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { useCordelTheme } from './theme';
import { space, stroke, touch } from './tokens';
import { Type } from './Type';

/** A line that can be ticked, with a square that is inked when it is. */
export function TickRow({
  ticked,
  disabled = false,
  onPress,
  children,
}: {
  ticked: boolean;
  /** While it is not known whether it is ticked. */
  disabled?: boolean;
  onPress: () => void;
  children: ReactNode;
}) {
  const { palette } = useCordelTheme();
  return (
    <Pressable
      role="checkbox"
      aria-checked={ticked}
      disabled={disabled}
      onPress={onPress}
      style={styles.line}
    >
      <View
        aria-hidden
        style={[
          styles.box,
          { borderColor: palette.ink, backgroundColor: ticked ? palette.ink : palette.sheet },
        ]}
      >
        {ticked ? (
          <Type look="strong" tone="ground">
            ✓
          </Type>
        ) : null}
      </View>
      <View style={styles.flex}>{children}</View>
    </Pressable>
  );
}

const styles = StyleSheet.create({
  line: {
    flex: 1,
    flexDirection: 'row',
    alignItems: 'center',
    gap: space.medium,
    minHeight: touch.bench,
    paddingVertical: space.small,
  },
  box: {
    minWidth: 28,
    minHeight: 28,
    borderWidth: stroke.heavy,
    alignItems: 'center',
    justifyContent: 'center',
  },
  flex: { flex: 1, minWidth: 0 },
});
