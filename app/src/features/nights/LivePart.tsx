import type { ProjectDefinition } from '@cordel/core';
import { minutes } from '@cordel/core/prepare';
import type { PlannedNight } from '@cordel/core/schedule';
import { StyleSheet, View } from 'react-native';
import type { NightsAnswer, NightsReasons } from '../../data/nights/nightsService';
import { useCordelTheme } from '../../ui/theme';
import { clockTime } from '../../ui/times';
import { space, stroke } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import { clockMinutes, closureName, crewName, percent, spareWords } from './words';

/** A night that goes on: how each crew stands against it, whether to open what comes next, and what helps where it runs short. */
export function LivePart({
  definition,
  answer,
  reasons,
}: {
  definition: ProjectDefinition;
  answer: NightsAnswer;
  reasons: NightsReasons | null;
}) {
  const [tonight] = answer.nights;
  const nights = answer.planned.filter(({ nightId }) => nightId === tonight?.id);
  return (
    <View style={styles.crews}>
      {nights.map((night) => (
        <CrewNow key={night.crewId} definition={definition} night={night} reasons={reasons} />
      ))}
    </View>
  );
}

function CrewNow({
  definition,
  night,
  reasons,
}: {
  definition: ProjectDefinition;
  night: PlannedNight;
  reasons: NightsReasons | null;
}) {
  const { palette } = useCordelTheme();
  const { timeZone: zone, nights: setup } = definition.project;
  const name = (closureId: string) => closureName(definition, closureId);
  const of = <T,>(list: readonly (readonly [string, T])[] | undefined): T | undefined =>
    list?.find(([crewId]) => crewId === night.crewId)?.[1];
  const next = of(reasons?.next);
  const helps = of(reasons?.helps) ?? [];
  const at = night.stops[0]!;
  const short = night.chance < (setup?.reserve ?? 0);
  const planned = setup?.kept?.places
    .find((place) => place.nightId === night.nightId && place.crewId === night.crewId)
    ?.stops.find((stop) => stop.closureId === at.closureId);
  const behind = planned ? clockMinutes(Date.parse(planned.ends), at.ends) : 0;
  const nextEnds = night.stops.find(({ closureId }) => closureId === next?.closureId)?.ends ?? night.ends;
  const due = at.backBy ?? night.closes;
  const spare = clockMinutes(at.ends, due);
  return (
    <View
      role="group"
      aria-label={`${crewName(definition, night.crewId)} now`}
      style={[
        styles.now,
        { borderColor: short ? palette.accent : palette.ink, backgroundColor: palette.sheet },
      ]}
    >
      <Type look="smallStrong">{crewName(definition, night.crewId)}</Type>
      {at.begun ? (
        <>
          <Type look="heading" tone={short ? 'accent' : 'ink'}>
            {`${name(at.closureId)} ends ${clockTime(at.ends, zone)}, ${spare > 0 ? `${minutes(spare * 60)} spare` : spare === 0 ? 'just in time' : `${minutes(-spare * 60)} late`}`}
          </Type>
          <Type look="small">
            {[
              at.backBy === null ? null : `circuits back by ${clockTime(at.backBy, zone)}`,
              `${percent(at.chance)} in time`,
              behind >= 5
                ? `${minutes(behind * 60)} behind the plan`
                : behind <= -5
                  ? `${minutes(-behind * 60)} ahead of the plan`
                  : null,
              night.stops.length > 1
                ? `all of it ${clockTime(night.ends, zone)}, ${spareWords(night)}`
                : null,
            ]
              .filter(Boolean)
              .join(' · ')}
          </Type>
        </>
      ) : null}
      {next ? (
        <View style={styles.next} role="status">
          <Type look="heading">
            {next.says === 'open'
              ? `${at.begun ? 'Then open' : 'Open'} ${name(next.closureId)}`
              : `Stop here: leave ${name(next.closureId)} closed tonight`}
          </Type>
          <Type look="small">
            {`It ends ${clockTime(nextEnds, zone)}, ${percent(next.chance)} in time. ${stoppingWords(next.stopping)}`}
          </Type>
        </View>
      ) : null}
      {short && helps.length > 0 ? (
        <View style={styles.next} role="status">
          <Type look="smallStrong">What helps</Type>
          {helps.map((help) => (
            <Type
              key={help.kind + help.closureId}
            >{`${help.words} Then ${percent(help.chance)} in time.`}</Type>
          ))}
        </View>
      ) : null}
      {short && reasons && helps.length === 0 ? (
        <Type look="small">
          Nothing that is known here brings it into the night. Tell the owner now when the circuits will be
          back.
        </Type>
      ) : null}
    </View>
  );
}

function stoppingWords({ nights, left, travel }: { nights: number; left: number; travel: number }): string {
  if (left > 0)
    return `If it is not done tonight, ${left === 1 ? 'one closure has' : `${left} closures have`} no place any more.`;
  if (nights > 0) return `To stop here costs ${nights === 1 ? 'one more night' : `${nights} more nights`}.`;
  if (travel > 0) return `To stop here costs ${travel} min more on the way, and no night.`;
  return 'To stop here costs nothing.';
}

const styles = StyleSheet.create({
  crews: { flexDirection: 'row', flexWrap: 'wrap', gap: space.large },
  now: {
    flexGrow: 1,
    flexShrink: 1,
    flexBasis: 300,
    borderWidth: stroke.heavy,
    padding: space.medium,
    gap: space.tight,
  },
  next: { paddingTop: space.small, gap: space.tight },
});
