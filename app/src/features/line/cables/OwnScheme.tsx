import { glassColors, type GlassColor } from '@cordel/core';
import { Pressable, StyleSheet, View } from 'react-native';
import { Action } from '../../../ui/Action';
import { GlassCapsule } from '../../../ui/FiberToken';
import { TextBox } from '../../../ui/Field';
import { useCordelTheme } from '../../../ui/theme';
import { space, stroke, touch } from '../../../ui/tokens';
import { Trouble } from '../../../ui/Trouble';
import { Type } from '../../../ui/Type';
import type { CableForm } from './cableForm';

/** A color code of the user's own: tap the colors in their order. */
export function OwnScheme({
  form,
  trouble,
  onChange,
}: {
  form: CableForm;
  trouble: string | undefined;
  onChange: (change: Partial<CableForm>) => void;
}) {
  const { palette } = useCordelTheme();
  const all = Object.keys(glassColors) as GlassColor[];
  return (
    <View style={[styles.own, { borderColor: palette.hairline }]}>
      <TextBox label="Its name" value={form.ownName} onChangeText={(ownName) => onChange({ ownName })} />
      <Type look="small">
        {form.ownSequence.length === 0
          ? 'Tap the colors in their order.'
          : form.ownSequence.map((color, index) => `${index + 1} ${glassColors[color]}`).join(' · ')}
      </Type>
      <View style={styles.row}>
        {all.map((color) => (
          <Pressable
            key={color}
            role="button"
            aria-label={`Add ${glassColors[color]}, ${color}`}
            onPress={() => onChange({ ownSequence: [...form.ownSequence, color] })}
            style={styles.swatch}
          >
            <GlassCapsule
              color={{ base: color, tracer: null, stripes: 0, code: glassColors[color], name: color }}
              size="tube"
            />
            <Type look="small">{glassColors[color]}</Type>
          </Pressable>
        ))}
      </View>
      <View style={styles.row}>
        <Action
          label="Take the last away"
          disabled={form.ownSequence.length === 0}
          onPress={() => onChange({ ownSequence: form.ownSequence.slice(0, -1) })}
        />
        <Action label="Start over" onPress={() => onChange({ ownSequence: [] })} />
      </View>
      <Trouble text={trouble} />
    </View>
  );
}

const styles = StyleSheet.create({
  own: { borderWidth: stroke.hair, padding: space.medium, gap: space.small },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.tight },
  swatch: { minWidth: touch.normal, minHeight: touch.normal, alignItems: 'center', justifyContent: 'center' },
});
