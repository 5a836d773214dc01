import { nightsAfter, type Night } from '@cordel/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { v7 } from 'uuid';
import { Action } from '../../../ui/Action';
import { DateTimeBox } from '../../../ui/DateTimeBox';
import { ownTimeZone, timeOfWall, wallTime, type ShownZone } from '../../../ui/times';
import { space } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import { nightName } from '../words';
import type { SetupPart } from './NightsSetupScreen';

/** The windows in which the work is allowed. */
export function NightsPart({ definition, draft, onChange }: SetupPart) {
  const { project } = definition;
  const zone = project.timeZone;
  const { nights } = draft;
  const add = () => {
    const [after] = nightsAfter(nights, 1, zone);
    const { opens, closes } = after ?? project.window ?? tonight(zone);
    onChange({ nights: [...nights, { id: v7(), opens, closes }] });
  };
  return (
    <View style={styles.part}>
      <Type look="title" role="heading" aria-level={2}>
        Nights
      </Type>
      {zone && zone !== ownTimeZone() ? (
        <Type look="small" tone="soft">{`By the clocks of ${zone.replaceAll('_', ' ')}.`}</Type>
      ) : null}
      {nights.map((night, index) => (
        <NightFields
          key={night.id}
          night={night}
          number={index + 1}
          zone={zone}
          onChange={(next) => onChange({ nights: nights.map((one) => (one.id === night.id ? next : one)) })}
          onRemove={() => onChange({ nights: nights.filter(({ id }) => id !== night.id) })}
        />
      ))}
      <Action
        icon="add"
        label={nights.length === 0 ? 'A night' : 'One more night, a day later'}
        onPress={add}
      />
    </View>
  );
}

/** 22:00 of today to 05:00 in the zone: the next night, by the clock of this device. */
function tonight(zone: ShownZone): Pick<Night, 'opens' | 'closes'> {
  const now = Date.now();
  const evening = (time: number) => `${wallTime(new Date(time).toISOString(), zone).slice(0, 10)}T22:00`;
  const opens = timeOfWall(evening(now), zone)!;
  return { opens, closes: new Date(Date.parse(opens) + 7 * 3_600_000).toISOString() };
}

function NightFields({
  night,
  number,
  zone,
  onChange,
  onRemove,
}: {
  night: Night;
  number: number;
  zone: ShownZone;
  onChange: (night: Night) => void;
  onRemove: () => void;
}) {
  const [opens, setOpens] = useState(wallTime(night.opens, zone));
  const [closes, setCloses] = useState(wallTime(night.closes, zone));
  const set = (field: 'opens' | 'closes', wall: string) => {
    (field === 'opens' ? setOpens : setCloses)(wall);
    const time = timeOfWall(wall, zone);
    if (time) onChange({ ...night, [field]: time });
  };
  const missing = (wall: string) => (timeOfWall(wall, zone) ? undefined : 'Give the day and the time.');
  return (
    <View style={styles.night} role="group" aria-label={`Night ${number}`}>
      <DateTimeBox
        label={`Night ${number} opens`}
        value={opens}
        onChange={(wall) => set('opens', wall)}
        trouble={missing(opens)}
      />
      <DateTimeBox
        label={`Night ${number} closes`}
        value={closes}
        onChange={(wall) => set('closes', wall)}
        trouble={
          missing(closes) ??
          (Date.parse(night.closes) <= Date.parse(night.opens) ? 'It closes before it opens.' : undefined)
        }
      />
      <Action
        kind="plain"
        style={styles.out}
        label="Take it out"
        spoken={`Take out night ${number}, ${nightName(night, zone)}`}
        onPress={onRemove}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  part: { gap: space.large },
  out: { alignSelf: 'flex-start' },
  night: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'flex-end', gap: space.medium },
});
