import {
  cordOrder,
  siteOf,
  type Closure,
  type Project,
  type ProjectDefinition,
  type RollUp,
} from '@cordel/core';
import { minutes } from '@cordel/core/prepare';
import { router } from 'expo-router';
import { useEffect, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { correctedNow } from '../../../data/clock';
import { useProject } from '../../../data/projects';
import { places } from '../../../shell/places';
import { Action } from '../../../ui/Action';
import { clockTime } from '../../../ui/times';
import { space } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';

/** A window that opens later is not tonight's. ms */
const tonight = 16 * 3_600_000;

interface Progress {
  readonly closureId: string;
  readonly rollUp: Pick<RollUp, 'count' | 'settled' | 'marks'>;
}

/** What is on tonight: the window, and the closure to go on at, with one tap. Nothing where no window is open or near. */
export function Tonight({ project, progress }: { project: Project; progress: readonly Progress[] }) {
  const now = useMinute();
  const window = nextWindow(project, now);
  if (!window || Date.parse(window.opens) - now > tonight) return null;
  const [opens, closes] = [Date.parse(window.opens), Date.parse(window.closes)];
  const { nights } = project;
  const span = `${clockTime(window.opens, project.timeZone)} to ${clockTime(window.closes, project.timeZone)}`;
  return (
    <View style={styles.tonight}>
      <Type look="small">
        <Type look="smallStrong">{now < opens ? 'Tonight' : 'Now'} </Type>
        {now < opens
          ? `the window is open from ${span}, in ${minutes(Math.ceil((opens - now) / 60_000) * 60)}.`
          : `the window is open until ${clockTime(window.closes, project.timeZone)}: ${minutes(Math.floor((closes - now) / 60_000) * 60)} left.`}
      </Type>
      <GoOn projectId={project.id} progress={progress} />
      {nights && nights.nights.length > 0 && nights.crews.length > 0 ? (
        <Action
          label="Nights"
          spoken={`Nights of ${project.name}: who is where, and when to stop`}
          onPress={() => router.navigate(places.nights(project.id))}
        />
      ) : null}
    </View>
  );
}

/** What is open or opens next: a night that is planned, or the window of the project. */
function nextWindow({ nights, window }: Project, now: number): Project['window'] {
  const all = [...(nights?.nights ?? []), ...(window ? [window] : [])];
  const open = all.filter(({ closes }) => Date.parse(closes) > now);
  return open.sort((a, b) => Date.parse(a.opens) - Date.parse(b.opens))[0] ?? null;
}

function GoOn({ projectId, progress }: { projectId: string; progress: readonly Progress[] }) {
  const { data: definition } = useProject(projectId);
  const closure = definition && nextClosure(definition, progress);
  if (!definition || !closure) return null;
  const rollUp = progress.find(({ closureId }) => closureId === closure.id)!.rollUp;
  return (
    <Action
      bench
      kind="now"
      label={`${rollUp.settled > 0 ? 'Go on at' : 'Begin at'} ${siteOf(definition.sites, closure.siteId).name}`}
      detail={`${rollUp.settled} of ${rollUp.count} splices${rollUp.marks.redo > 0 ? `, ${rollUp.marks.redo} to redo` : ''}`}
      onPress={() => router.navigate(places.closure(projectId, closure.id))}
    />
  );
}

/** The first along the cord that was begun and is not done; else the first with something to do. */
function nextClosure(definition: ProjectDefinition, progress: readonly Progress[]): Closure | null {
  const left = new Map(progress.map(({ closureId, rollUp }) => [closureId, rollUp]));
  const open = cordOrder(definition.sites).flatMap((site) =>
    definition.closures.filter((closure) => {
      const rollUp = left.get(closure.id);
      return closure.siteId === site.id && rollUp !== undefined && rollUp.settled < rollUp.count;
    }),
  );
  return open.find((closure) => left.get(closure.id)!.settled > 0) ?? open[0] ?? null;
}

function useMinute(): number {
  const [now, setNow] = useState(correctedNow);
  useEffect(() => {
    const clock = setInterval(() => setNow(correctedNow()), 60_000);
    return () => clearInterval(clock);
  }, []);
  return now;
}

const styles = StyleSheet.create({ tonight: { gap: space.small, paddingBottom: space.small } });
