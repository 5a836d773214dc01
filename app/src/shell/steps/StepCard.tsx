import type { Tick, TickAnswer } from '@cordel/core';
import type { CutMark, Step } from '@cordel/core/prepare';
import { Pressable, StyleSheet, View } from 'react-native';
import { clockWords, startTimer, useTimers } from '../../data/timers';
import { Action } from '../../ui/Action';
import { Caution } from '../../ui/Caution';
import { CordRow } from '../../ui/Cord';
import { Knot } from '../../ui/Knot';
import { useCordelTheme } from '../../ui/theme';
import { space, stroke, touch } from '../../ui/tokens';
import type { ShownZone } from '../../ui/times';
import { Type } from '../../ui/Type';
import { CheckPart } from './CheckPart';
import { isWrong, tickWords } from './tickWords';

interface StepCardProps {
  step: Step;
  first: boolean;
  last: boolean;
  beforeDone: boolean;
  tick: Tick | null;
  marks: readonly CutMark[];
  open: boolean;
  folded: boolean;
  /** What has to be done before: nothing is ticked or answered until then. */
  waitsFor?: string | null;
  timerId: string;
  zone: ShownZone;
  onOpen: () => void;
  onDone: (answer?: TickAnswer | null, note?: string) => void;
  onUndo: () => void;
}

/** One step on the cord: its name, and when it is open what, how good looks, the usual mistake, the caution, question and clock. */
export function StepCard({
  step,
  first,
  last,
  beforeDone,
  tick,
  marks,
  open,
  folded,
  waitsFor = null,
  timerId,
  zone,
  onOpen,
  onDone,
  onUndo,
}: StepCardProps) {
  const { palette } = useCordelTheme();
  const done = tick?.body.state === 'done';
  const waits = !done && waitsFor !== null;
  const wrong = done && isWrong(tick, step.check);
  return (
    <CordRow
      above={first ? 'none' : beforeDone ? 'done' : 'open'}
      below={last ? 'none' : done ? 'done' : 'open'}
      knot={<Knot mark={wrong ? 'owner' : done ? 'holds' : 'open'} size={22} />}
      knotSize={22}
      knotAt={28}
    >
      <View
        style={[
          styles.card,
          open ? { borderColor: palette.ink, backgroundColor: palette.sheet } : styles.closed,
        ]}
      >
        <View style={styles.head}>
          <Pressable role="button" aria-expanded={open} onPress={onOpen} style={styles.title}>
            <Type look={open ? 'title' : 'strong'}>{step.title}</Type>
            {done ? (
              <Type look="small" tone="soft">
                {tickWords(tick, step.check, zone)}
              </Type>
            ) : null}
          </Pressable>
          {folded && !open && !done && !waits && !step.check ? (
            <Action bench label="Done" spoken={`Done: ${step.title}`} onPress={() => onDone()} />
          ) : null}
          {folded && !open && !done && !waits && step.check ? (
            <Action bench label="Answer" spoken={`Answer: ${step.title}`} onPress={onOpen} />
          ) : null}
        </View>
        {open ? (
          <View style={styles.body}>
            <StepText step={step} marks={marks} timerId={timerId} />
            {waits ? (
              <Type look="strong" tone="accent">
                First: {waitsFor}.
              </Type>
            ) : null}
            {step.check && !done && !waits ? <CheckPart check={step.check} onAnswer={onDone} /> : null}
            {done ? (
              <Action
                bench
                label="Not done after all"
                spoken={`Not done after all: ${step.title}`}
                onPress={onUndo}
              />
            ) : null}
          </View>
        ) : null}
      </View>
    </CordRow>
  );
}

/** What it is, the caution, how good looks, the usual mistake, and its clock. */
export function StepText({
  step,
  marks = [],
  timerId,
}: {
  step: Step;
  marks?: readonly CutMark[];
  timerId: string;
}) {
  return (
    <>
      <Type>{step.what}</Type>
      {marks.map((mark) => (
        <Type key={mark.id} look="smallStrong">
          {mark.title}: {mark.place}
        </Type>
      ))}
      {step.caution ? <Caution text={step.caution} /> : null}
      <Type look="small">
        <Type look="smallStrong">Good: </Type>
        {step.good}
      </Type>
      <Type look="small">
        <Type look="smallStrong">The usual mistake: </Type>
        {step.mistake}
      </Type>
      {step.timer ? <StepClock id={timerId} timer={step.timer} /> : null}
    </>
  );
}

function StepClock({ id, timer }: { id: string; timer: NonNullable<Step['timer']> }) {
  const running = useTimers().some((one) => one.id === id);
  return (
    <Action
      bench
      label={running ? 'Start the clock again' : `Start the clock: ${clockWords(timer.seconds)}`}
      detail={timer.label}
      onPress={() => startTimer(id, timer.label, timer.seconds)}
    />
  );
}

const styles = StyleSheet.create({
  card: { borderWidth: stroke.rule, marginVertical: space.tight },
  closed: { borderColor: 'transparent' },
  head: { flexDirection: 'row', alignItems: 'center', gap: space.small, flexWrap: 'wrap' },
  title: {
    flex: 1,
    minHeight: touch.bench,
    minWidth: 160,
    justifyContent: 'center',
    paddingHorizontal: space.medium,
    paddingVertical: space.tight,
  },
  body: { padding: space.medium, paddingTop: 0, gap: space.medium },
});
