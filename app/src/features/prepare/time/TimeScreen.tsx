import { cordOrder, siteOf, type Closure, type Project, type ProjectDefinition } from '@cordel/core';
import {
  againstWindow,
  connectorEnds,
  estimateClosure,
  heatingOf,
  measuredPace,
  minutes,
  ribbonizingSaves,
  workLeft,
  type Estimate,
  type Heating,
  type MeasuredPace,
  type Pace,
  type WorkLeft,
} from '@cordel/core/prepare';
import type { Machine } from '@cordel/core/gear';
import { router, useLocalSearchParams } from 'expo-router';
import { useMemo, useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { useFactsOf } from '../../../sync/react';
import { useGear } from '../../../data/gear';
import { useTonight } from '../../../data/gearTonight';
import { cablesOf, ledgerOf } from '../../../data/ledger';
import { usePace } from '../../../data/pace';
import { useProject } from '../../../data/projects';
import { Action } from '../../../ui/Action';
import { Panes } from '../../../shell/frame/Panes';
import { Screen } from '../../../shell/frame/Screen';
import { Empty, Failed, Loading } from '../../../ui/States';
import { useCordelTheme } from '../../../ui/theme';
import { gutter, space, stroke } from '../../../ui/tokens';
import { clockTime } from '../../../ui/times';
import { Type } from '../../../ui/Type';
import { CordNav } from '../../../shell/frame/CordNav';
import { keptNights, type KeptNight } from '../../../shell/keptNights';
import { PickWork } from '../../../shell/PickWork';
import { places } from '../../../shell/places';
import { PaceSheet } from './PaceSheet';

/** How long a closure and the night take, with the arithmetic, against the window. */
export function TimeScreen({ projectId }: { projectId: string }) {
  const { data: definition, error, refetch } = useProject(projectId);
  if (!definition)
    return (
      <Screen title="Time" up={{ href: places.line(projectId), name: 'the line' }}>
        {error ? <Failed error={error} onRetry={() => void refetch()} /> : <Loading what="the times" />}
      </Screen>
    );
  return <TimeAt definition={definition} />;
}

interface Reckoned {
  readonly closure: Closure;
  readonly name: string;
  readonly estimate: Estimate;
  readonly left: WorkLeft;
  readonly measured: MeasuredPace;
}

/** Of the machine of the night, where one was picked. */
function useHeating(pace: Pace): Heating {
  const gear = useGear().data;
  const { machine } = useTonight();
  return useMemo(() => {
    const item = gear?.find((one): one is Machine => one.kind === 'machine' && one.id === machine?.id);
    return heatingOf(pace, item ?? null);
  }, [gear, machine, pace]);
}

function TimeAt({ definition }: { definition: ProjectDefinition }) {
  const { project } = definition;
  const asked = useLocalSearchParams<{ closure?: string; night?: string }>();
  const pace = usePace();
  const [changing, setChanging] = useState(false);
  const [now] = useState(Date.now);
  const heating = useHeating(pace);
  const closures = useMemo(
    () =>
      cordOrder(definition.sites).flatMap((site) =>
        definition.closures.filter((closure) => closure.siteId === site.id),
      ),
    [definition],
  );
  const { facts, error, retry } = useFactsOf(
    project.id,
    closures.map((closure) => closure.id),
  );
  const reckoned = useMemo(() => {
    if (!facts) return null;
    const at = new Date(now).toISOString();
    const all = closures.map((_, index) => measuredPace(facts[index]!, at));
    // A closure where nobody spliced yet goes at the pace of the others.
    const single = all.find((one) => one.single !== null)?.single ?? null;
    const ribbon = all.find((one) => one.ribbon !== null)?.ribbon ?? null;
    return closures.map((closure, index): Reckoned => {
      const ledger = ledgerOf(definition, closure, facts[index]!);
      const measured = {
        single: all[index]!.single ?? single,
        ribbon: all[index]!.ribbon ?? ribbon,
        atWork: all[index]!.atWork,
      };
      const cables = cablesOf(definition);
      const left = workLeft(closure, ledger.plan, cables, ledger, facts[index]!);
      return {
        closure,
        name: siteOf(definition.sites, closure.siteId).name,
        estimate: estimateClosure(closure, ledger.plan, cables, left, pace, heating, measured),
        left,
        measured,
      };
    });
  }, [facts, closures, definition, pace, heating, now]);

  const chosen = reckoned?.find((one) => one.closure.id === asked.closure) ?? null;
  const nights = useMemo(() => keptNights(definition), [definition]);
  const night = chosen ? null : (nights.find(({ key }) => key === asked.night) ?? null);
  const shown = !reckoned
    ? []
    : chosen
      ? [chosen]
      : night
        ? night.closureIds.flatMap((id) => reckoned.find((one) => one.closure.id === id) ?? [])
        : reckoned;
  const seconds = shown.reduce((sum, one) => sum + one.estimate.seconds, 0);
  const against = againstWindow(seconds, new Date(now).toISOString(), project.window);
  return (
    <Panes cord={<CordNav definition={definition} tab="line" />}>
      <Screen
        title={chosen ? `Time · ${chosen.name}` : night ? `Time · ${night.label}` : 'Time for the night'}
        subtitle={reckoned ? minutes(seconds) : 'reckoning'}
        up={
          chosen
            ? { href: places.prepare(project.id, chosen.closure.id), name: 'preparing' }
            : { href: places.line(project.id), name: 'the line' }
        }
      >
        <ScrollView contentContainerStyle={styles.list}>
          {closures.length === 0 ? (
            <Empty
              title="Nothing to reckon with yet"
              text="The times follow from the plans: put closures at the sites and give them an order."
            />
          ) : (
            <PickWork
              definition={definition}
              closures={closures}
              nights={nights}
              night={night}
              closureId={chosen?.closure.id}
            />
          )}
          {error ? <Failed error={error} onRetry={retry} /> : null}
          {!reckoned && !error ? <Loading what="the ticks and splices" /> : null}
          {reckoned && closures.length > 0 ? (
            <View role="status">
              <Type look="huge">{minutes(seconds)}</Type>
              <Type>
                {night
                  ? keptWords(night, project)
                  : nights.length > 0 && !chosen
                    ? 'By one crew, one closure after the other. The nights say who does what, and when.'
                    : endWords(against, project)}
              </Type>
              <Action
                label="Nights"
                onPress={() => router.navigate(places.nights(project.id))}
                style={styles.nights}
              />
            </View>
          ) : null}
          {shown.map((one) => (
            <ClosureTime
              key={one.closure.id}
              one={one}
              bare={chosen !== null}
              pace={pace}
              heating={heating}
            />
          ))}
          <Action label="Times to reckon with" onPress={() => setChanging(true)} />
          <Type look="small" tone="soft">
            Common practice to begin with. One crew, one closure after the other. As soon as a few splices are
            recorded, their own pace takes the place of the usual one; the heater works as the machine of the
            night does. Who splices beside somebody else shares what is left of that closure.
          </Type>
        </ScrollView>
      </Screen>
      <PaceSheet open={changing} onClose={() => setChanging(false)} pace={pace} />
    </Panes>
  );
}

/** When a crew is through with its night, as the plan was kept. */
function keptWords({ stops, closes }: KeptNight, { timeZone }: Project): string {
  const ends = stops.at(-1)!.ends;
  const spare = (Date.parse(closes) - Date.parse(ends)) / 1000;
  return `By the plan that was kept it ends at ${clockTime(ends, timeZone)}, ${minutes(Math.abs(spare))} ${spare >= 0 ? 'spare' : 'over'}: the night closes at ${clockTime(closes, timeZone)}. Below is the work of one pair of hands.`;
}

function endWords(
  { begins, ends, spare }: ReturnType<typeof againstWindow>,
  { window, timeZone }: Project,
): string {
  const clock = (time: string) => clockTime(time, timeZone);
  if (!window || spare === null) return `Begun now, it ends at ${clock(ends)}. The project has no window.`;
  const after = `Begun at ${clock(begins)} it ends at ${clock(ends)}`;
  return spare >= 0
    ? `${after}, ${minutes(spare)} spare: the window closes at ${clock(window.closes)}.`
    : `${after}, ${minutes(-spare)} after the window closes at ${clock(window.closes)}.`;
}

function ClosureTime({
  one,
  bare,
  pace,
  heating,
}: {
  one: Reckoned;
  bare: boolean;
  pace: Pace;
  heating: Heating;
}) {
  const { palette } = useCordelTheme();
  const { estimate, left, measured } = one;
  const saves = ribbonizingSaves(left.singles, { ...pace, single: measured.single ?? pace.single }, heating);
  return (
    <View style={styles.closure}>
      {bare ? null : (
        <View style={styles.row}>
          <Type look="heading" role="heading" aria-level={2} style={styles.flex}>
            {one.name}
          </Type>
          <Type look="reading">{estimate.lines.length === 0 ? 'done' : minutes(estimate.seconds)}</Type>
        </View>
      )}
      {estimate.lines.map((line, index) => (
        <View key={line.id + index} style={[styles.line, { borderBottomColor: palette.hairline }]}>
          <View style={styles.flex}>
            <Type look="strong">{line.what}</Type>
            <Type look="small" tone="soft">
              {line.how}
            </Type>
          </View>
          <Type look="reading">{minutes(line.seconds)}</Type>
        </View>
      ))}
      {left.pigtails > 0 ? <Ends fibers={left.pigtails} pace={pace} heating={heating} /> : null}
      {left.singles >= 12 ? (
        <Type look="small">
          {saves.seconds > 0
            ? `As ${saves.ribbons} ribbons made of the loose fibers the ${left.singles} singles would take ${minutes(saves.seconds)} less, the gluing on both sides counted.`
            : `Making ribbons of the ${left.singles} singles would save nothing.`}
        </Type>
      ) : null}
    </View>
  );
}

/** Pigtails as planned, beside a fan-out with a connector on every fiber. */
function Ends({ fibers, pace, heating }: { fibers: number; pace: Pace; heating: Heating }) {
  const { pigtails, fanOut } = connectorEnds(fibers, pace, heating);
  return (
    <Type look="small">
      The {fibers} pigtails take {minutes(pigtails.seconds)}, {pigtails.pigtails} pigtails and{' '}
      {pigtails.sleeves} sleeves. Fanned out with a connector on every fiber they would take{' '}
      {minutes(fanOut.seconds)}, {fanOut.kits} {fanOut.kits === 1 ? 'fan-out kit' : 'fan-out kits'} and{' '}
      {fanOut.connectors} connectors.
    </Type>
  );
}

const styles = StyleSheet.create({
  list: { padding: space.large, paddingLeft: gutter.width, gap: space.large, maxWidth: 820 },
  closure: { gap: space.tight },
  row: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'baseline', gap: space.small },
  line: {
    flexDirection: 'row',
    flexWrap: 'wrap',
    alignItems: 'center',
    gap: space.small,
    paddingVertical: space.small,
    borderBottomWidth: stroke.hair,
  },
  flex: { flex: 1, minWidth: 160 },
  nights: { alignSelf: 'flex-start', marginTop: space.small },
});
