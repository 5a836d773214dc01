import { useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { Action } from './Action';
import { Choice, TextBox } from './Field';
import { Sheet } from './Sheet';
import { useCordelTheme } from './theme';
import { space, stroke, touch } from './tokens';
import { Type } from './Type';

/** So many stand side by side; more are looked for. */
const inSight = 8;

/** One of a few, all in sight; one of many, found by a part of its name. */
export function Picker<T extends string>(props: {
  label: string;
  options: readonly { readonly value: T; readonly label: string }[];
  value: T;
  onChange: (value: T) => void;
  /** So many stand side by side, where there is less room than usual. */
  most?: number;
}) {
  return props.options.length <= (props.most ?? inSight) ? <Choice {...props} /> : <Search {...props} />;
}

function Search<T extends string>({ label, options, value, onChange }: Parameters<typeof Picker<T>>[0]) {
  const { palette } = useCordelTheme();
  const [open, setOpen] = useState(false);
  const [typed, setTyped] = useState('');
  const chosen = options.find((option) => option.value === value);
  const wanted = typed.trim().toLowerCase();
  const found = options.filter((option) => option.label.toLowerCase().includes(wanted));
  const close = () => {
    setOpen(false);
    setTyped('');
  };
  const pick = (next: T) => {
    close();
    onChange(next);
  };
  return (
    <View style={styles.field}>
      <Type look="smallStrong" aria-hidden>
        {label}
      </Type>
      <Action
        label={chosen?.label ?? 'Choose one'}
        spoken={`${chosen?.label ?? 'Choose one'}, ${label}: change it`}
        onPress={() => setOpen(true)}
      />
      <Type look="small" tone="soft">
        One of {options.length}.
      </Type>
      {open ? (
        <Sheet title={label} open onClose={close}>
          <TextBox
            label="A part of its name"
            value={typed}
            onChangeText={setTyped}
            onSubmit={() => found[0] && pick(found[0].value)}
          />
          {found.length === 0 ? <Type tone="soft">None of them has that in its name.</Type> : null}
          <View role="radiogroup" aria-label={label}>
            {found.map((option) => (
              <Pressable
                key={option.value}
                role="radio"
                aria-label={option.label}
                aria-checked={option.value === value}
                onPress={() => pick(option.value)}
                style={[styles.row, { borderBottomColor: palette.hairline }]}
              >
                <Type look={option.value === value ? 'strong' : 'body'}>
                  {option.value === value ? `✓ ${option.label}` : option.label}
                </Type>
              </Pressable>
            ))}
          </View>
        </Sheet>
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  field: { gap: space.tight },
  row: { minHeight: touch.normal, justifyContent: 'center', borderBottomWidth: stroke.hair },
});
