import { Controller, type Control, type FieldPath, type FieldValues } from 'react-hook-form';
import type { TextInputProps } from 'react-native';
import { TextBox } from './Field';

interface FormFieldProps<V extends FieldValues> {
  control: Control<V, unknown, unknown>;
  name: FieldPath<V>;
  label: string;
  hint?: string;
  unit?: string;
  keyboard?: TextInputProps['inputMode'];
  multiline?: boolean;
  onSubmit?: () => void;
}

/** A text field of a form. */
export function FormField<V extends FieldValues>({ control, name, ...box }: FormFieldProps<V>) {
  return (
    <Controller
      control={control}
      name={name}
      render={({ field, fieldState }) => (
        <TextBox
          {...box}
          inputRef={field.ref}
          value={String(field.value ?? '')}
          onChangeText={field.onChange}
          onBlur={field.onBlur}
          trouble={fieldState.error ? (fieldState.error.message ?? 'This is not valid.') : undefined}
        />
      )}
    />
  );
}
