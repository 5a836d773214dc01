import { formatTemperature } from '@cordel/core/seal';
import {
  actionRefusal,
  causes,
  commonSeed,
  faultNames,
  isOverNight,
  judgesNight,
  nightActionSchema,
  nightNames,
  pointsOf,
  practiceNight,
  remedies,
  remedyNames,
  remedyWords,
  replayed,
  resultOf,
  sumOf,
  type Cause,
  type NightAction,
  type NightId,
  type NightState,
} from '@cordel/core/nights';
import { useMemo, useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { z } from 'zod';
import { Screen } from '../../../shell/frame/Screen';
import { places } from '../../../shell/places';
import { Action } from '../../../ui/Action';
import { Sheet } from '../../../ui/Sheet';
import { useCordelTheme } from '../../../ui/theme';
import { gutter, space, stroke } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import { NightOver } from './NightOver';
import { keepRunning, rememberNight, runningNight } from './nightResults';
import { InTheMachine, ReadSoFar } from './Readings';

/** The one that was begun, as far as it can be read; else a new one. */
function begunOr(id: NightId): { readonly seed: number; readonly actions: readonly NightAction[] } {
  const kept = runningNight(id);
  const actions = kept && z.array(nightActionSchema).safeParse(kept.actions);
  if (kept && actions?.success) return { seed: kept.seed, actions: actions.data };
  return {
    seed: id === 'random' ? crypto.getRandomValues(new Uint32Array(1))[0]! : commonSeed,
    actions: [],
  };
}

/** A night at the simulated machine with something wrong in it. What is done is kept on this device, so that it goes on where it was left. */
export function NightScreen({ id }: { id: NightId }) {
  const [{ seed, actions }, setRunning] = useState(() => begunOr(id));
  const night = useMemo(() => practiceNight(id, seed), [id, seed]);
  const state = useMemo(() => replayed(night, seed, actions), [night, seed, actions]);
  const [sheet, setSheet] = useState<'remedies' | 'causes' | null>(null);
  const [told, setTold] = useState('');
  const [seen, setSeen] = useState(false);
  const { title, tells } = nightNames[id];
  const over = isOverNight(state);
  const act = (action: NightAction, words = '') => {
    const refused = actionRefusal(state, action);
    if (refused !== null) return setTold(refused);
    const next = { seed, actions: [...actions, action] };
    keepRunning(id, next);
    setRunning(next);
    setTold(words);
    setSheet(null);
  };
  const again = () => {
    keepRunning(id, null);
    setRunning(begunOr(id));
    setTold('');
    setSeen(false);
  };
  const finish = () => {
    const own = resultOf(state);
    const points = sumOf(pointsOf(own, resultOf(judgesNight(night, seed))));
    const { mean, sleeves, minutes, named } = own;
    rememberNight({ at: Date.now(), night: id, seed, points, named, mean, sleeves, minutes });
    keepRunning(id, null);
    setSeen(true);
  };
  const up = { href: places.practice, name: 'practice' };
  if (over && seen)
    return (
      <Screen
        title={title}
        subtitle="How it went"
        up={up}
        foot={
          <View style={styles.foot}>
            <Action bench label="Work it again" onPress={again} style={styles.grow} />
          </View>
        }
      >
        <ScrollView tabIndex={0} contentContainerStyle={styles.body}>
          <NightOver state={state} />
        </ScrollView>
      </Screen>
    );
  if (over)
    return (
      <Screen
        title={title}
        subtitle="All are spliced"
        up={up}
        foot={
          <View style={styles.foot}>
            <Action bench kind="now" label="See how it went" onPress={finish} style={styles.grow} />
          </View>
        }
      >
        <ScrollView tabIndex={0} contentContainerStyle={styles.body}>
          <Type look="heading" role="heading" aria-level={2}>
            What was wrong?
          </Type>
          <CauseKeys named={state.named} onName={(cause) => act({ do: 'name', cause })} />
        </ScrollView>
      </Screen>
    );
  return (
    <Screen
      title={title}
      subtitle={standWords(state)}
      up={up}
      bench
      foot={
        <View>
          {told ? (
            <Type look="strong" role="status" style={styles.told}>
              {told}
            </Type>
          ) : null}
          <View style={styles.foot}>
            {state.fused ? (
              <>
                <Action bench label="Do it again" onPress={() => act({ do: 'redo' })} style={styles.half} />
                <Action
                  bench
                  kind="now"
                  label="Leave it, next"
                  onPress={() => act({ do: 'accept' })}
                  disabled={state.fused.some(({ broke }) => broke)}
                  style={styles.half}
                />
                <Action
                  bench
                  label="Measure it"
                  onPress={() => act({ do: 'measure' })}
                  style={styles.third}
                />
              </>
            ) : (
              <>
                <Action
                  bench
                  label="Recleave left"
                  onPress={() => act({ do: 'recleave', side: 'left' })}
                  style={styles.half}
                />
                <Action
                  bench
                  label="Recleave right"
                  onPress={() => act({ do: 'recleave', side: 'right' })}
                  style={styles.half}
                />
                <Action
                  bench
                  kind="now"
                  label="Fuse"
                  onPress={() => act({ do: 'fuse' })}
                  style={styles.third}
                />
              </>
            )}
            <Action bench label="Put right" onPress={() => setSheet('remedies')} style={styles.third} />
            <Action bench label="Name the fault" onPress={() => setSheet('causes')} style={styles.third} />
          </View>
        </View>
      }
    >
      <ScrollView tabIndex={0} contentContainerStyle={styles.body}>
        {state.at === 0 ? <Type look="strong">{tells}</Type> : null}
        <MachineCard state={state} />
        <Type look="small" tone="soft">
          {weatherWords(state)}
        </Type>
        <ReadSoFar state={state} />
      </ScrollView>
      <Sheet title="Put right" open={sheet === 'remedies'} onClose={() => setSheet(null)}>
        <Type>Each takes its time, whether it was needed or not.</Type>
        {remedyNames.map((remedy) => (
          <Action
            key={remedy}
            bench
            label={remedyWords[remedy]}
            detail={`${remedies[remedy].minutes} min`}
            onPress={() => act({ do: 'remedy', remedy }, `Done: ${lower(remedyWords[remedy])}.`)}
          />
        ))}
      </Sheet>
      <Sheet title="Name the fault" open={sheet === 'causes'} onClose={() => setSheet(null)}>
        <Type>It can be named anew until the night is over.</Type>
        <CauseKeys
          named={state.named}
          onName={(cause) => act({ do: 'name', cause }, `You say: ${lower(faultNames[cause])}.`)}
        />
      </Sheet>
    </Screen>
  );
}

function MachineCard({ state }: { state: NightState }) {
  const { palette } = useCordelTheme();
  return (
    <View
      role="group"
      aria-label={`${pieceWords(state)} in the machine`}
      style={[styles.card, { borderColor: palette.ink, backgroundColor: palette.sheet }]}
    >
      <Type look="heading">
        {`${pieceWords(state)}${state.tries > 0 ? `, try ${state.fused ? state.tries : state.tries + 1}` : ''}`}
      </Type>
      <InTheMachine state={state} />
    </View>
  );
}

const lower = (words: string) => words[0]!.toLowerCase() + words.slice(1);

function pieceWords({ night, at }: NightState): string {
  return `${night.kind === 'ribbon' ? 'Ribbon' : 'Fiber'} ${at + 1} of ${night.splices}`;
}

function standWords(state: NightState): string {
  const { minutes, sleeves } = state;
  return `${Math.round(minutes)} min · ${sleeves === 0 ? 'no sleeve' : sleeves === 1 ? '1 sleeve' : `${sleeves} sleeves`} in the bin`;
}

function weatherWords({ night, at, wear }: NightState): string {
  const both = ({ temperature, humidity }: { temperature: number; humidity: number }) =>
    `${formatTemperature(temperature, 'mm')} (${formatTemperature(temperature, 'in')}), ${humidity} %`;
  return `At the bench ${both(night.weatherAt(at))}. The arc was calibrated at ${both(wear.calibratedAt)}, ${wear.arcsSinceCalibration} arcs ago.`;
}

function CauseKeys({ named, onName }: { named: Cause | null; onName: (cause: Cause) => void }) {
  return (
    <View style={styles.causes}>
      {causes.map((cause) => (
        <Action
          key={cause}
          bench
          label={faultNames[cause]}
          pressed={named === cause}
          onPress={() => onName(cause)}
        />
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  body: { padding: space.large, paddingLeft: gutter.width, gap: space.medium, maxWidth: 760 },
  card: { borderWidth: stroke.rule, padding: space.small, gap: space.small },
  causes: { gap: space.small },
  told: { paddingHorizontal: space.medium, paddingTop: space.small },
  foot: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small, padding: space.small, maxWidth: 760 },
  grow: { flexGrow: 1 },
  half: { flexGrow: 1, flexBasis: '45%' },
  third: { flexGrow: 1, flexBasis: '29%' },
});
