import { useState } from 'react';
import { TextBox } from '../../../ui/Field';

const two = (number: number) => String(number).padStart(2, '0');

/** "04:30". */
export function dayTime(minute: number): string {
  return Number.isNaN(minute) ? '' : `${two(Math.floor(minute / 60))}:${two(minute % 60)}`;
}

/** Minutes after midnight of a time as it is typed: 4:30, 04:30, 0430, 4. null: it is none. */
export function readDayTime(text: string): number | null {
  const match = /^(\d{1,2})(?:[:.h]?(\d\d))?$/.exec(text.trim());
  if (!match) return null;
  const [hours, minutes] = [Number(match[1]), Number(match[2] ?? 0)];
  return hours < 24 && minutes < 60 ? hours * 60 + minutes : null;
}

/** A time of day. NaN while what stands there is none. */
export function DayTimeBox(
  props: {
    label: string;
    hint?: string;
  } & (
    | { value: number | null; optional: true; onChange: (minute: number | null) => void }
    | { value: number; optional?: false; onChange: (minute: number) => void }
  ),
) {
  const { label, hint, value } = props;
  const [text, setText] = useState(value === null ? '' : dayTime(value));
  const empty = props.optional && text.trim() === '';
  return (
    <TextBox
      label={label}
      hint={hint}
      value={text}
      trouble={!empty && readDayTime(text) === null ? 'Give a time of day, like 04:30.' : undefined}
      onChangeText={(next) => {
        setText(next);
        const minute = readDayTime(next);
        if (props.optional && next.trim() === '') props.onChange(null);
        else props.onChange(minute ?? NaN);
      }}
    />
  );
}
