import { shownNumber } from '@cordel/core';
import { memo, useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { Action } from './Action';
import { useCordelTheme } from './theme';
import { space, stroke, touch } from './tokens';
import { Type } from './Type';

/** Ten big keys: nearly every splice reads 0.00 to 0.09 dB, and one tap enters the whole reading. */
export const HundredthsPad = memo(function HundredthsPad({
  onReading,
  keyHints,
}: {
  /** dB */
  onReading: (loss: number) => void;
  keyHints: boolean;
}) {
  return (
    <View role="group" aria-label="Loss in hundredths of a dB" style={styles.pad}>
      {[0, 5].map((first) => (
        <View key={first} style={styles.row}>
          {Array.from({ length: 5 }, (_, index) => (
            <Key
              key={index}
              face={shownNumber(`.0${first + index}`)}
              hint={keyHints ? String(first + index) : null}
              // With its hint in sight the name says the hint too, so that what is seen and what is spoken agree.
              spoken={`${keyHints ? `${first + index} ${shownNumber(`.0${first + index}`)}` : shownNumber(`0.0${first + index}`)} dB`}
              onPress={() => onReading((first + index) / 100)}
            />
          ))}
        </View>
      ))}
    </View>
  );
});

/** Keys for a reading of any size, typed digit by digit. */
export function FullPad({
  onReading,
  onClose,
  refusal,
}: {
  /** What was typed, dB. */
  onReading: (loss: number) => void;
  onClose: () => void;
  /** Why this loss cannot be taken, or null. */
  refusal: (loss: number) => string | null;
}) {
  const [typed, setTyped] = useState('0.');
  const loss = Number(typed);
  const trouble = refusal(loss);
  const add = (text: string) => setTyped((before) => typeInto(before, text));
  return (
    <View role="group" aria-label="Any loss in dB" style={styles.pad}>
      <View style={styles.display}>
        <Type look="huge" aria-live="polite">
          {shownNumber(typed)} dB
        </Type>
        {trouble ? (
          <Type look="small" tone="accent" role="alert" style={styles.trouble}>
            {trouble}
          </Type>
        ) : null}
      </View>
      {['123', '456', '789', '.0<'].map((row) => (
        <View key={row} style={styles.row}>
          {[...row].map((face) => (
            <Key
              key={face}
              low
              face={face === '<' ? '←' : shownNumber(face)}
              hint={null}
              spoken={face === '<' ? 'Delete' : face === '.' ? 'Decimal point' : face}
              onPress={() => add(face)}
            />
          ))}
        </View>
      ))}
      <View style={styles.row}>
        <Action bench label="Cancel" onPress={onClose} style={styles.flex} />
        <Action
          bench
          kind="now"
          label={`Enter ${shownNumber(typed.replace(/\.$/, ''))} dB`}
          disabled={trouble !== null}
          onPress={() => onReading(loss)}
          style={styles.twice}
        />
      </View>
    </View>
  );
}

/** What stands on the display after one more key; "<" takes the last one away. At most three decimals. */
export function typeInto(before: string, key: string): string {
  if (key === '<') return before.length > 1 ? before.slice(0, -1) : '0';
  if (key === '.') return before.includes('.') ? before : `${before}.`;
  if (/\.\d{3}$/.test(before) || before.length > 6) return before;
  return before === '0' ? key : before + key;
}

interface KeyProps {
  face: string;
  hint: string | null;
  spoken: string;
  low?: boolean;
  onPress: () => void;
}

function Key({ face, hint, spoken, low = false, onPress }: KeyProps) {
  const { palette, textScale } = useCordelTheme();
  return (
    <Pressable
      role="button"
      aria-label={spoken}
      onPress={onPress}
      style={(state) => [
        styles.key,
        low ? styles.low : styles.high,
        { borderColor: palette.ink, backgroundColor: state.pressed ? palette.hairline : palette.sheet },
      ]}
    >
      {hint ? (
        <Type look="small" tone="soft" style={styles.hint} aria-hidden>
          {hint}
        </Type>
      ) : null}
      {/* Five of them stand side by side on a phone. */}
      <Type look={textScale > 1.5 ? 'title' : 'key'}>{face}</Type>
    </Pressable>
  );
}

const styles = StyleSheet.create({
  pad: { gap: space.tight },
  row: { flexDirection: 'row', gap: space.tight },
  key: { flex: 1, borderWidth: stroke.rule, alignItems: 'center', justifyContent: 'center' },
  high: { minHeight: 88 },
  low: { minHeight: touch.bench },
  hint: { position: 'absolute', top: space.tight, left: space.small },
  display: { minHeight: 64, alignItems: 'center', justifyContent: 'center', gap: space.hair },
  trouble: { textAlign: 'center' },
  flex: { flex: 1 },
  twice: { flex: 2 },
});
