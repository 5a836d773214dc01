import { dueWords } from '@cordel/core/gear';
import { fiberOf, type Cable, type Conditions, type Fact } from '@cordel/core';
import { useEffect, useState, type ReactNode } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { usePreferences } from '../../../data/preferences';
import { Action } from '../../../ui/Action';
import { Caution } from '../../../ui/Caution';
import { space } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import type { GearAtBench } from './gearAtBench';
import { newCalibration, newGearEvent, newWentOn } from './newGearFact';
import { readWeather, WeatherFields, weatherText } from './WeatherFields';

type Ask = NonNullable<GearAtBench['ask']>;

interface DueQuestionProps {
  ask: Ask;
  atBench: GearAtBench;
  closureId: string;
  /** The cables of the splice at hand. */
  cables: readonly Cable[];
  units: 'mm' | 'in';
  onFact: (fact: Fact) => void;
}

/** A key that lay elsewhere a moment ago must not be hit by a thumb that was on its way. ms */
const armMs = 600;

function useArmed(key: string): boolean {
  const [armed, setArmed] = useState<string | null>(null);
  useEffect(() => {
    const timer = setTimeout(() => setArmed(key), armMs);
    return () => clearTimeout(timer);
  }, [key]);
  return armed === key;
}

const titles = {
  calibration: 'Arc calibration is due',
  electrodes: 'New electrodes are due',
  blade: 'The blade is due',
} as const;

/** Something is due before the next splice: why, what to do, and the ways to go on. It goes on record whichever is taken. */
export function DueQuestion(asked: DueQuestionProps) {
  const { ask } = asked;
  // It stays for a moment after its answer, until everything is counted again: a second tap must not answer twice.
  const [answered, setAnswered] = useState<Ask | null>(null);
  const armed = useArmed(ask.about) && answered !== ask;
  const props: PartProps = {
    ...asked,
    armed,
    onFact: (fact) => {
      setAnswered(ask);
      asked.onFact(fact);
    },
  };
  const words = (
    <View role="alert" style={styles.words}>
      <Type look="heading" tone="accent">
        {titles[ask.about]} · {ask.gear.label}
      </Type>
      {ask.due.map((due) => (
        <Type key={due.rule}>{dueWords(due)}</Type>
      ))}
    </View>
  );
  return (
    <View style={styles.question}>
      {ask.about === 'calibration' ? (
        <Calibrate {...props} words={words} />
      ) : (
        <>
          {words}
          <Renew {...props} />
        </>
      )}
    </View>
  );
}

type PartProps = DueQuestionProps & { readonly armed: boolean };

function GoOn({ ask, closureId, onFact, armed }: PartProps) {
  return (
    <Action
      bench
      label="Splice on without it"
      detail="goes on record"
      disabled={!armed}
      onPress={() => {
        onFact(
          newWentOn(
            closureId,
            ask.gear,
            ask.about,
            ask.due.map((due) => due.rule),
          ),
        );
      }}
      style={styles.key}
    />
  );
}

function Calibrate(props: PartProps & { words: ReactNode }) {
  const { ask, atBench, armed, cables, closureId, units, onFact } = props;
  const failed = atBench.machine?.standing.failed ?? 0;
  return (
    <CalibrationForm
      words={
        <>
          {props.words}
          <CalibrationWords cables={cables} failed={failed} />
        </>
      }
      pinned
      armed={armed}
      weather={atBench.machine?.standing.weather ?? null}
      units={units}
      onResult={(passed, conditions) => {
        onFact(newCalibration(closureId, ask.gear, passed, conditions));
      }}
      more={<GoOn {...props} />}
    />
  );
}

/** What to do it with, and what a failed try asks for. */
export function CalibrationWords({ cables, failed }: { cables: readonly Cable[]; failed: number }) {
  const multimode = cables.some((cable) => fiberOf(cable).type.mode === 'multi');
  return (
    <>
      {failed > 0 ? (
        <Type look="strong">
          It failed {failed === 1 ? 'once' : `${failed} times`}. Prepare new ends on both sides (strip, clean,
          cleave) and try again.
        </Type>
      ) : null}
      <Type look="strong">
        {multimode
          ? 'With single-mode fiber on both sides, although this cable is multimode.'
          : 'With single-mode fiber on both sides.'}
      </Type>
      <Caution text="High voltage at the electrodes: cover shut. No alcohol near the arc; in a manhole test the air first. The maker’s instruction and local rules come first." />
    </>
  );
}

/** The result of a try, with the weather as it is. */
export function CalibrationForm({
  words,
  pinned = false,
  weather,
  units,
  armed = true,
  onResult,
  more,
}: {
  words: ReactNode;
  /** The keys stay in sight, whatever the length of the words. */
  pinned?: boolean;
  weather: Conditions | null;
  units: 'mm' | 'in';
  armed?: boolean;
  onResult: (passed: boolean, conditions: Conditions) => void;
  more?: ReactNode;
}) {
  const { pressureBy } = usePreferences();
  const [text, setText] = useState(() => weatherText(weather, units, pressureBy));
  const { conditions } = readWeather(text, units, pressureBy);
  const above = (
    <>
      {words}
      <WeatherFields text={text} units={units} onChange={setText} switchable={!pinned} />
    </>
  );
  return (
    <>
      {pinned ? (
        <ScrollView style={styles.above} contentContainerStyle={styles.body}>
          {above}
        </ScrollView>
      ) : (
        above
      )}
      <View style={styles.keys}>
        <Action
          bench
          kind="now"
          label="It passed"
          disabled={!armed || !conditions}
          onPress={() => onResult(true, conditions!)}
          style={styles.key}
        />
        <Action
          bench
          label="It failed"
          disabled={!armed || !conditions}
          onPress={() => onResult(false, conditions!)}
          style={styles.key}
        />
        {more}
      </View>
    </>
  );
}

function Renew(props: PartProps) {
  const { ask, atBench, armed, closureId, onFact } = props;
  const event = (name: Parameters<typeof newGearEvent>[2]) => {
    onFact(newGearEvent(closureId, ask.gear, name));
  };
  const standing = atBench.cleaver?.standing;
  const last = ask.gear.kind === 'cleaver' && (standing?.position ?? 1) >= ask.gear.positions;
  return (
    <>
      <Caution
        text={
          ask.about === 'blade'
            ? 'The blade’s edge cuts: turn it as its maker says, with tweezers, not with a finger.'
            : 'Switch the machine off and unplug it first. Never touch the tips; handle electrodes as their maker says.'
        }
      />
      <View style={styles.keys}>
        {ask.about === 'electrodes' ? (
          <Action
            bench
            kind="now"
            label="Electrodes replaced"
            disabled={!armed}
            onPress={() => event('electrodes-replaced')}
            style={styles.key}
          />
        ) : (
          <>
            {last ? null : (
              <Action
                bench
                kind="now"
                label={`Turned to position ${(standing?.position ?? 1) + 1}`}
                disabled={!armed}
                onPress={() => event('blade-turned')}
                style={styles.key}
              />
            )}
            <Action
              bench
              kind={last ? 'now' : 'block'}
              label="New blade"
              disabled={!armed}
              onPress={() => event('blade-replaced')}
              style={styles.key}
            />
          </>
        )}
        <GoOn {...props} />
      </View>
    </>
  );
}

const styles = StyleSheet.create({
  question: { gap: space.small, padding: space.tight },
  above: { maxHeight: 340 },
  body: { gap: space.small },
  words: { gap: space.hair },
  keys: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
  key: { flexGrow: 1, flexBasis: 110 },
});
