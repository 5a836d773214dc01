import { cordOrder } from '@cordel/core';
import { StyleSheet, View } from 'react-native';
import { Action } from '../../../ui/Action';
import { NumberBox } from '../../../ui/NumberBox';
import { Picker } from '../../../ui/Picker';
import { TickRow } from '../../../ui/TickRow';
import { space } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import { DayTimeBox } from './DayTimeBox';
import type { SetupPart } from './NightsSetupScreen';

/** The way between sites, the reserve, and the holding test. */
export function WaysPart({ definition, draft, onChange }: SetupPart) {
  const { travel, holding } = draft;
  const sites = cordOrder(definition.sites).map(({ id, name }) => ({ value: id, label: name }));
  const setWay = (index: number, next: Partial<(typeof travel)[number]>) =>
    onChange({ travel: travel.map((one, at) => (at === index ? { ...one, ...next } : one)) });
  return (
    <View style={styles.part}>
      <Type look="title" role="heading" aria-level={2}>
        Ways and reserve
      </Type>
      <NumberBox
        label="Each night ends in its window with at least"
        unit="%"
        value={Math.round(draft.reserve * 1000) / 10}
        onChange={(share) => onChange({ reserve: share / 100 })}
      />
      <NumberBox
        label="On the road along the route"
        unit="km/h"
        value={Math.round(draft.speed * 36) / 10}
        onChange={(speed) => onChange({ speed: speed / 3.6 })}
      />
      <NumberBox
        label="Packing up after a closure"
        unit="min"
        value={draft.packUp / 60}
        onChange={(minutes) => onChange({ packUp: minutes * 60 })}
      />
      {travel.map((way, index) => (
        <View
          key={`${travel.length} ${index}`}
          role="group"
          aria-label={`Own way ${index + 1}`}
          style={styles.way}
        >
          <Picker
            label={`Way ${index + 1}, from`}
            options={sites}
            most={3}
            value={way.fromSiteId}
            onChange={(fromSiteId) => setWay(index, { fromSiteId })}
          />
          <Picker
            label={`Way ${index + 1}, to`}
            options={sites}
            most={3}
            value={way.toSiteId}
            onChange={(toSiteId) => setWay(index, { toSiteId })}
          />
          <NumberBox
            label={`Way ${index + 1} takes`}
            unit="min"
            value={way.seconds / 60}
            onChange={(minutes) => setWay(index, { seconds: minutes * 60 })}
          />
          <Action
            kind="plain"
            style={styles.out}
            label={`Take out way ${index + 1}`}
            onPress={() => onChange({ travel: travel.filter((_, at) => at !== index) })}
          />
        </View>
      ))}
      {sites.length > 1 ? (
        <Action
          icon="add"
          label="Own minutes between two sites"
          onPress={() =>
            onChange({
              travel: [...travel, { fromSiteId: sites[0]!.value, toSiteId: sites[1]!.value, seconds: 900 }],
            })
          }
        />
      ) : null}
      <TickRow
        ticked={holding !== null}
        onPress={() =>
          onChange({ holding: holding ? null : { wait: 24 * 3600, hours: { from: 480, to: 1080 } } })
        }
      >
        <Type>Closures are held under pressure, and read later</Type>
      </TickRow>
      {holding ? (
        <>
          <NumberBox
            label="Read after"
            unit="h"
            value={holding.wait / 3600}
            onChange={(hours) => onChange({ holding: { ...holding, wait: hours * 3600 } })}
          />
          <TickRow
            ticked={holding.hours !== null}
            onPress={() =>
              onChange({ holding: { ...holding, hours: holding.hours ? null : { from: 480, to: 1080 } } })
            }
          >
            <Type>Only by daylight, or in the owner’s hours</Type>
          </TickRow>
          {holding.hours ? (
            <>
              <DayTimeBox
                label="Read from"
                value={holding.hours.from}
                onChange={(from) => onChange({ holding: { ...holding, hours: { ...holding.hours!, from } } })}
              />
              <DayTimeBox
                label="Read until"
                value={holding.hours.to}
                onChange={(to) => onChange({ holding: { ...holding, hours: { ...holding.hours!, to } } })}
              />
            </>
          ) : null}
        </>
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  part: { gap: space.large },
  out: { alignSelf: 'flex-start' },
  way: { gap: space.small },
});
