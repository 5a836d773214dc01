import { View, StyleSheet } from 'react-native';
import { TextInput } from 'react-native-paper';
import { setPreferences, usePreferences } from '../data/preferences';
import { Choice } from '../ui/Field';
import { Sheet } from '../ui/Sheet';
import { useCordelTheme } from '../ui/theme';
import { faces, space, stroke, touch } from '../ui/tokens';
import { Type } from '../ui/Type';

/** What this device remembers about the person who holds it. */
export function PreferencesSheet({ open, onClose }: { open: boolean; onClose: () => void }) {
  const { appearance, textSize, decimalSign, person, sleeveReminder, heaterLane, screenStaysOn } =
    usePreferences();
  const { palette, size } = useCordelTheme();
  return (
    <Sheet title="Preferences" open={open} onClose={onClose}>
      <Choice
        label="Light"
        value={appearance}
        onChange={(value) => setPreferences({ appearance: value })}
        options={[
          { value: 'system', label: 'As the device' },
          { value: 'day', label: 'Day' },
          { value: 'night', label: 'Night' },
        ]}
      />
      <Choice
        label="Text size"
        value={String(textSize)}
        onChange={(value) => setPreferences({ textSize: Number(value) })}
        options={[1, 1.25, 1.5, 2].map((value) => ({ value: String(value), label: `${value * 100} %` }))}
      />
      <Choice
        label="Numbers are written"
        value={decimalSign}
        onChange={(value) => setPreferences({ decimalSign: value })}
        options={[
          { value: 'device', label: 'As the device' },
          { value: '.', label: '0.05' },
          { value: ',', label: '0,05' },
        ]}
      />
      <Choice
        label="The bench asks whether the sleeve is on"
        value={sleeveReminder ? 'yes' : 'no'}
        onChange={(value) => setPreferences({ sleeveReminder: value === 'yes' })}
        options={[
          { value: 'yes', label: 'With every splice' },
          { value: 'no', label: 'Never' },
        ]}
      />
      <Choice
        label="Clocks of heater and cooling tray at the bench"
        value={heaterLane ? 'yes' : 'no'}
        onChange={(value) => setPreferences({ heaterLane: value === 'yes' })}
        options={[
          { value: 'yes', label: 'Shown' },
          { value: 'no', label: 'Not shown' },
        ]}
      />
      <Choice
        label="The screen at the bench"
        value={screenStaysOn ? 'yes' : 'no'}
        onChange={(value) => setPreferences({ screenStaysOn: value === 'yes' })}
        options={[
          { value: 'yes', label: 'Stays on' },
          { value: 'no', label: 'As the device' },
        ]}
      />
      <View style={styles.field}>
        <Type look="smallStrong">Your first name</Type>
        <TextInput
          mode="outlined"
          dense
          aria-label="Your first name"
          maxLength={40}
          value={person}
          onChangeText={(value) => setPreferences({ person: value })}
          outlineColor={palette.ink}
          activeOutlineColor={palette.ink}
          outlineStyle={{ borderWidth: stroke.rule }}
          style={[styles.input, { backgroundColor: palette.sheet, fontSize: size('body') }]}
          contentStyle={{ fontFamily: faces.sans }}
        />
        <Type look="small" tone="soft">
          Stands on every reading that you enter on this device.
        </Type>
      </View>
    </Sheet>
  );
}

const styles = StyleSheet.create({
  field: { gap: space.tight },
  input: { minHeight: touch.normal },
});
