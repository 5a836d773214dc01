import { cordOrder, type CarriedMachine, type Crew } from '@cordel/core';
import type { Machine } from '@cordel/core/gear';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { v7 } from 'uuid';
import { useGear } from '../../../data/gear';
import { Action } from '../../../ui/Action';
import { Choice, TextBox } from '../../../ui/Field';
import { NumberBox } from '../../../ui/NumberBox';
import { Picker } from '../../../ui/Picker';
import { useCordelTheme } from '../../../ui/theme';
import { TickRow } from '../../../ui/TickRow';
import { space, stroke } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import { nightName } from '../words';
import type { SetupPart } from './NightsSetupScreen';

/** Who works, and with what. */
export function CrewsPart({ definition, draft, onChange }: SetupPart) {
  const { crews } = draft;
  const [start] = cordOrder(definition.sites);
  const add = () =>
    onChange({
      crews: [
        ...crews,
        {
          id: v7(),
          name: `Crew ${crews.length + 1}`,
          people: [],
          machines: [{ gearId: null, name: 'Machine', splices: 'both', heaters: 1 }],
          calibration: 600,
          startSiteId: start?.id ?? null,
          offNightIds: [],
          contacts: '',
        },
      ],
    });
  return (
    <View style={styles.part}>
      <Type look="title" role="heading" aria-level={2}>
        Crews
      </Type>
      {crews.map((crew) => (
        <CrewFields
          key={crew.id}
          definition={definition}
          nights={draft.nights}
          crew={crew}
          onChange={(next) => onChange({ crews: crews.map((one) => (one.id === crew.id ? next : one)) })}
          onRemove={() => onChange({ crews: crews.filter(({ id }) => id !== crew.id) })}
        />
      ))}
      <Action icon="add" label="Crew" spoken="Add a crew" onPress={add} />
    </View>
  );
}

function CrewFields({
  definition,
  nights,
  crew,
  onChange,
  onRemove,
}: {
  definition: SetupPart['definition'];
  nights: SetupPart['draft']['nights'];
  crew: Crew;
  onChange: (crew: Crew) => void;
  onRemove: () => void;
}) {
  const { palette } = useCordelTheme();
  const zone = definition.project.timeZone;
  // As it is typed: a comma at the end is on the way to another name.
  const [people, setPeople] = useState(crew.people.join(', '));
  const set = (next: Partial<Crew>) => onChange({ ...crew, ...next });
  const names = (text: string) =>
    text
      .split(',')
      .map((name) => name.trim())
      .filter(Boolean);
  const sites = cordOrder(definition.sites);
  return (
    <View role="group" aria-label={crew.name} style={[styles.crew, { borderLeftColor: palette.ink }]}>
      <TextBox label="Name of the crew" value={crew.name} onChangeText={(name) => set({ name })} />
      <TextBox
        label="People"
        value={people}
        hint="By the names that stand on the record, with commas between them. Two at one closure at most: a third saves nothing there."
        onChangeText={(text) => {
          setPeople(text);
          set({ people: names(text) });
        }}
      />
      {crew.machines.map((machine, index) => (
        <MachineFields
          // Anew where one is taken out: what is typed in a field is its own.
          key={`${crew.machines.length} ${index}`}
          machine={machine}
          onChange={(next) => set({ machines: crew.machines.map((one, at) => (at === index ? next : one)) })}
          onRemove={() => set({ machines: crew.machines.filter((_, at) => at !== index) })}
        />
      ))}
      <Action
        icon="add"
        label="Machine"
        spoken={`Add a machine to ${crew.name}`}
        onPress={() =>
          set({
            machines: [...crew.machines, { gearId: null, name: 'Machine', splices: 'single', heaters: 1 }],
          })
        }
      />
      <NumberBox
        label="Calibration at the beginning of a night"
        unit="min"
        value={crew.calibration / 60}
        onChange={(minutes) => set({ calibration: minutes * 60 })}
      />
      <Picker
        label="Sets out from"
        options={[
          { value: '', label: 'It does not matter' },
          ...sites.map((site) => ({ value: site.id, label: site.name })),
        ]}
        value={crew.startSiteId ?? ''}
        onChange={(siteId) => set({ startSiteId: siteId === '' ? null : siteId })}
      />
      {nights.length > 0 ? (
        <View role="group" aria-label={`Nights on which ${crew.name} works`}>
          <Type look="smallStrong">Works on</Type>
          {nights.map((night) => {
            const works = !crew.offNightIds.includes(night.id);
            return (
              <TickRow
                key={night.id}
                ticked={works}
                onPress={() =>
                  set({
                    offNightIds: works
                      ? [...crew.offNightIds, night.id]
                      : crew.offNightIds.filter((id) => id !== night.id),
                  })
                }
              >
                <Type>{nightName(night, zone)}</Type>
              </TickRow>
            );
          })}
        </View>
      ) : null}
      <TextBox
        label="Contacts on its sheet"
        value={crew.contacts}
        multiline
        rows={2}
        onChangeText={(contacts) => set({ contacts })}
      />
      <Action kind="plain" style={styles.out} label={`Take out ${crew.name}`} onPress={onRemove} />
    </View>
  );
}

function MachineFields({
  machine,
  onChange,
  onRemove,
}: {
  machine: CarriedMachine;
  onChange: (machine: CarriedMachine) => void;
  onRemove: () => void;
}) {
  const { data: gear = [] } = useGear();
  const listed = gear.filter((one): one is Machine => one.kind === 'machine');
  return (
    <View role="group" aria-label={machine.name} style={styles.machine}>
      {listed.length > 0 ? (
        <Picker
          label="Machine"
          options={[
            ...listed.map((one) => ({ value: one.id, label: one.label })),
            { value: '', label: 'Another one' },
          ]}
          value={machine.gearId ?? ''}
          onChange={(id) => {
            const found = listed.find((one) => one.id === id);
            onChange(
              found
                ? { ...machine, gearId: found.id, name: found.label, heaters: found.heaters }
                : { ...machine, gearId: null },
            );
          }}
        />
      ) : null}
      {machine.gearId === null ? (
        <>
          <TextBox
            label="Name of the machine"
            value={machine.name}
            onChangeText={(name) => onChange({ ...machine, name })}
          />
          <NumberBox
            label="Sleeves that its heater takes at once"
            value={machine.heaters}
            onChange={(heaters) => onChange({ ...machine, heaters })}
          />
        </>
      ) : null}
      <Choice
        label={`${machine.name} splices`}
        options={[
          { value: 'single', label: 'Single fibers' },
          { value: 'ribbon', label: 'Ribbons' },
          { value: 'both', label: 'Both' },
        ]}
        value={machine.splices}
        onChange={(splices) => onChange({ ...machine, splices })}
      />
      <Action kind="plain" style={styles.out} label={`Take out ${machine.name}`} onPress={onRemove} />
    </View>
  );
}

const styles = StyleSheet.create({
  part: { gap: space.large },
  out: { alignSelf: 'flex-start' },
  crew: { gap: space.medium, borderLeftWidth: stroke.cord, paddingLeft: space.large },
  machine: { gap: space.small, paddingBottom: space.small },
});
