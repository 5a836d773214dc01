import { fiberName, type Cable } from '@cordel/core';
import {
  drillLength,
  drillQuestion,
  drillScore,
  drillWords,
  type DrillAnswer,
  type DrillCables,
} from '@cordel/core/practice';
import { useEffect, useState } from 'react';
import { Pressable, ScrollView, StyleSheet, View } from 'react-native';
import { Action } from '../../ui/Action';
import { GlassCapsule } from '../../ui/FiberToken';
import { useCordelTheme } from '../../ui/theme';
import { gutter, space, stroke, touch } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import { useLatest } from '../../ui/useLatest';
import { rememberDrill } from './drillResults';

/** A round of questions, each timed from the moment in which it stands there. */
export function DrillRound({
  seed,
  cables,
  scheme,
  onDone,
}: {
  seed: number;
  cables: DrillCables;
  scheme: string;
  onDone: () => void;
}) {
  const { palette } = useCordelTheme();
  const [answers, setAnswers] = useState<readonly DrillAnswer[]>([]);
  const [chosen, setChosen] = useState<number | null>(null);
  const [since, setSince] = useState(() => performance.now());
  const nth = chosen === null ? answers.length : answers.length - 1;
  const over = chosen === null && answers.length === drillLength;
  useEffect(() => {
    if (!over) return;
    const { right, seconds } = drillScore(answers);
    rememberDrill({ at: Date.now(), cables, scheme, right, of: drillLength, seconds });
    onDone();
  }, [over, answers, cables, scheme, onDone]);
  const choose = useLatest((choice: number, right: boolean) => {
    setAnswers([...answers, { right, ms: performance.now() - since }]);
    setChosen(choice);
  });
  if (over) return null;
  const question = drillQuestion(seed, nth, cables, scheme);
  const { cable, asks, number, choices } = question;
  const unit = fiberName(cable, number).unitKind;
  const next = () => {
    setChosen(null);
    setSince(performance.now());
  };
  return (
    <ScrollView contentContainerStyle={styles.round}>
      <Type look="small" tone="soft">
        {`${nth + 1} of ${drillLength} · a cable of ${cableWords(cable)}`}
      </Type>
      <View role="group" aria-label="The question" style={styles.question}>
        <Type look="title">
          {asks === 'where' ? `Where is fiber ${number}?` : 'Which number has this fiber?'}
        </Type>
        {asks === 'number' ? <Looks cable={cable} number={number} /> : null}
      </View>
      <View style={styles.choices}>
        {choices.map((choice) => {
          const right = chosen !== null && choice === number;
          const wrong = chosen === choice && choice !== number;
          return (
            <Pressable
              key={choice}
              role="button"
              disabled={chosen !== null}
              onPress={() => choose(choice, choice === number)}
              style={[
                styles.choice,
                {
                  borderColor: wrong ? palette.accent : palette.ink,
                  backgroundColor: palette.sheet,
                  borderWidth: right || wrong ? stroke.heavy : stroke.rule,
                },
              ]}
            >
              {asks === 'where' ? (
                <Looks cable={cable} number={choice} />
              ) : (
                <Type look="key">{String(choice)}</Type>
              )}
              {right ? <Type look="smallStrong">right</Type> : null}
              {wrong ? (
                <Type look="smallStrong" tone="accent">
                  not this one
                </Type>
              ) : null}
            </Pressable>
          );
        })}
      </View>
      <View role="status" aria-live="polite">
        {chosen === null ? null : (
          <Type look="strong" tone={chosen === number ? 'ink' : 'accent'}>
            {`${chosen === number ? 'Right.' : 'Not this one.'} ${drillWords(question)}`}
          </Type>
        )}
      </View>
      {chosen === null ? null : (
        <Action
          bench
          kind="now"
          label={answers.length === drillLength ? 'See the result' : 'Next'}
          onPress={next}
        />
      )}
      <Type look="small" tone="soft">
        {`The ${unit}’s color stands first, then the fiber’s.`}
      </Type>
    </ScrollView>
  );
}

function cableWords({ construction }: Cable): string {
  switch (construction.kind) {
    case 'stranded-tubes': {
      const [first] = construction.strands;
      const fibers = first?.kind === 'tube' ? first.fibers : 0;
      return `${construction.strands.length} tubes of ${fibers}${fibers > 12 ? ' in groups of 12' : ''}`;
    }
    case 'central-ribbon':
      return `${construction.ribbons} ribbons of ${construction.fibersPerRibbon}`;
    default:
      return 'fibers';
  }
}

/** A fiber as it is seen: the color of what holds it, its group, its own color; each with its letters. */
function Looks({ cable, number }: { cable: Cable; number: number }) {
  const { unitKind, unitColor, group, fiberColor } = fiberName(cable, number);
  return (
    <View style={styles.looks}>
      <View style={styles.look}>
        <GlassCapsule color={unitColor} size={unitKind === 'ribbon' ? 'ribbon' : 'tube'} />
        <Type look="strong">{unitColor.code}</Type>
      </View>
      {group === null ? null : <Type look="strong">{`group ${group}`}</Type>}
      <View style={styles.look}>
        <GlassCapsule color={fiberColor} />
        <Type look="strong">{fiberColor.code}</Type>
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  // The answers lie under the thumb.
  round: {
    flexGrow: 1,
    justifyContent: 'flex-end',
    padding: space.large,
    paddingLeft: gutter.width,
    gap: space.medium,
    maxWidth: 760,
  },
  question: { gap: space.small, minHeight: 96, justifyContent: 'center' },
  choices: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
  choice: {
    flexGrow: 1,
    flexBasis: 140,
    minHeight: 1.4 * touch.bench,
    padding: space.small,
    alignItems: 'center',
    justifyContent: 'center',
    gap: space.tight,
  },
  looks: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: space.medium },
  look: { flexDirection: 'row', alignItems: 'center', gap: space.tight },
});
