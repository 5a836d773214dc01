import { memo, type ReactNode } from 'react';
import { Pressable, StyleSheet, View, type ViewStyle } from 'react-native';
import { Icon, type IconName } from './Icon';
import { useCordelTheme } from './theme';
import { space, stroke, touch } from './tokens';
import { Type } from './Type';

interface ActionProps {
  label: string;
  /** Second line, smaller. */
  detail?: string | undefined;
  onPress: () => void;
  /** "now" is the action of the moment, "plain" has no frame. */
  kind?: 'now' | 'block' | 'plain';
  icon?: IconName;
  bench?: boolean;
  disabled?: boolean;
  /** For a screen reader, where the label alone does not say it. */
  spoken?: string;
  pressed?: boolean;
  style?: ViewStyle;
  children?: ReactNode;
}

/** A square-cut button, as if printed from a block. */
export const Action = memo(function Action({
  label,
  detail,
  onPress,
  kind = 'block',
  icon,
  bench = false,
  disabled = false,
  spoken,
  pressed,
  style,
}: ActionProps) {
  const { palette, size } = useCordelTheme();
  const now = kind === 'now' && !disabled;
  const tone = disabled ? 'soft' : now ? 'onAccent' : pressed ? 'ground' : 'ink';
  return (
    <Pressable
      role="button"
      aria-label={spoken}
      aria-pressed={pressed}
      disabled={disabled}
      onPress={onPress}
      style={(state) => [
        styles.base,
        kind !== 'plain' && { borderWidth: stroke.rule, borderColor: palette.ink },
        {
          minHeight: bench ? touch.bench : touch.normal,
          backgroundColor: now
            ? palette.accent
            : pressed
              ? palette.ink
              : kind === 'plain'
                ? 'transparent'
                : palette.sheet,
        },
        now && { borderColor: palette.accent },
        disabled && { borderColor: palette.hairline },
        state.pressed && styles.pressed,
        style,
      ]}
    >
      {icon ? <Icon name={icon} size={size('heading')} color={palette[tone]} /> : null}
      <View style={styles.words}>
        <Type look={now ? 'heading' : 'strong'} tone={tone} style={styles.centered}>
          {label}
        </Type>
        {detail ? (
          <Type look="small" tone={tone === 'ink' ? 'soft' : tone} style={styles.centered}>
            {detail}
          </Type>
        ) : null}
      </View>
    </Pressable>
  );
});

const styles = StyleSheet.create({
  base: {
    maxWidth: '100%',
    flexDirection: 'row',
    alignItems: 'center',
    justifyContent: 'center',
    gap: space.small,
    paddingHorizontal: space.medium,
    paddingVertical: space.small,
  },
  words: { flexShrink: 1 },
  centered: { textAlign: 'center' },
  pressed: { opacity: 0.6 },
});
