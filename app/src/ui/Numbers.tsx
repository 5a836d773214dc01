import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Action } from './Action';
import { space } from './tokens';
import { Type } from './Type';

type Rows = readonly (readonly [what: string, value: string])[];

/** A list of thousands is long to draw and to hear. */
const atOnce = 200;

/** The numbers that stand in a chart, as a list for who does not see it, or wants them. */
export function Numbers({
  title,
  rows: given,
}: {
  title: string;
  /** Or how to make them, where that is long and seldom asked for. */
  rows: Rows | (() => Rows);
}) {
  const [open, setOpen] = useState(false);
  const [shown, setShown] = useState(atOnce);
  const rows = !open ? [] : typeof given === 'function' ? given() : given;
  return (
    <View>
      <Action
        kind="plain"
        label={`${open ? 'Hide the numbers' : 'The numbers'}: ${title}`}
        onPress={() => setOpen(!open)}
        style={styles.left}
      />
      {open ? (
        <View role="list" aria-label={title}>
          {rows.slice(0, shown).map(([what, value], index) => (
            <View key={index} role="listitem" style={styles.row}>
              <Type look="small">{`${what}: ${value}`}</Type>
            </View>
          ))}
        </View>
      ) : null}
      {open && shown < rows.length ? (
        <Action
          kind="plain"
          label={`${Math.min(atOnce, rows.length - shown)} more of ${rows.length}`}
          onPress={() => setShown(shown + atOnce)}
          style={styles.left}
        />
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  left: { alignSelf: 'flex-start' },
  row: { paddingVertical: space.hair },
});
