import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Action } from './Action';
import { space } from './tokens';
import { Type } from './Type';

/** The numbers that stand in a chart, as a list for who does not see it, or wants them. */
export function Numbers({
  title,
  rows,
}: {
  title: string;
  rows: readonly (readonly [what: string, value: string])[];
}) {
  const [open, setOpen] = useState(false);
  return (
    <View>
      <Action
        kind="plain"
        label={open ? 'Hide the numbers' : 'The numbers'}
        spoken={`${open ? 'Hide the numbers' : 'The numbers'}: ${title}`}
        onPress={() => setOpen(!open)}
        style={styles.left}
      />
      {open ? (
        <View role="list" aria-label={title}>
          {rows.map(([what, value]) => (
            <View key={what} role="listitem" style={styles.row}>
              <Type look="small">{`${what}: ${value}`}</Type>
            </View>
          ))}
        </View>
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  left: { alignSelf: 'flex-start' },
  row: { paddingVertical: space.hair },
});
