import type { ProjectDefinition } from '@cordel/core';
import type { NightsTrouble, PlannedNight, PlannedStop } from '@cordel/core/schedule';
import { router } from 'expo-router';
import { Pressable, StyleSheet, View } from 'react-native';
import { places } from '../../shell/places';
import { Action } from '../../ui/Action';
import { alsoOnPaper, ScreenOnly } from '../../ui/Paper';
import { useCordelTheme } from '../../ui/theme';
import { clockTime } from '../../ui/times';
import { space, stroke, touch } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import { CrewStrip } from './CrewStrip';
import { DragHandle, DropZone } from './drag';
import { closureName, crewName, nightName, percent, spanOf, spareWords } from './words';

interface NightBlockProps {
  definition: ProjectDefinition;
  night: { readonly id: string; readonly opens: number; readonly closes: number; readonly begins: number };
  planned: readonly PlannedNight[];
  troubles: readonly NightsTrouble[];
  /** ms; null: it lies outside of the nights. */
  now: number | null;
  onStop: (stop: PlannedStop) => void;
}

/** One night with its crews: each on its cord, and its closures in order. */
export function NightBlock({ definition, night, planned, troubles, now, onStop }: NightBlockProps) {
  const { palette } = useCordelTheme();
  const { timeZone: zone, nights: setup } = definition.project;
  const crews = setup?.crews.filter(({ offNightIds }) => !offNightIds.includes(night.id)) ?? [];
  const own = planned.filter(({ nightId }) => nightId === night.id);
  const to = Math.max(night.closes, ...own.map(({ endsAtLatest }) => endsAtLatest));
  return (
    <View style={[styles.night, { borderTopColor: palette.ink }]}>
      <View style={styles.head}>
        <Type look="title" role="heading" aria-level={2} style={styles.grow}>
          {nightName(night, zone)}
        </Type>
        <Type look="small" tone="soft">
          {spanOf({ begins: night.opens, ends: night.closes }, zone)}
          {now !== null && now >= night.opens ? ', goes on' : ''}
        </Type>
      </View>
      <Troubles of={troubles.filter(({ nightId }) => nightId === night.id)} />
      <View style={styles.crews}>
        {crews.map((crew) => {
          const plan = own.find(({ crewId }) => crewId === crew.id);
          return (
            <DropZone key={crew.id} place={{ nightId: night.id, crewId: crew.id }}>
              <View role="group" aria-label={`${crew.name}, ${nightName(night, zone)}`} style={styles.crew}>
                <View style={styles.head}>
                  <Type look="heading" role="heading" aria-level={3} style={styles.grow}>
                    {crew.name}
                  </Type>
                  {plan ? (
                    <ScreenOnly>
                      <Action
                        kind="plain"
                        label="Sheet"
                        spoken={`Sheet of ${crew.name}, ${nightName(night, zone)}`}
                        onPress={() =>
                          router.navigate(places.crewSheet(definition.project.id, night.id, crew.id))
                        }
                      />
                    </ScreenOnly>
                  ) : null}
                </View>
                {plan ? <NightWords plan={plan} definition={definition} /> : null}
                {plan ? (
                  <>
                    <CrewStrip
                      night={plan}
                      from={night.opens}
                      to={to}
                      now={now}
                      zone={zone}
                      reserve={setup?.reserve ?? 0}
                      name={(closureId) => closureName(definition, closureId)}
                      words={stripWords(plan, definition)}
                    />
                    {plan.stops.map((stop) => (
                      <StopRow
                        key={stop.job}
                        stop={stop}
                        definition={definition}
                        troubles={troubles.filter(
                          ({ nightId, closureId }) => nightId === null && closureId === stop.closureId,
                        )}
                        onPress={() => onStop(stop)}
                      />
                    ))}
                  </>
                ) : (
                  <Type look="small" tone="soft">
                    Nothing planned.
                  </Type>
                )}
              </View>
            </DropZone>
          );
        })}
      </View>
      {crews.length === 0 ? <Type tone="soft">Nobody works on this night.</Type> : null}
    </View>
  );
}

function NightWords({ plan, definition }: { plan: PlannedNight; definition: ProjectDefinition }) {
  const { timeZone: zone, nights } = definition.project;
  const low = plan.chance < (nights?.reserve ?? 0);
  return (
    <Type look={low ? 'smallStrong' : 'small'} tone={low ? 'accent' : 'ink'}>
      {`ends ${clockTime(plan.ends, zone)}, ${spareWords(plan)} · ${percent(plan.chance)} in time`}
    </Type>
  );
}

function stripWords(plan: PlannedNight, definition: ProjectDefinition): string {
  const zone = definition.project.timeZone;
  const stops = plan.stops.map((stop) => `${closureName(definition, stop.closureId)} ${spanOf(stop, zone)}`);
  return `${crewName(definition, plan.crewId)}: ${stops.join(', ')}. The night closes at ${clockTime(plan.closes, zone)}.`;
}

/** What does not go together, where it is. */
export function Troubles({ of }: { of: readonly NightsTrouble[] }) {
  return of.map(({ words }) => (
    <Type key={words} role="alert" tone="accent">
      {words}
    </Type>
  ));
}

function StopRow({
  stop,
  definition,
  troubles,
  onPress,
}: {
  stop: PlannedStop;
  definition: ProjectDefinition;
  troubles: readonly NightsTrouble[];
  onPress: () => void;
}) {
  const { palette } = useCordelTheme();
  const { timeZone: zone, nights } = definition.project;
  const name = closureName(definition, stop.closureId);
  const low = stop.chance < (nights?.reserve ?? 0);
  const more = [
    stop.part?.words,
    stop.pinned ? 'pinned' : null,
    stop.begun ? 'begun' : null,
    stop.backBy === null ? null : `back by ${clockTime(stop.backBy, zone)}`,
    low ? `${percent(stop.chance)} in time` : null,
  ].filter(Boolean);
  return (
    <View style={[styles.row, { borderBottomColor: palette.hairline }]}>
      <Pressable role="button" onPress={onPress} style={styles.stop} {...alsoOnPaper}>
        <View style={styles.head}>
          <Type look="strong" style={styles.grow}>
            {name}
          </Type>
          <Type look="reading">{spanOf(stop, zone)}</Type>
        </View>
        {more.length > 0 ? (
          <Type look="small" tone={low ? 'accent' : 'soft'}>
            {more.join(' · ')}
          </Type>
        ) : null}
        <Troubles of={troubles} />
      </Pressable>
      {stop.begun ? null : (
        <ScreenOnly>
          <DragHandle id={`${stop.closureId} ${stop.job}`} label={`Move ${name}`} />
        </ScreenOnly>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  night: { borderTopWidth: stroke.heavy, paddingTop: space.small, gap: space.medium },
  crews: { flexDirection: 'row', flexWrap: 'wrap', gap: space.medium },
  crew: { gap: space.tight, padding: space.tight },
  head: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', columnGap: space.medium },
  grow: { flexGrow: 1 },
  row: { flexDirection: 'row', alignItems: 'center', gap: space.small, borderBottomWidth: stroke.hair },
  stop: { flex: 1, minHeight: touch.bench, justifyContent: 'center', paddingVertical: space.small },
});
