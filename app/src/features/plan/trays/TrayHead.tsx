import type { Closure } from '@cordel/core';
import { memo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Action } from '../../../ui/Action';
import { Choice, TextBox } from '../../../ui/Field';
import { Sheet } from '../../../ui/Sheet';
import { space } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';

/** How the trays are: their number, their slots, what is to be left free. */
export const TrayHead = memo(function TrayHead({
  draft,
  onChange,
}: {
  draft: Closure;
  onChange: (next: Partial<Closure>) => void;
}) {
  const [open, setOpen] = useState(false);
  return (
    <View style={styles.trayHead}>
      <View style={styles.row}>
        <Type look="heading" role="heading" aria-level={2} style={styles.flex}>
          On the trays
        </Type>
        <Action label="Trays and slots" onPress={() => setOpen(true)} />
      </View>
      <Sheet title="Trays and slots" open={open} onClose={() => setOpen(false)}>
        {open ? <TrayForm draft={draft} onChange={onChange} onDone={() => setOpen(false)} /> : null}
      </Sheet>
    </View>
  );
});

/** Begins anew from the draft each time the sheet is opened. */
function TrayForm({
  draft,
  onChange,
  onDone,
}: {
  draft: Closure;
  onChange: (next: Partial<Closure>) => void;
  onDone: () => void;
}) {
  const like = draft.trays[0]!;
  const [count, setCount] = useState(String(draft.trays.length));
  const [single, setSingle] = useState(String(like.singleSlots));
  const [ribbon, setRibbon] = useState(String(like.ribbonSlots ?? 0));
  const [spare, setSpare] = useState(String(draft.spareSlots ?? 0));
  const numbers = [
    { text: count, from: 1, to: 1000 },
    { text: single, from: 0, to: 144 },
    { text: ribbon, from: 0, to: 144 },
    { text: spare, from: 0, to: 100 },
  ];
  const [badCount, badSingle, badRibbon, badSpare] = numbers.map(({ text, from, to }) => {
    const value = Number(text);
    return text.trim() === '' || !Number.isInteger(value) || value < from || value > to
      ? `A whole number from ${from} to ${to}.`
      : undefined;
  });
  return (
    <>
      <Type look="small" tone="soft">
        {draft.model ? `Copied from “${draft.model}”. ` : ''}What is set here is for all trays of this
        closure.
      </Type>
      <TextBox label="Trays" keyboard="numeric" value={count} onChangeText={setCount} trouble={badCount} />
      <TextBox
        label="Slots for single sleeves on each"
        keyboard="numeric"
        value={single}
        onChangeText={setSingle}
        trouble={badSingle}
      />
      <TextBox
        label="Slots for ribbon sleeves on each"
        keyboard="numeric"
        value={ribbon}
        onChangeText={setRibbon}
        trouble={badRibbon}
      />
      <TextBox
        label="Slots left free on each"
        keyboard="numeric"
        value={spare}
        onChangeText={setSpare}
        trouble={badSpare}
      />
      <Choice
        label="Single sleeves"
        options={[
          { value: '60', label: '60 mm' },
          { value: '40', label: '40 mm' },
        ]}
        value={String(draft.sleeveLength ?? 60) as '40' | '60'}
        onChange={(value) => onChange({ sleeveLength: value === '40' ? 40 : 60 })}
      />
      <Action
        kind="now"
        label="Lay out anew"
        disabled={[badCount, badSingle, badRibbon, badSpare].some((bad) => bad !== undefined)}
        onPress={() => {
          onChange({
            trays: Array.from({ length: Number(count) }, () => ({
              singleSlots: Number(single),
              ribbonSlots: Number(ribbon),
            })),
            spareSlots: Number(spare) > 0 ? Number(spare) : undefined,
          });
          onDone();
        }}
      />
    </>
  );
}

const styles = StyleSheet.create({
  trayHead: { gap: space.small },
  row: { flexDirection: 'row', alignItems: 'center', gap: space.small },
  flex: { flex: 1 },
});
