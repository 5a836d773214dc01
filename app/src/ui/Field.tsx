import { useId } from 'react';
import { Controller, type Control, type FieldPath, type FieldValues } from 'react-hook-form';
import { Pressable, StyleSheet, View, type TextInputProps } from 'react-native';
import { TextInput } from 'react-native-paper';
import { useCordelTheme } from './theme';
import { faces, space, stroke, touch } from './tokens';
import { Type } from './Type';

interface FieldProps<V extends FieldValues> {
  control: Control<V, unknown, unknown>;
  name: FieldPath<V>;
  label: string;
  hint?: string;
  unit?: string;
  keyboard?: TextInputProps['inputMode'];
  multiline?: boolean;
}

/** A labelled text field of a form, with its unit, a hint, and its trouble in words below it. */
export function Field<V extends FieldValues>({
  control,
  name,
  label,
  hint,
  unit,
  keyboard = 'text',
  multiline = false,
}: FieldProps<V>) {
  const { palette, size } = useCordelTheme();
  const id = useId();
  return (
    <Controller
      control={control}
      name={name}
      render={({ field, fieldState }) => (
        <View style={styles.field}>
          <Type look="smallStrong" nativeID={id}>
            {unit ? `${label} (${unit})` : label}
          </Type>
          <TextInput
            ref={field.ref}
            mode="outlined"
            dense
            value={String(field.value ?? '')}
            onChangeText={field.onChange}
            onBlur={field.onBlur}
            inputMode={keyboard}
            multiline={multiline}
            error={fieldState.invalid}
            outlineColor={palette.ink}
            activeOutlineColor={palette.ink}
            outlineStyle={styles.outline}
            textColor={palette.ink}
            style={[styles.input, { backgroundColor: palette.sheet, fontSize: size('body') }]}
            contentStyle={styles.text}
            aria-label={unit ? `${label} (${unit})` : label}
          />
          {fieldState.error ? (
            <Type look="small" tone="accent" role="alert">
              {fieldState.error.message}
            </Type>
          ) : hint ? (
            <Type look="small" tone="soft">
              {hint}
            </Type>
          ) : null}
        </View>
      )}
    />
  );
}

interface ChoiceProps<T extends string> {
  label: string;
  options: readonly { readonly value: T; readonly label: string }[];
  value: T;
  onChange: (value: T) => void;
}

/** One of a few, all in sight. */
export function Choice<T extends string>({ label, options, value, onChange }: ChoiceProps<T>) {
  return (
    <View role="radiogroup" aria-label={label} style={styles.field}>
      <Type look="smallStrong" aria-hidden>
        {label}
      </Type>
      <View style={styles.options}>
        {options.map((option) => (
          <ChoiceKey
            key={option.value}
            label={option.label}
            chosen={option.value === value}
            onPress={() => onChange(option.value)}
          />
        ))}
      </View>
    </View>
  );
}

function ChoiceKey({ label, chosen, onPress }: { label: string; chosen: boolean; onPress: () => void }) {
  const { palette } = useCordelTheme();
  return (
    <Pressable
      role="radio"
      aria-label={label}
      aria-checked={chosen}
      onPress={onPress}
      style={[
        styles.option,
        { borderColor: palette.ink, backgroundColor: chosen ? palette.ink : palette.sheet },
      ]}
    >
      <Type look="strong" tone={chosen ? 'ground' : 'ink'}>
        {label}
      </Type>
    </Pressable>
  );
}

const styles = StyleSheet.create({
  field: { gap: space.tight },
  outline: { borderWidth: stroke.rule, borderRadius: 0 },
  input: { minHeight: touch.normal },
  text: { fontFamily: faces.sans },
  options: { flexDirection: 'row', flexWrap: 'wrap', gap: space.tight },
  option: {
    minHeight: touch.normal,
    justifyContent: 'center',
    paddingHorizontal: space.medium,
    paddingVertical: space.small,
    borderWidth: stroke.rule,
  },
});
