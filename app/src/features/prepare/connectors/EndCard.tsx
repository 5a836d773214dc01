import { connectorNames, fiberName, isDone, tickTargets, type PlannedEnd } from '@cordel/core';
import type { Cleaver } from '@cordel/core/gear';
import {
  coatingOf,
  connectorSteps,
  endState,
  lightAdvice,
  lightOf,
  lightSeenWords,
  lightWords,
  type EndState,
  type Step,
} from '@cordel/core/prepare';
import { router } from 'expo-router';
import { useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { useGear } from '../../../data/gear';
import { useTonight } from '../../../data/gearTonight';
import { Action } from '../../../ui/Action';
import { Caution } from '../../../ui/Caution';
import { CordRow } from '../../../ui/Cord';
import { FiberToken, spokenFiber } from '../../../ui/FiberToken';
import { Knot } from '../../../ui/Knot';
import { space, touch } from '../../../ui/tokens';
import { SpokenOnly, Type } from '../../../ui/Type';
import { places } from '../../../shell/places';
import { StepList } from '../../../shell/steps/StepList';
import { whoAndWhen } from '../../../shell/steps/tickWords';
import type { AtHand } from '../../../shell/steps/AtClosure';

const stateWords: Readonly<Record<Exclude<EndState, 'passes' | 'fails'>, string>> = {
  open: 'not begun',
  begun: 'begun',
  on: 'on, light not checked',
};

interface EndCardProps {
  atHand: AtHand;
  end: PlannedEnd;
  /** As the order calls it. */
  called: string;
  first: boolean;
  last: boolean;
  open: boolean;
  onOpen: () => void;
  /** Light was checked: on to the next. */
  onSettled: () => void;
}

/** A fiber end on the cord: which it is, how far it is, and when it is open its steps and its light check on the same cord. */
export function EndCard({ atHand, end, called, first, last, open, onOpen, onSettled }: EndCardProps) {
  const { cables, definition } = atHand;
  const { state } = atHand.preparing;
  const cable = cables.get(end.cableId)!;
  const name = fiberName(cable, end.fiber);
  const how = endState(end, state);
  const light = lightOf(state, end);
  const passes = how === 'passes';
  return (
    <View role="group" aria-label={called}>
      <CordRow
        above={first ? 'none' : 'open'}
        below={last && !open ? 'none' : passes ? 'done' : 'open'}
        knot={<Knot mark={passes ? 'holds' : how === 'fails' ? 'redo' : 'open'} size={26} />}
        knotSize={26}
        knotAt={30}
      >
        <Pressable role="button" aria-expanded={open} onPress={onOpen} style={styles.head}>
          <View style={styles.name}>
            <Type look="title">{called}</Type>
            <FiberToken name={name} />
            <SpokenOnly text={`, ${spokenFiber(name)} of ${cable.label}, `} />
          </View>
          <Type look="small" tone="soft">
            {[cable.label, connectorNames[end.connector], end.circuit].filter(Boolean).join(' · ')}
          </Type>
          <Type look="small" tone={how === 'fails' ? 'accent' : 'ink'}>
            {how === 'passes' || how === 'fails'
              ? `${lightSeenWords[light!.body.seen]} · ${whoAndWhen(light!, definition.project.timeZone)}`
              : stateWords[how]}
          </Type>
        </Pressable>
      </CordRow>
      {open ? (
        <>
          <EndSteps atHand={atHand} end={end} />
          <CordRow above="open" below={last ? 'none' : 'open'} knot={null}>
            <LightPart atHand={atHand} end={end} onSettled={onSettled} />
          </CordRow>
        </>
      ) : null}
    </View>
  );
}

/** What is done until the connector is on. */
function EndSteps({ atHand, end }: { atHand: AtHand; end: PlannedEnd }) {
  const { definition } = atHand;
  const { state, tick } = atHand.preparing;
  const [chosen, setChosen] = useState<string | null>(null);
  const gear = useGear().data;
  const tonight = useTonight();
  const cleaver =
    gear?.find((one): one is Cleaver => one.kind === 'cleaver' && one.id === tonight.cleaver?.id) ?? null;
  const coating = coatingOf('single', atHand.cables.get(end.cableId)!);
  const steps = connectorSteps(end.connector, definition.project.units, { coating, cleaver });
  const about = (step: Step) => tickTargets.stepAt(end, step.id);
  const next = steps.find((step) => !isDone(state, about(step)));
  return (
    <StepList
      steps={steps}
      about={about}
      state={state}
      tick={tick}
      zone={definition.project.timeZone}
      open={chosen ?? (lightOf(state, end) ? '' : next?.id)}
      onOpen={setChosen}
      within
    />
  );
}

/** Light from the connector toward the far end: what is seen, and what to do where it does not get through. */
function LightPart({ atHand, end, onSettled }: { atHand: AtHand; end: PlannedEnd; onSettled: () => void }) {
  const { projectId, closure, cables } = atHand;
  const { state, checkLight } = atHand.preparing;
  const seen = lightOf(state, end)?.body.seen ?? null;
  const own = end.connector === 'own';
  const cable = cables.get(end.cableId)!;
  const span = Math.max(
    0,
    cable.siteIds.indexOf(closure.siteId) - (end.side === 'low' || end.side === 'end' ? 1 : 0),
  );
  return (
    <View style={styles.light}>
      <Type look="heading">Light check</Type>
      <Type>
        {own ? 'Visible light into the connector, toward the far end: it shows there.' : lightWords.what}
      </Type>
      <Caution text={lightWords.caution} />
      {seen === 'glows' || seen === 'nothing' ? (
        <Type look="strong" tone="accent" role="alert">
          {lightAdvice(seen, end.connector)}
        </Type>
      ) : null}
      <View style={styles.keys}>
        {seen === null ? (
          <>
            <Action
              bench
              label="Light at the far end"
              spoken={`Light at the far end${own ? '' : ', and the joint stays dark'}`}
              onPress={() => {
                checkLight(end, 'far-end');
                onSettled();
              }}
            />
            {own ? null : (
              <Action bench label="Glows at the joint" onPress={() => checkLight(end, 'glows')} />
            )}
            <Action bench label="No light at the far end" onPress={() => checkLight(end, 'nothing')} />
          </>
        ) : (
          <Action bench label="Check again" onPress={() => checkLight(end, 'open')} />
        )}
        <Action
          bench
          label="Follow this fiber"
          onPress={() => router.navigate(places.follow(projectId, end.cableId, end.fiber, span))}
        />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  head: { minHeight: touch.bench, justifyContent: 'center', paddingVertical: space.medium, gap: space.hair },
  name: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', columnGap: space.medium },
  light: { gap: space.medium, paddingVertical: space.medium, paddingRight: space.medium, maxWidth: 760 },
  keys: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
});
