import { StyleSheet, View } from 'react-native';
import { Sheet } from '../../../ui/Sheet';
import { space } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';

const keys = [
  ['0 … 9', 'Hundredths of a dB: 7 is 0.07, 14 is 0.14'],
  ['.', 'A plain decimal: 0.145'],
  ['Enter', 'Confirms the reading'],
  ['Backspace, Escape', 'Takes back a digit, all digits'],
  ['↑ ↓', 'Moves along the cord'],
  ['s', 'Skips to the next one to splice'],
  ['u', 'Takes the last reading back, for a few seconds'],
  ['?', 'This list'],
] as const;

export function KeysSheet({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Sheet title="Keys at the bench" open={open} onClose={onClose}>
      {keys.map(([key, what]) => (
        <View key={key} style={styles.row}>
          <Type look="strong" style={styles.key}>
            {key}
          </Type>
          <Type style={styles.what}>{what}</Type>
        </View>
      ))}
    </Sheet>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', gap: space.medium },
  key: { width: 130 },
  what: { flex: 1 },
});
