import { nightsAfter, type KeptPlan, type NightsSetup, type ProjectDefinition } from '@cordel/core';
import type { NightsTrouble, PlannedNight, PlannedStop } from '@cordel/core/schedule';
import { router } from 'expo-router';
import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { v7 } from 'uuid';
import { correctedNow } from '../../data/clock';
import type { NightsAnswer } from '../../data/nights/nightsService';
import { useProject } from '../../data/projects';
import { CordNav } from '../../shell/frame/CordNav';
import { Panes } from '../../shell/frame/Panes';
import { Screen } from '../../shell/frame/Screen';
import { places } from '../../shell/places';
import { Action } from '../../ui/Action';
import { Picker } from '../../ui/Picker';
import { ScreenOnly } from '../../ui/Paper';
import { Empty, Failed, Loading } from '../../ui/States';
import { useWide } from '../../ui/theme';
import { gutter, space } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import { usePrinting } from '../../ui/usePrinting';
import { DragBoard, type DropPlace } from './drag';
import { saveCalendar, saveTable } from './exports';
import { LeftPart } from './LeftPart';
import { LivePart } from './LivePart';
import { NightBlock, Troubles } from './NightBlock';
import { StopSheet } from './StopSheet';
import { useNightsPage, type NightsPage } from './useNightsPage';
import { useSetupChanges } from './useSetup';
import { closureName, crewName, nightName } from './words';

/** What fits tonight, who does it, and when to stop: the nights of a project with their crews. */
export function NightsScreen({ projectId, night }: { projectId: string; night?: string }) {
  const { data: definition, error, refetch } = useProject(projectId);
  if (!definition)
    return (
      <Screen title="Nights" up={{ href: places.line(projectId), name: 'the line' }}>
        {error ? <Failed error={error} onRetry={() => void refetch()} /> : <Loading what="the nights" />}
      </Screen>
    );
  return (
    <Panes cord={<CordNav definition={definition} tab="line" />}>
      <NightsAt definition={definition} asked={night} />
    </Panes>
  );
}

function NightsAt({ definition, asked }: { definition: ProjectDefinition; asked: string | undefined }) {
  const { project } = definition;
  const page = useNightsPage(definition);
  const { answer } = page;
  const changes = useSetupChanges(definition);
  const { setup } = changes;
  const ready = setup.nights.length > 0 && setup.crews.length > 0;
  const kept = setup.kept !== null && answer !== null && samePlan(setup.kept, keptOf(answer.planned));
  const keep = () =>
    changes.change('The plan is kept.', (before) => ({
      ...before,
      kept: { madeAt: new Date(correctedNow()).toISOString(), places: keptOf(answer!.planned) },
    }));
  return (
    <Screen
      title="Nights"
      subtitle={answer ? headWords(answer) : 'planning'}
      up={{ href: places.line(project.id), name: 'the line' }}
      foot={
        ready && answer && answer.planned.length > 0 ? (
          <View style={styles.foot}>
            <Action
              bench
              kind={kept ? 'block' : 'now'}
              label={kept ? 'This plan is kept' : setup.kept ? 'Keep this plan instead' : 'Keep this plan'}
              disabled={kept || page.planning || changes.saving}
              onPress={keep}
            />
          </View>
        ) : null
      }
    >
      <ScrollView contentContainerStyle={styles.list}>
        {!ready || answer?.nights.length === 0 ? (
          <Empty
            title={ready ? 'All nights are over' : 'No nights yet'}
            text="Give the nights in which the work is allowed, and the crews with their machines. The plan follows from what is left of each closure."
          >
            <Action
              kind="now"
              label={ready ? 'Give more nights' : 'Give nights and crews'}
              onPress={() => router.navigate(places.nightsSetup(project.id))}
            />
          </Empty>
        ) : page.failed ? (
          <Failed error={page.failed} onRetry={page.retry} />
        ) : page.error ? (
          <Failed error={page.error} onRetry={page.retry} />
        ) : answer ? (
          <Board definition={definition} page={page} answer={answer} asked={asked} changes={changes} />
        ) : (
          <Loading what="the plan" />
        )}
      </ScrollView>
    </Screen>
  );
}

function Board({
  definition,
  page,
  answer,
  asked,
  changes,
}: {
  definition: ProjectDefinition;
  page: NightsPage;
  answer: NightsAnswer;
  asked: string | undefined;
  changes: ReturnType<typeof useSetupChanges>;
}) {
  const wide = useWide();
  const printing = usePrinting();
  const { project } = definition;
  const zone = project.timeZone;
  const { setup } = changes;
  // Which closure, and which part of it: the plan is made anew under an open sheet.
  const [opened, setOpen] = useState<Pick<PlannedStop, 'closureId' | 'part'> | null>(null);
  const open = opened && findStop(answer, opened);
  const { reasons } = page;
  const chosen = answer.nights.find(({ id }) => id === asked) ?? answer.nights[0];
  const shown = wide || printing ? answer.nights : chosen ? [chosen] : [];
  const name = (closureId: string) => closureName(definition, closureId);
  const placeName = ({ nightId, crewId }: DropPlace) => {
    const night = answer.nights.find(({ id }) => id === nightId);
    return `${night ? nightName(night, zone) : 'a night'}, ${crewName(definition, crewId)}`;
  };
  const pin = (closureId: string, place: DropPlace) =>
    changes.change(`${name(closureId)} is pinned to ${placeName(place)}.`, (before) =>
      pinned(before, closureId, place),
    );
  const unpin = (closureId: string) =>
    changes.change(`${name(closureId)} is not pinned any more.`, (before) => ({
      ...before,
      pins: before.pins.filter((one) => one.closureId !== closureId),
    }));
  const goesOn = answer.nights[0] !== undefined && page.now >= answer.nights[0].opens;
  return (
    <>
      <Summary page={page} answer={answer} />
      {changes.trouble ? (
        <Type role="alert" tone="accent">{`Not kept: ${changes.trouble}`}</Type>
      ) : changes.done ? (
        <View role="status" style={styles.done}>
          <Type style={styles.grow}>{changes.done}</Type>
          <Action label="Undo" disabled={changes.saving} onPress={changes.undo} />
        </View>
      ) : null}
      <Troubles of={answer.troubles.filter((trouble) => !isShown(trouble, answer))} />
      {goesOn ? <LivePart definition={definition} answer={answer} reasons={reasons} /> : null}
      <LeftPart
        definition={definition}
        answer={answer}
        reasons={reasons}
        busy={changes.saving || page.planning}
        onPin={pin}
        onUnpin={unpin}
        onMore={(count) =>
          changes.change(count === 1 ? 'A night is added.' : `${count} nights are added.`, (before) => ({
            ...before,
            nights: [
              ...before.nights,
              ...nightsAfter(before.nights, count, zone).map((night) => ({ id: v7(), ...night })),
            ],
          }))
        }
      />
      {wide ? null : (
        <ScreenOnly>
          <Picker
            label="Night"
            options={answer.nights.map((night) => ({ value: night.id, label: nightName(night, zone) }))}
            value={chosen?.id ?? ''}
            onChange={(id) => router.setParams({ night: id })}
          />
        </ScreenOnly>
      )}
      <DragBoard
        places={shown.flatMap(({ id }) => setup.crews.map((crew) => ({ nightId: id, crewId: crew.id })))}
        closureName={name}
        placeName={placeName}
        onDrop={pin}
      >
        {shown.map((night) => (
          <NightBlock
            key={night.id}
            definition={definition}
            night={night}
            planned={answer.planned}
            troubles={answer.troubles}
            now={page.now >= night.opens && page.now < night.closes ? page.now : null}
            onStop={setOpen}
          />
        ))}
      </DragBoard>
      <ScreenOnly>
        <View style={styles.actions}>
          <Action
            label="What it is made from"
            onPress={() => router.navigate(places.nightsSetup(project.id))}
          />
          {setup.pins.length > 0 ? (
            <Action
              label="Take all pins out"
              onPress={() => changes.change('All pins are out.', (before) => ({ ...before, pins: [] }))}
            />
          ) : null}
          <Action label="Calendar file" onPress={() => void saveCalendar(definition, answer)} />
          <Action label="Save as CSV" onPress={() => void saveTable(definition, answer)} />
          <Action label="Print" onPress={() => window.print()} />
        </View>
      </ScreenOnly>
      <Type look="small" tone="soft">
        {`Planned so that each night ends in its window with ${Math.round(setup.reserve * 100)} %, by the times of the closures and the pace that was measured here. Bars are expected times, the hatched tail what the reserve adds; the dashed rule is where the night closes. Local rules, the owner and the road come first.`}
      </Type>
      {open ? (
        <StopSheet
          definition={definition}
          answer={answer}
          stop={open.stop}
          night={open.night}
          why={reasons?.whys.find(([job]) => job === open.stop.job)?.[1]}
          onPin={(place) => {
            pin(open.stop.closureId, place);
            setOpen(null);
          }}
          onUnpin={() => {
            unpin(open.stop.closureId);
            setOpen(null);
          }}
          onClose={() => setOpen(null)}
        />
      ) : null}
    </>
  );
}

/** How good a plan is known to be. */
function provenWords({ proven, bound, score: [left, nights], closureOfJob }: NightsAnswer): string | null {
  if (proven) return 'Proven: there is no better plan.';
  if (!bound) return null;
  if (left > bound.left) {
    if (bound.left === 0) return null;
    const inParts = new Set(closureOfJob).size < closureOfJob.length;
    const many = bound.left === 1 ? 'one' : String(bound.left);
    const what = inParts ? `${many} of them, or of their parts,` : many;
    return `At least ${what} ${bound.left === 1 ? 'has' : 'have'} no place in any plan, that is proven.`;
  }
  if (nights > bound.nights)
    return `At least ${bound.nights} ${bound.nights === 1 ? 'night is' : 'nights are'} needed, that is proven.`;
  return left > 0
    ? 'Proven: no plan has a place for more, and none does it in fewer nights.'
    : 'Proven: it cannot be done in fewer nights.';
}

/** What the plan comes to, and how good it is known to be. */
function Summary({ page, answer }: { page: NightsPage; answer: NightsAnswer }) {
  const [left, , overtime] = answer.score;
  return (
    <View style={styles.done} role="status">
      <Type style={styles.grow}>
        {[
          page.planning && answer.share < 1 ? `Planning, ${Math.round(answer.share * 100)} % done.` : null,
          answer.planned.length === 0 && left === 0 ? 'Nothing is left to do.' : null,
          overtime > 0 ? `${overtime} min of overtime are to be expected.` : null,
          page.planning ? null : provenWords(answer),
        ]
          .filter(Boolean)
          .join(' ')}
      </Type>
      {page.planning && answer.share < 1 && answer.share > 0 ? (
        <Action label="That will do" spoken="Take the plan that there is" onPress={page.enough} />
      ) : null}
    </View>
  );
}

/** A trouble that stands at its night, or at the closure in it. */
function isShown({ nightId, closureId }: NightsTrouble, { nights, planned }: NightsAnswer): boolean {
  return (
    nights.some(({ id }) => id === nightId) ||
    planned.some(({ stops }) => stops.some((stop) => stop.closureId === closureId))
  );
}

function findStop(
  { planned }: NightsAnswer,
  { closureId, part }: Pick<PlannedStop, 'closureId' | 'part'>,
): { readonly stop: PlannedStop; readonly night: PlannedNight } | null {
  for (const night of planned)
    for (const stop of night.stops)
      if (stop.closureId === closureId && stop.part?.number === part?.number) return { stop, night };
  return null;
}

function headWords({ planned, left, nights }: NightsAnswer): string {
  const closures = new Set(
    [...planned.flatMap(({ stops }) => stops), ...left].map(({ closureId }) => closureId),
  ).size;
  const used = new Set(planned.map(({ nightId }) => nightId)).size;
  return `${closures} ${closures === 1 ? 'closure' : 'closures'} left · ${used} of ${nights.length} ${nights.length === 1 ? 'night' : 'nights'}`;
}

function pinned(setup: NightsSetup, closureId: string, { nightId, crewId }: DropPlace): NightsSetup {
  return {
    ...setup,
    pins: [...setup.pins.filter((pin) => pin.closureId !== closureId), { closureId, nightId, crewId }],
  };
}

function keptOf(planned: readonly PlannedNight[]): KeptPlan['places'] {
  const iso = (time: number) => new Date(Math.round(time / 1000) * 1000).toISOString();
  return planned.map(({ nightId, crewId, stops }) => ({
    nightId,
    crewId,
    stops: stops.map(({ closureId, part, begins, ends }) => ({
      closureId,
      part: part && { number: part.number, of: part.of },
      begins: iso(begins),
      ends: iso(ends),
    })),
  }));
}

/** The same closures in the same nights and order: times move on by themselves. */
function samePlan(kept: KeptPlan, places: KeptPlan['places']): boolean {
  const bare = (list: KeptPlan['places']) =>
    JSON.stringify(
      list.map(({ nightId, crewId, stops }) => [
        nightId,
        crewId,
        stops.map(({ closureId, part }) => [closureId, part]),
      ]),
    );
  return bare(kept.places) === bare(places);
}

const styles = StyleSheet.create({
  list: { padding: space.large, paddingLeft: gutter.width, gap: space.large, maxWidth: 960 },
  foot: { padding: space.small },
  actions: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
  done: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: space.small },
  grow: { flexGrow: 1, flexShrink: 1 },
});
