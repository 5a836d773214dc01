import { fiberCount, fiberEndKey, fiberName, isDone, tickTargets, type PlannedEnd } from '@cordel/core';
import { connectorSteps, endState, lightOf, lightSeenWords } from '@cordel/core/prepare';
import { router } from 'expo-router';
import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { Action } from '../../../ui/Action';
import { Screen } from '../../../shell/frame/Screen';
import { Empty } from '../../../ui/States';
import { gutter, space } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import { places } from '../../../shell/places';
import { whoAndWhen } from '../../../shell/steps/tickWords';
import { AtClosure, PreparePanes, type AtHand } from '../../../shell/steps/AtClosure';
import { EndCard } from './EndCard';
import { endCalled } from './endCalled';

/** The fiber ends of a closure that wear a connector: what is done at each, and whether light gets through. */
export function ConnectorsScreen({ projectId, closureId }: { projectId: string; closureId: string }) {
  return (
    <AtClosure projectId={projectId} closureId={closureId} title="Connectors">
      {(atHand) => <ConnectorsAt atHand={atHand} />}
    </AtClosure>
  );
}

function ConnectorsAt({ atHand }: { atHand: AtHand }) {
  const { projectId, closure, definition, ledger, siteName } = atHand;
  const { state, tick, checkLight } = atHand.preparing;
  const { ends } = ledger.plan;
  // null: the next one that is to be done; '': none.
  const [chosen, setChosen] = useState<string | null>(null);
  const next = ends.find((end) => endState(end, state) !== 'passes');
  const open = chosen ?? (next ? fiberEndKey(next) : '');
  const passing = ends.filter((end) => endState(end, state) === 'passes').length;
  const atIt = ends.find((end) => fiberEndKey(end) === open);
  const step = atIt && nextStep(atIt);
  function nextStep(end: PlannedEnd) {
    return connectorSteps(end.connector, definition.project.units).find(
      ({ id }) => !isDone(state, tickTargets.stepAt(end, id)),
    );
  }
  const lit = atIt !== undefined && lightOf(state, atIt) !== null;
  return (
    <PreparePanes atHand={atHand}>
      <Screen
        title={`Connectors · ${siteName}`}
        subtitle={`light gets through ${passing} of ${ends.length}`}
        up={{ href: places.prepare(projectId, closure.id), name: 'preparing' }}
        foot={
          atIt && step && !step.check && !lit ? (
            <View style={styles.foot}>
              <Action
                bench
                kind="now"
                label={`Done: ${step.title}`}
                detail={endCalled(closure, atIt)}
                onPress={() => tick(tickTargets.stepAt(atIt, step.id), 'done')}
              />
            </View>
          ) : atIt && !step && !lit ? (
            <View style={styles.foot}>
              <Action
                bench
                kind="now"
                label="Light at the far end"
                detail={`${endCalled(closure, atIt)}${atIt.connector === 'own' ? '' : ', and the joint stays dark'}`}
                onPress={() => {
                  checkLight(atIt, 'far-end');
                  setChosen(null);
                }}
              />
            </View>
          ) : ends.length > 0 && !next ? (
            <View style={styles.foot}>
              <Action
                bench
                kind="now"
                label="To what comes after"
                onPress={() => router.navigate(places.prepare(projectId, closure.id))}
              />
            </View>
          ) : null
        }
      >
        <ScrollView contentContainerStyle={styles.list}>
          {ends.length === 0 ? (
            <Empty
              title="No fiber ends in a connector here"
              text="A line of the order like “C 1 > fused connector” or “C 1 > mechanical connector” plans one."
            >
              <Action
                label="To the plan"
                onPress={() => router.navigate(places.plan(projectId, closure.id))}
              />
            </Empty>
          ) : null}
          {ends.map((end, index) => (
            <EndCard
              key={fiberEndKey(end)}
              atHand={atHand}
              end={end}
              called={endCalled(closure, end)}
              first={index === 0}
              last={index === ends.length - 1}
              open={open === fiberEndKey(end)}
              onOpen={() => setChosen(open === fiberEndKey(end) ? '' : fiberEndKey(end))}
              onSettled={() => setChosen(null)}
            />
          ))}
          <View style={styles.more}>
            <NotPlanned atHand={atHand} />
            {ends.length > 0 ? (
              <Type look="small" tone="soft">
                Common practice. The maker’s instruction, the owner’s rules and local code come first.
              </Type>
            ) : null}
          </View>
        </ScrollView>
      </Screen>
    </PreparePanes>
  );
}

/** Light checks of ends that are not, or no longer, in the plan: kept, and shown as such. */
function NotPlanned({ atHand }: { atHand: AtHand }) {
  const { definition, cables, ledger } = atHand;
  const planned = new Set(ledger.plan.ends.map(fiberEndKey));
  const others = [...atHand.preparing.state.lights.values()].filter(
    ({ subject, body }) => body.seen !== 'open' && !planned.has(fiberEndKey(subject)),
  );
  if (others.length === 0) return null;
  return (
    <View role="group" aria-label="Not in the plan">
      <Type look="strong">Not in the plan, and kept</Type>
      {others.map((check) => {
        const { subject, body } = check;
        const cable = cables.get(subject.cableId);
        const color =
          cable && subject.fiber <= fiberCount(cable.construction)
            ? ` ${fiberName(cable, subject.fiber).fiberColor.code}`
            : '';
        return (
          <Type key={check.id} look="small">
            {cable?.label ?? 'A cable that is gone'}, fiber {subject.fiber}
            {color}: {lightSeenWords[body.seen]} · {whoAndWhen(check, definition.project.timeZone)}
          </Type>
        );
      })}
    </View>
  );
}

const styles = StyleSheet.create({
  list: { paddingTop: space.small, paddingBottom: space.large },
  more: { padding: space.large, paddingLeft: gutter.width, gap: space.medium, maxWidth: 860 },
  foot: { padding: space.small },
});
