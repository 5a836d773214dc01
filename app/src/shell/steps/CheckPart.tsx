import type { ColorMark, TickAnswer } from '@cordel/core';
import { answerWords, isRightAnswer, readAnswer, type StepCheck } from '@cordel/core/prepare';
import { useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { Action } from '../../ui/Action';
import { TextBox } from '../../ui/Field';
import { GlassCapsule } from '../../ui/FiberToken';
import { useCordelTheme } from '../../ui/theme';
import { space, stroke, touch } from '../../ui/tokens';
import { Type } from '../../ui/Type';

/** Asks for a count or a color. A wrong answer stops the step until it is answered again, or somebody says why to go on. */
export function CheckPart({
  check,
  onAnswer,
}: {
  check: StepCheck;
  onAnswer: (answer: TickAnswer, note?: string) => void;
}) {
  const [text, setText] = useState('');
  const [wrong, setWrong] = useState<TickAnswer | null>(null);
  const [reason, setReason] = useState('');
  const [trouble, setTrouble] = useState<string>();
  const give = (answer: string) => {
    const read = readAnswer(check, answer);
    if (!read)
      setTrouble(check.field ? 'Give the number in digits.' : 'Give the number that you counted, in digits.');
    else if (isRightAnswer(check, read)) onAnswer(read);
    else setWrong(read);
  };
  if (wrong !== null)
    return (
      <View style={styles.part}>
        <View role="alert">
          <Type look="heading" tone="accent">
            {answerWords(wrong)} is not what the plan expects
          </Type>
          <Type>{check.wrong}</Type>
        </View>
        <Action
          bench
          kind="now"
          label="Answer again"
          onPress={() => {
            setWrong(null);
            setText('');
          }}
        />
        <TextBox
          bench
          label="Why it is right to go on all the same"
          value={reason}
          onChangeText={setReason}
          hint="It stands in the record with the answer."
        />
        <Action
          bench
          label="Go on all the same"
          disabled={reason.trim() === ''}
          onPress={() => onAnswer(wrong, reason.trim())}
        />
      </View>
    );
  return (
    <View style={styles.part} role="group" aria-label={check.ask}>
      <Type look="heading">{check.ask}</Type>
      {check.expects === 'colors' ? (
        <View style={styles.colors}>
          {(check.pairs ?? []).map(([left, right]) => (
            <PairKey
              key={`${left.code} ${right.code}`}
              left={left}
              right={right}
              onPress={() => give(`${left.code} ${right.code}`)}
            />
          ))}
        </View>
      ) : check.expects === 'color' ? (
        <View style={styles.colors}>
          {(check.choices ?? []).map((color) => (
            <ColorKey key={color.code} color={color} onPress={() => give(color.code)} />
          ))}
        </View>
      ) : (
        <View style={styles.row}>
          <View style={styles.field}>
            <TextBox
              bench
              label={check.field ?? 'Counted'}
              keyboard="numeric"
              value={text}
              onChangeText={(next) => {
                setText(next);
                setTrouble(undefined);
              }}
              trouble={trouble}
              onSubmit={() => text.trim() !== '' && give(text)}
            />
          </View>
          <Action
            bench
            kind="now"
            label="That is it"
            disabled={text.trim() === ''}
            onPress={() => give(text)}
          />
        </View>
      )}
    </View>
  );
}

function ColorKey({ color, onPress }: { color: ColorMark; onPress: () => void }) {
  const { palette } = useCordelTheme();
  return (
    <Pressable
      role="button"
      aria-label={`${color.code} ${color.name}`}
      onPress={onPress}
      style={[styles.color, { borderColor: palette.ink, backgroundColor: palette.ground }]}
    >
      <GlassCapsule color={color} />
      <Type look="strong">{color.code}</Type>
    </Pressable>
  );
}

/** A color on the left and one on the right, as the two holders are seen from above. */
function PairKey({ left, right, onPress }: { left: ColorMark; right: ColorMark; onPress: () => void }) {
  const { palette } = useCordelTheme();
  return (
    <Pressable
      role="button"
      aria-label={`${left.code} ${right.code}: ${left.name} left, ${right.name} right`}
      onPress={onPress}
      style={[styles.color, styles.pair, { borderColor: palette.ink, backgroundColor: palette.ground }]}
    >
      <GlassCapsule color={left} />
      <Type look="strong">
        {left.code} {right.code}
      </Type>
      <GlassCapsule color={right} />
    </Pressable>
  );
}

const styles = StyleSheet.create({
  part: { gap: space.medium },
  row: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'flex-end', gap: space.small },
  field: { flexGrow: 1, flexBasis: 120 },
  colors: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
  color: {
    minHeight: touch.bench,
    minWidth: 96,
    flexDirection: 'row',
    alignItems: 'center',
    justifyContent: 'center',
    gap: space.small,
    borderWidth: stroke.rule,
    paddingHorizontal: space.small,
  },
  pair: { flexGrow: 1, flexBasis: 150, flexWrap: 'wrap', alignContent: 'center' },
});
