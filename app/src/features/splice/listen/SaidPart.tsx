import { useEffect, useReducer, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { setPreferences, usePreferences } from '../../../data/preferences';
import { Action } from '../../../ui/Action';
import { canSpeak, onVoices, speak } from '../../../ui/speak';
import { space } from '../../../ui/tokens';
import { readyToSound, sound } from '../../../ui/tones';
import { Type } from '../../../ui/Type';

const pedals = [
  ['next', 'Next'],
  ['again', 'Again'],
  ['skip', 'Skip'],
] as const;
type Pedal = (typeof pedals)[number][0];

/** What is heard and felt, and what a foot switch does. */
export function SaidPart() {
  const { tones, voice, buzzes, listenKeys } = usePreferences();
  const [, heard] = useReducer((count: number) => count + 1, 0);
  useEffect(() => onVoices(heard), []);
  const [learning, setLearning] = useState<Pedal | null>(null);
  useEffect(() => {
    if (learning === null) return;
    const learn = (event: KeyboardEvent) => {
      if (/^(Shift|Control|Alt|Meta)$/.test(event.key)) return;
      event.preventDefault();
      event.stopPropagation();
      if (event.key !== 'Escape') setPreferences({ listenKeys: { ...listenKeys, [learning]: event.key } });
      setLearning(null);
    };
    window.addEventListener('keydown', learn, true);
    return () => window.removeEventListener('keydown', learn, true);
  }, [learning, listenKeys]);
  const speaks = canSpeak();
  return (
    <View style={styles.part}>
      <Type look="heading">Heard and felt</Type>
      <View style={styles.row}>
        <Action
          bench
          label="Tones"
          pressed={tones}
          onPress={() => {
            setPreferences({ tones: !tones });
            if (tones) return;
            readyToSound();
            sound('holds');
          }}
        />
        <Action
          bench
          label="Voice"
          pressed={voice && speaks}
          disabled={!speaks}
          onPress={() => {
            setPreferences({ voice: !voice });
            if (!voice) speak('Holds, 0.03.');
          }}
        />
        <Action bench label="Buzz" pressed={buzzes} onPress={() => setPreferences({ buzzes: !buzzes })} />
      </View>
      {speaks ? null : (
        <Type look="small" tone="soft">
          This device has no voice of its own for English.
        </Type>
      )}
      <Type look="heading">Foot switch or keyboard</Type>
      <Type look="small" tone="soft">
        Any key does what the big key says. Three can be paired: tap one, then press the switch.
      </Type>
      <View style={styles.row}>
        {pedals.map(([pedal, label]) => (
          <Action
            key={pedal}
            bench
            label={label}
            detail={learning === pedal ? 'press it now' : keyWords(listenKeys[pedal])}
            pressed={learning === pedal}
            onPress={() => setLearning(learning === pedal ? null : pedal)}
          />
        ))}
      </View>
    </View>
  );
}

const keyWords = (key: string) => (key === ' ' ? 'space' : key);

const styles = StyleSheet.create({
  part: { gap: space.small },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
});
