import type { Ref } from 'react';
import {
  Pressable,
  StyleSheet,
  View,
  type TextInput as NativeTextInput,
  type TextInputProps,
} from 'react-native';
import { TextInput } from 'react-native-paper';
import { useCordelTheme } from './theme';
import { faces, space, stroke, touch } from './tokens';
import { Trouble } from './Trouble';
import { Type } from './Type';

interface TextBoxProps {
  label: string;
  value: string;
  onChangeText: (text: string) => void;
  onBlur?: () => void;
  hint?: string | undefined;
  unit?: string | undefined;
  /** What is wrong with what stands in it. */
  trouble?: string | undefined;
  keyboard?: TextInputProps['inputMode'];
  multiline?: boolean;
  rows?: number;
  onSelectionChange?: TextInputProps['onSelectionChange'];
  /** Enter in a field of one line. */
  onSubmit?: (() => void) | undefined;
  /** For `focus()`. */
  inputRef?: Ref<NativeTextInput>;
  /** As tall as everything at the bench. */
  bench?: boolean;
}

/** A labelled text field, with its unit, a hint, and its trouble in words below it. */
export function TextBox({
  label,
  value,
  onChangeText,
  onBlur,
  hint,
  unit,
  trouble,
  keyboard = 'text',
  multiline = false,
  rows,
  onSelectionChange,
  onSubmit,
  inputRef,
  bench = false,
}: TextBoxProps) {
  const { palette, size } = useCordelTheme();
  const named = unit ? `${label} (${unit})` : label;
  return (
    <View style={styles.field}>
      <Type look="smallStrong">{named}</Type>
      <TextInput
        ref={inputRef as never}
        mode="outlined"
        dense
        value={value}
        onChangeText={onChangeText}
        {...(onBlur ? { onBlur } : {})}
        {...(onSelectionChange ? { onSelectionChange } : {})}
        {...(onSubmit ? { onSubmitEditing: onSubmit } : {})}
        {...(rows ? { numberOfLines: rows } : {})}
        inputMode={keyboard}
        multiline={multiline}
        error={trouble !== undefined}
        outlineColor={palette.ink}
        activeOutlineColor={palette.ink}
        outlineStyle={styles.outline}
        textColor={palette.ink}
        style={[
          styles.input,
          { backgroundColor: palette.sheet, fontSize: size('body') },
          rows ? { minHeight: rows * size('body') * 1.6 } : null,
          bench ? { minHeight: touch.bench } : null,
        ]}
        contentStyle={styles.text}
        aria-label={named}
      />
      {trouble ? (
        <Trouble text={trouble} />
      ) : hint ? (
        <Type look="small" tone="soft">
          {hint}
        </Type>
      ) : null}
    </View>
  );
}

interface ChoiceProps<T extends string> {
  label: string;
  /** As tall as everything at the bench. */
  bench?: boolean;
  options: readonly { readonly value: T; readonly label: string }[];
  value: T;
  onChange: (value: T) => void;
}

/** One of a few, all in sight. */
export function Choice<T extends string>({ label, options, value, onChange, bench = false }: ChoiceProps<T>) {
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
            bench={bench}
            onPress={() => onChange(option.value)}
          />
        ))}
      </View>
    </View>
  );
}

function ChoiceKey({
  label,
  chosen,
  bench,
  onPress,
}: {
  label: string;
  chosen: boolean;
  bench: boolean;
  onPress: () => void;
}) {
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
        bench ? { minHeight: touch.bench } : null,
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
    maxWidth: '100%',
    minHeight: touch.normal,
    justifyContent: 'center',
    paddingHorizontal: space.medium,
    paddingVertical: space.small,
    borderWidth: stroke.rule,
  },
});
