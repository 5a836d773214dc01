import type { ProjectDefinition } from '@cordel/core';
import type { PlannedNight, PlannedStop, Why } from '@cordel/core/schedule';
import { router } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import type { NightsAnswer } from '../../data/nights/nightsService';
import { places } from '../../shell/places';
import { Action } from '../../ui/Action';
import { Picker } from '../../ui/Picker';
import { Sheet } from '../../ui/Sheet';
import { clockTime, dayAndTime } from '../../ui/times';
import { space } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import type { DropPlace } from './drag';
import { closureName, crewName, nightName, percent, whyWords } from './words';

/** A closure in the plan: its times, why it is there, and where else it may be put. */
export function StopSheet({
  definition,
  answer,
  stop,
  night,
  why,
  onPin,
  onUnpin,
  onClose,
}: {
  definition: ProjectDefinition;
  answer: NightsAnswer;
  stop: PlannedStop;
  night: PlannedNight;
  /** undefined: not reckoned yet. */
  why: Why | undefined;
  onPin: (place: DropPlace) => void;
  onUnpin: () => void;
  onClose: () => void;
}) {
  const { project } = definition;
  const zone = project.timeZone;
  const name = closureName(definition, stop.closureId);
  const crews = project.nights?.crews ?? [];
  const options = answer.nights.flatMap((one) =>
    crews
      .filter(({ offNightIds }) => !offNightIds.includes(one.id))
      .map((crew) => ({
        value: `${one.id} ${crew.id}`,
        label: `${nightName(one, zone)}, ${crew.name}`,
      })),
  );
  const here = `${night.nightId} ${night.crewId}`;
  return (
    <Sheet title={name} open onClose={onClose}>
      <View style={styles.lines}>
        <Type look="heading">
          {nightName(night, zone)}, {crewName(definition, night.crewId)}
        </Type>
        {stop.part ? <Type>{`Part ${stop.part.number} of ${stop.part.of}: ${stop.part.words}`}</Type> : null}
        <Type>{`Begins ${clockTime(stop.begins, zone)}, ends ${clockTime(stop.ends, zone)}; by ${clockTime(stop.endsAtLatest, zone)} with ${percent(project.nights?.reserve ?? 0.9)}.`}</Type>
        <Type>
          {stop.backBy === null
            ? `${percent(stop.chance)} that it is ${stop.part && stop.part.number < stop.part.of ? 'done and covered' : 'sealed and tested'} before the night closes.`
            : `${percent(stop.chance)} that its circuits are back by ${clockTime(stop.backBy, zone)}.`}
        </Type>
        {stop.holdingFrom === null ? null : (
          <Type>{`Its holding test can be read from ${dayAndTime(stop.holdingFrom, zone)}.`}</Type>
        )}
      </View>
      <View style={styles.lines} role="status">
        <Type look="heading">Why here</Type>
        {why ? (
          whyWords(why, answer, definition, stop.chance).map((words) => <Type key={words}>{words}</Type>)
        ) : (
          <Type tone="soft">Known once the plan stands.</Type>
        )}
      </View>
      {stop.begun ? null : (
        <Picker
          label={stop.pinned ? 'Pinned to' : 'Pin it to'}
          options={options}
          value={stop.pinned ? here : ''}
          onChange={(value) => {
            const [nightId, crewId] = value.split(' ') as [string, string];
            onPin({ nightId, crewId });
          }}
        />
      )}
      {stop.pinned ? <Action label="Take the pin out" onPress={onUnpin} /> : null}
      <Action
        label={`To ${name}`}
        onPress={() => router.navigate(places.closure(project.id, stop.closureId))}
      />
      <Action
        label={`Sheet of ${crewName(definition, night.crewId)} for this night`}
        onPress={() => router.navigate(places.crewSheet(project.id, night.nightId, night.crewId))}
      />
    </Sheet>
  );
}

const styles = StyleSheet.create({ lines: { gap: space.tight } });
