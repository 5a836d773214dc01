import { StyleSheet, View } from 'react-native';
import { useCordelTheme } from './theme';
import { faces, space, stroke, touch } from './tokens';
import { Trouble } from './Trouble';
import { Type } from './Type';

/** A day and a time of day, each chosen with what the device has for it. `value` as "2026-04-14T22:00"; what is not chosen yet is empty. */
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
  const [day = '', time = ''] = value.split('T');
  const look = {
    minHeight: touch.bench,
    minWidth: 0,
    maxWidth: '100%',
    boxSizing: 'border-box',
    padding: `0 ${space.small}px`,
    border: `${stroke.rule}px solid ${trouble === undefined ? palette.ink : palette.accent}`,
    borderRadius: 0,
    color: palette.ink,
    background: palette.sheet,
    fontFamily: faces.sans,
    fontSize: size('body'),
  } as const;
  return (
    <View role="group" aria-label={label} style={styles.field}>
      <Type look="smallStrong">{label}</Type>
      <View style={styles.parts}>
        <input
          type="date"
          aria-label={`${label}, day`}
          aria-invalid={trouble !== undefined}
          value={day}
          onChange={(event) => onChange(`${event.target.value}T${time}`)}
          style={look}
        />
        <input
          type="time"
          aria-label={`${label}, time`}
          aria-invalid={trouble !== undefined}
          value={time}
          onChange={(event) => onChange(`${day}T${event.target.value}`)}
          style={look}
        />
      </View>
      <Trouble text={trouble} />
    </View>
  );
}

const styles = StyleSheet.create({
  field: { gap: space.tight, maxWidth: '100%' },
  parts: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
});
