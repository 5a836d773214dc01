import { cleaveAngleRefusal, formatAngle } from '@cordel/core';
import { Pressable, StyleSheet, View } from 'react-native';
import { TextInput } from 'react-native-paper';
import { Action } from '../../ui/Action';
import { useCordelTheme } from '../../ui/theme';
import { faces, space, stroke, touch } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import type { Details } from './useBench';

interface DetailsPanelProps {
  details: Details;
  /** Whether there is one angle on each side; the fibers of a ribbon have their own. */
  angles: boolean;
  onChange: (details: Details) => void;
  onDone: () => void;
  onBroken: () => void;
  /** Goes to the fiber's way through the other closures. */
  onFollow: () => void;
  /** Takes a ribbon's losses as a column; null for a single splice. */
  onPaste: (() => void) | null;
}

/** What may go on record beside the loss: both cleave angles, a failed proof test, a note. In the pad's place, and gone with one tap. */
export function DetailsPanel({
  details,
  angles,
  onChange,
  onDone,
  onBroken,
  onFollow,
  onPaste,
}: DetailsPanelProps) {
  const { palette, size } = useCordelTheme();
  return (
    <View style={styles.panel}>
      {angles ? (
        <>
          <AngleRow
            side="left"
            angle={details.cleaveLeft}
            onChange={(cleaveLeft) => onChange({ ...details, cleaveLeft })}
          />
          <AngleRow
            side="right"
            angle={details.cleaveRight}
            onChange={(cleaveRight) => onChange({ ...details, cleaveRight })}
          />
        </>
      ) : null}
      <TextInput
        mode="outlined"
        dense
        placeholder="Note, if one is needed"
        placeholderTextColor={palette.soft}
        aria-label="Note"
        maxLength={500}
        value={details.note}
        onChangeText={(note) => onChange({ ...details, note })}
        outlineColor={palette.ink}
        activeOutlineColor={palette.ink}
        outlineStyle={{ borderWidth: stroke.rule }}
        style={[styles.note, { backgroundColor: palette.sheet, fontSize: size('body') }]}
        contentStyle={{ fontFamily: faces.sans }}
      />
      <View style={styles.row}>
        <Action
          bench
          label="Proof test failed"
          pressed={details.proofTestFailed}
          onPress={() => onChange({ ...details, proofTestFailed: !details.proofTestFailed })}
          style={styles.flex}
        />
        <Action
          bench
          label="Sleeve forgotten"
          pressed={details.sleeveForgotten}
          onPress={() => onChange({ ...details, sleeveForgotten: !details.sleeveForgotten })}
          style={styles.flex}
        />
        {details.proofTestFailed ? (
          <Action bench label="Broke, no reading" onPress={onBroken} style={styles.flex} />
        ) : null}
      </View>
      <View style={styles.row}>
        <Action bench label="Follow this fiber" onPress={onFollow} style={styles.flex} />
        {onPaste ? <Action bench label="Paste a column" onPress={onPaste} style={styles.flex} /> : null}
        <Action bench kind="now" label="Back to the pad" onPress={onDone} style={styles.flex} />
      </View>
    </View>
  );
}

/** Cleave angles move in tenths of a degree, from the first one tap sets. */
const step = 0.1;
const first = 0.5;

function AngleRow({
  side,
  angle,
  onChange,
}: {
  side: 'left' | 'right';
  angle: number | null;
  onChange: (angle: number | null) => void;
}) {
  const { palette } = useCordelTheme();
  const move = (by: number) => {
    const next = angle === null ? first : Math.round((angle + by) * 10) / 10;
    if (cleaveAngleRefusal(next) === null) onChange(next);
  };
  const box = [styles.step, { borderColor: palette.ink, backgroundColor: palette.sheet }];
  return (
    <View role="group" aria-label={`Cleave angle ${side}`} style={styles.row}>
      <Type look="strong" style={styles.side}>
        Cleave {side}
      </Type>
      <Pressable role="button" aria-label={`Less, ${side}`} style={box} onPress={() => move(-step)}>
        <Type look="key">−</Type>
      </Pressable>
      <Pressable
        role="button"
        aria-label={
          angle === null ? `Cleave ${side} not looked at` : `Clear cleave ${side}, ${formatAngle(angle)}`
        }
        style={styles.angle}
        onPress={() => onChange(angle === null ? first : null)}
      >
        <Type look="reading">{angle === null ? '–' : formatAngle(angle)}</Type>
      </Pressable>
      <Pressable role="button" aria-label={`More, ${side}`} style={box} onPress={() => move(step)}>
        <Type look="key">+</Type>
      </Pressable>
    </View>
  );
}

const styles = StyleSheet.create({
  panel: { gap: space.small },
  row: { flexDirection: 'row', alignItems: 'center', gap: space.small },
  side: { flex: 1 },
  step: {
    width: 72,
    minHeight: touch.bench,
    borderWidth: stroke.rule,
    alignItems: 'center',
    justifyContent: 'center',
  },
  angle: { width: 72, minHeight: touch.bench, alignItems: 'center', justifyContent: 'center' },
  note: { minHeight: touch.bench },
  flex: { flex: 1 },
});
