import { shownNumber } from '@cordel/core';
import { useState } from 'react';
import { TextBox } from './Field';
import { toNumber } from './numberField';

interface NumberBoxProps<N extends number | null> {
  label: string;
  unit?: string;
  hint?: string;
  value: N;
  trouble?: string | undefined;
  /** What stands there as a number; NaN while it is none. */
  onChange: (value: N) => void;
}

/** A field for a number. What was typed stays as it was typed; the schema that checks the form says what is wrong with it. */
export function NumberBox(
  props:
    (NumberBoxProps<number> & { optional?: false }) | (NumberBoxProps<number | null> & { optional: true }),
) {
  const { label, unit, hint, value, trouble, optional, onChange } = props;
  const [text, setText] = useState(value === null || Number.isNaN(value) ? '' : shownNumber(value));
  return (
    <TextBox
      label={label}
      unit={unit}
      hint={hint}
      keyboard="decimal"
      value={text}
      trouble={trouble}
      onChangeText={(next) => {
        setText(next);
        if (optional && next.trim() === '') onChange(null);
        else (onChange as (value: number) => void)(toNumber(next));
      }}
    />
  );
}
