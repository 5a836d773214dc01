import type { Joint } from '@cordel/core';
import { StyleSheet, View } from 'react-native';
import { TextInput } from 'react-native-paper';
import { Action } from '../../../../ui/Action';
import { useCordelTheme } from '../../../../ui/theme';
import { faces, space, stroke, touch } from '../../../../ui/tokens';
import type { BenchSheet } from '../BenchSheets';
import type { Details } from '../types';

interface DetailsPanelProps {
  details: Details;
  /** A ribbon's losses may come as a column. */
  ribbon: boolean;
  joint: Joint;
  onChange: (details: Details) => void;
  onDone: () => void;
  onBroken: () => void;
  /** Goes to the fiber's way through the other closures. */
  onFollow: () => void;
  onSheet: (sheet: BenchSheet) => void;
}

/** What may go on record beside the loss, and what is seldom needed at a splice. In the pad's place, and gone with one tap. */
export function DetailsPanel({
  details,
  ribbon,
  joint,
  onChange,
  onDone,
  onBroken,
  onFollow,
  onSheet,
}: DetailsPanelProps) {
  const { palette, size } = useCordelTheme();
  return (
    <View style={styles.panel}>
      <TextInput
        mode="outlined"
        dense
        placeholder="Note, if one is needed"
        placeholderTextColor={palette.soft}
        aria-label="Note"
        maxLength={500}
        value={details.note}
        onChangeText={(note) => onChange({ ...details, note })}
        outlineColor={palette.ink}
        activeOutlineColor={palette.ink}
        outlineStyle={{ borderWidth: stroke.rule }}
        style={[styles.note, { backgroundColor: palette.sheet, fontSize: size('body') }]}
        contentStyle={{ fontFamily: faces.sans }}
      />
      <View style={styles.row}>
        <Action
          bench
          label="Proof test failed"
          pressed={details.proofTestFailed}
          onPress={() => onChange({ ...details, proofTestFailed: !details.proofTestFailed })}
          style={styles.key}
        />
        {joint.sleeve ? (
          <Action
            bench
            label="Sleeve forgotten"
            pressed={details.sleeveForgotten}
            onPress={() => onChange({ ...details, sleeveForgotten: !details.sleeveForgotten })}
            style={styles.key}
          />
        ) : null}
        {details.proofTestFailed ? (
          <Action bench label="Broke, no reading" onPress={onBroken} style={styles.key} />
        ) : null}
      </View>
      <View style={styles.row}>
        <Action bench label="Gear tonight" onPress={() => onSheet('gear')} style={styles.key} />
        <Action bench label="Order of work" onPress={() => onSheet('order')} style={styles.key} />
        <Action bench label="Hand steps" onPress={() => onSheet('steps')} style={styles.key} />
      </View>
      <View style={styles.row}>
        <Action bench label="Follow this fiber" onPress={onFollow} style={styles.key} />
        {ribbon ? (
          <Action bench label="Paste a column" onPress={() => onSheet('paste')} style={styles.key} />
        ) : null}
        <Action bench kind="now" label="Back to the pad" onPress={onDone} style={styles.key} />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  panel: { gap: space.small },
  row: { flexDirection: 'row', alignItems: 'stretch', gap: space.small },
  note: { minHeight: touch.bench },
  key: { flex: 1, paddingHorizontal: space.small },
});
