import { formatTape, parseTape, type Units } from '@cordel/core';
import { useState } from 'react';
import { Controller, useFieldArray, useWatch, type Control } from 'react-hook-form';
import { Pressable, StyleSheet, View } from 'react-native';
import { Action } from '../../../ui/Action';
import { Choice } from '../../../ui/Field';
import { FormField } from '../../../ui/FormField';
import { useCordelTheme } from '../../../ui/theme';
import { space, stroke, touch } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import { lengthFields } from '../../../shell/fieldWords';
import { newPart, type ModelFormInput, type ModelFormOutput } from './modelForm';

type Form = Control<ModelFormInput, unknown, ModelFormOutput>;

/** A length in the other unit beside the one that is typed; nothing while it cannot be read. */
function other(text: string | undefined, units: Units): string {
  const length = parseTape(text ?? '', units);
  return length === null ? '' : formatTape(length, units === 'mm' ? 'in' : 'mm');
}

/** Ports with their seal parts, lengths, and the kit: what a maker's table says of a closure. */
export function TableFields({ control, units }: { control: Form; units: Units }) {
  const ports = useFieldArray({ control, name: 'ports' });
  const typed = useWatch({ control });
  return (
    <>
      <Type look="heading" role="heading" aria-level={2}>
        Lengths when a cable is prepared
      </Type>
      <View style={styles.fields}>
        {lengthFields.map(([name, label]) => (
          <View key={name} style={styles.half}>
            <FormField
              control={control}
              name={`lengths.${name}`}
              label={label}
              unit={units}
              hint={other(typed.lengths?.[name], units)}
            />
          </View>
        ))}
        <View style={styles.half}>
          <FormField control={control} name="coils" label="Coils in the tray" keyboard="numeric" />
        </View>
        <View style={styles.half}>
          <FormField
            control={control}
            name="basketTurns"
            label="Turns in the slack basket"
            hint="0: not known."
            keyboard="numeric"
          />
        </View>
      </View>
      <Type look="heading" role="heading" aria-level={2}>
        Ports
      </Type>
      {ports.fields.map((port, index) => (
        <PortFields
          key={port.id}
          control={control}
          index={index}
          units={units}
          only={ports.fields.length === 1}
          onRemove={() => ports.remove(index)}
        />
      ))}
      <Action
        icon="add"
        label="Port"
        spoken="Add a port"
        style={styles.start}
        onPress={() =>
          ports.append({
            name: 'Round',
            count: '1',
            from: units === 'mm' ? '6' : '1/4',
            to: units === 'mm' ? '18' : '3/4',
            express: false,
            after: false,
            parts: [],
          })
        }
      />
      <KitParts control={control} />
    </>
  );
}

const portSwitches = [
  ['express', 'Takes cables that go through'],
  ['after', 'Gland goes on after opening'],
] as const;

function PortFields({
  control,
  index,
  units,
  only,
  onRemove,
}: {
  control: Form;
  index: number;
  units: Units;
  only: boolean;
  onRemove: () => void;
}) {
  const { palette } = useCordelTheme();
  const parts = useFieldArray({ control, name: `ports.${index}.parts` });
  const typed = useWatch({ control, name: `ports.${index}` });
  const [open, setOpen] = useState<number | null>(null);
  const named = `Port ${index + 1}`;
  return (
    <View role="group" aria-label={named} style={[styles.port, { borderColor: palette.hairline }]}>
      <View style={styles.fields}>
        <View style={styles.half}>
          <FormField control={control} name={`ports.${index}.name`} label={`${named}, name`} />
        </View>
        <View style={styles.half}>
          <FormField
            control={control}
            name={`ports.${index}.count`}
            label={`${named}, how many`}
            keyboard="numeric"
          />
        </View>
        {(['from', 'to'] as const).map((end) => (
          <View key={end} style={styles.half}>
            <FormField
              control={control}
              name={`ports.${index}.${end}`}
              label={`${named}, cables ${end}`}
              unit={units}
              hint={other(typed?.[end], units)}
            />
          </View>
        ))}
      </View>
      <View style={styles.row}>
        {portSwitches.map(([name, label]) => (
          <Controller
            key={name}
            control={control}
            name={`ports.${index}.${name}`}
            render={({ field }) => (
              <Action label={label} pressed={field.value} onPress={() => field.onChange(!field.value)} />
            )}
          />
        ))}
        {only ? null : <Action label="Take away" spoken={`Take away port ${index + 1}`} onPress={onRemove} />}
      </View>
      <Type look="smallStrong">Seal parts, by the cable’s diameter</Type>
      {parts.fields.map((part, at) => {
        const now = typed?.parts?.[at];
        return (
          <View key={part.id}>
            <Pressable
              role="button"
              aria-expanded={open === at}
              onPress={() => setOpen(open === at ? null : at)}
              style={styles.part}
            >
              <Type look="small">
                {now?.count} × {now?.part}, {now?.from} to {now?.to} {units}
                {now?.slit ? ', slit' : ''}
              </Type>
            </Pressable>
            {open === at ? (
              <PartFields
                control={control}
                port={index}
                at={at}
                units={units}
                onRemove={() => {
                  setOpen(null);
                  parts.remove(at);
                }}
              />
            ) : null}
          </View>
        );
      })}
      <Action
        icon="add"
        label="Seal part"
        spoken={`Add a seal part to port ${index + 1}`}
        style={styles.start}
        onPress={() => {
          setOpen(parts.fields.length);
          parts.append(newPart({ from: typed?.from ?? '', to: typed?.to ?? '' }));
        }}
      />
    </View>
  );
}

const partKinds = [
  { value: 'seal', label: 'Seal' },
  { value: 'grommet', label: 'Grommet' },
  { value: 'spacer', label: 'Spacer' },
  { value: 'clip', label: 'Clip' },
  { value: 'clamp', label: 'Clamp' },
  { value: 'bushing', label: 'Bushing' },
] as const;

function PartFields({
  control,
  port,
  at,
  units,
  onRemove,
}: {
  control: Form;
  port: number;
  at: number;
  units: Units;
  onRemove: () => void;
}) {
  const name = `ports.${port}.parts.${at}` as const;
  return (
    <View style={styles.partFields}>
      <FormField control={control} name={`${name}.part`} label="Part" />
      <Controller
        control={control}
        name={`${name}.kind`}
        render={({ field }) => (
          <Choice label="Kind" options={partKinds} value={field.value} onChange={field.onChange} />
        )}
      />
      <View style={styles.fields}>
        {(
          [
            ['from', 'Cables from', units],
            ['to', 'Cables to', units],
            ['count', 'Pieces', undefined],
            ['peel', 'Layers peeled out', undefined],
            ['holds', 'Cables in one', undefined],
          ] as const
        ).map(([field, label, unit]) => (
          <View key={field} style={styles.half}>
            <FormField
              control={control}
              name={`${name}.${field}`}
              label={label}
              {...(unit ? { unit } : {})}
            />
          </View>
        ))}
      </View>
      <View style={styles.row}>
        <Controller
          control={control}
          name={`${name}.slit`}
          render={({ field }) => (
            <Action label="Slit" pressed={field.value} onPress={() => field.onChange(!field.value)} />
          )}
        />
        <Action label="Take the part away" onPress={onRemove} />
      </View>
    </View>
  );
}

function KitParts({ control }: { control: Form }) {
  const parts = useFieldArray({ control, name: 'parts' });
  return (
    <>
      <Type look="heading" role="heading" aria-level={2}>
        Other parts of its kit
      </Type>
      {parts.fields.map((part, index) => (
        <View key={part.id} role="group" aria-label={`Part ${index + 1}`} style={styles.fields}>
          <View style={styles.half}>
            <FormField control={control} name={`parts.${index}.name`} label={`Part ${index + 1}`} />
          </View>
          <View style={styles.half}>
            <FormField control={control} name={`parts.${index}.count`} label="Pieces" keyboard="numeric" />
          </View>
          <View style={styles.half}>
            <FormField control={control} name={`parts.${index}.stops`} label="Without it there is no" />
          </View>
          <Controller
            control={control}
            name={`parts.${index}.perCable`}
            render={({ field }) => (
              <Action
                label="For each cable"
                spoken={`Part ${index + 1}: for each opening that a cable takes`}
                pressed={field.value}
                style={styles.low}
                onPress={() => field.onChange(!field.value)}
              />
            )}
          />
          <Action
            label="Take away"
            spoken={`Take away part ${index + 1}`}
            style={styles.low}
            onPress={() => parts.remove(index)}
          />
        </View>
      ))}
      <Action
        icon="add"
        label="Part"
        spoken="Add a part"
        style={styles.start}
        onPress={() => parts.append({ name: 'Bracket', count: '1', stops: 'anchoring', perCable: true })}
      />
    </>
  );
}

const styles = StyleSheet.create({
  fields: { flexDirection: 'row', flexWrap: 'wrap', gap: space.medium },
  half: { flexGrow: 1, flexBasis: 150 },
  port: { borderWidth: stroke.hair, padding: space.medium, gap: space.medium },
  part: { minHeight: touch.normal, justifyContent: 'center' },
  partFields: { gap: space.medium, paddingBottom: space.medium },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
  start: { alignSelf: 'flex-start' },
  low: { alignSelf: 'flex-end' },
});
