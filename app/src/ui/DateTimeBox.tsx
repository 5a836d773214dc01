import { StyleSheet, View } from 'react-native';
import { useCordelTheme } from './theme';
import { faces, space, stroke, touch } from './tokens';
import { Type } from './Type';

/** A day and a time of day, chosen with what the device has for it. `value` as "2026-04-14T22:00", or empty. */
export function DateTimeBox({
  label,
  value,
  onChange,
  trouble,
}: {
  label: string;
  value: string;
  onChange: (value: string) => void;
  trouble?: string | undefined;
}) {
  const { palette, size } = useCordelTheme();
  return (
    <View style={styles.field}>
      <Type look="smallStrong">{label}</Type>
      <input
        type="datetime-local"
        aria-label={label}
        aria-invalid={trouble !== undefined}
        value={value}
        onChange={(event) => onChange(event.target.value)}
        style={{
          minHeight: touch.bench,
          boxSizing: 'border-box',
          padding: `0 ${space.medium}px`,
          border: `${stroke.rule}px solid ${trouble === undefined ? palette.ink : palette.accent}`,
          borderRadius: 0,
          color: palette.ink,
          background: palette.sheet,
          fontFamily: faces.sans,
          fontSize: size('body'),
        }}
      />
      {trouble ? (
        <Type look="small" tone="accent" role="alert">
          {trouble}
        </Type>
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({ field: { gap: space.tight } });
