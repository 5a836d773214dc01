import { builtInModels, closureModelSchema, formatMillimeters, type ClosureModel } from '@cordel/core';
import { zodResolver } from '@hookform/resolvers/zod';
import { router } from 'expo-router';
import { useState } from 'react';
import { Controller, useFieldArray, useForm, useWatch } from 'react-hook-form';
import { ScrollView, StyleSheet, View } from 'react-native';
import { v7 } from 'uuid';
import { z } from 'zod';
import { useModels, useSaveModel } from '../../data/plan';
import { Action } from '../../ui/Action';
import { Choice, Field } from '../../ui/Field';
import { decimalField, toNumber } from '../../ui/numberField';
import { SaveFoot } from '../../ui/SaveFoot';
import { Screen } from '../../ui/Screen';
import { Empty, Failed, Loading } from '../../ui/States';
import { useCordelTheme } from '../../ui/theme';
import { gutter, space, stroke } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import { places } from '../line/places';

const { shape } = closureModelSchema;
const lengths = shape.lengths.shape;

/** The form holds text as it is typed; the core's schemas say what is wrong with it. */
const formSchema = z.object({
  name: shape.name,
  kind: shape.kind,
  about: shape.about,
  trays: decimalField(shape.trays),
  singleSlots: decimalField(shape.singleSlots),
  ribbonSlots: decimalField(shape.ribbonSlots),
  testPressure: decimalField(shape.testPressure),
  sheathOpening: decimalField(lengths.sheathOpening),
  strengthMember: decimalField(lengths.strengthMember),
  tube: decimalField(lengths.tube),
  trayFiber: decimalField(lengths.trayFiber),
  ports: z
    .array(
      z
        .object({
          name: shape.ports.element.shape.name,
          count: decimalField(shape.ports.element.shape.count),
          from: decimalField(shape.ports.element.shape.from),
          to: decimalField(shape.ports.element.shape.to),
          express: z.boolean(),
        })
        .refine((port) => port.from <= port.to, {
          message: 'The smallest diameter is above the largest.',
          path: ['from'],
        }),
    )
    .min(1, 'A closure has at least one port.'),
});
type FormInput = z.input<typeof formSchema>;

/** Makes a closure model ("new") or edits one. */
export function ModelScreen({ modelId }: { modelId: string }) {
  const models = useModels();
  const [round, setRound] = useState(0);
  const up = { href: places.models, name: 'the models' };
  const model = models.data?.find((one) => one.id === modelId);
  if (!models.data || (!model && modelId !== 'new'))
    return (
      <Screen title="Closure model" up={up}>
        {models.data ? (
          <Empty title="There is no such model" text="It may have been deleted." />
        ) : models.error ? (
          <Failed error={models.error} onRetry={() => void models.refetch()} />
        ) : (
          <Loading what="the model" />
        )}
      </Screen>
    );
  return (
    <ModelForm
      key={round}
      model={model ?? null}
      onNewer={() => void models.refetch().then(() => setRound(round + 1))}
    />
  );
}

function formOf(model: ClosureModel): FormInput {
  return {
    name: model.name,
    kind: model.kind,
    about: model.about,
    trays: String(model.trays),
    singleSlots: String(model.singleSlots),
    ribbonSlots: String(model.ribbonSlots),
    testPressure: String(model.testPressure),
    sheathOpening: String(model.lengths.sheathOpening),
    strengthMember: String(model.lengths.strengthMember),
    tube: String(model.lengths.tube),
    trayFiber: String(model.lengths.trayFiber),
    ports: model.ports.map((port) => ({
      ...port,
      count: String(port.count),
      from: String(port.from),
      to: String(port.to),
    })),
  };
}

/** A length in millimeters as it is typed, in inches; nothing while it is not a number. */
function inInches(text: string | undefined): string {
  const value = toNumber(text ?? '');
  return Number.isNaN(value) ? '' : formatMillimeters(value, 'in');
}

function ModelForm({ model: stored, onNewer }: { model: ClosureModel | null; onNewer: () => void }) {
  // The version that the editing began from, so that a newer one is not written over.
  const [model] = useState(stored);
  const { palette } = useCordelTheme();
  const save = useSaveModel();
  const { control, handleSubmit } = useForm<FormInput, unknown, z.output<typeof formSchema>>({
    resolver: zodResolver(formSchema),
    defaultValues: formOf(model ?? { ...builtInModels[0]!, name: '', about: '' }),
  });
  const ports = useFieldArray({ control, name: 'ports' });
  const typed = useWatch({ control });
  const submit = handleSubmit(({ sheathOpening, strengthMember, tube, trayFiber, ...form }) =>
    save.mutate(
      {
        id: model?.id ?? v7(),
        version: model?.version ?? 1,
        ...form,
        lengths: { sheathOpening, strengthMember, tube, trayFiber },
      },
      { onSuccess: () => router.navigate(places.models) },
    ),
  );
  return (
    <Screen
      title={model ? model.name : 'New closure model'}
      up={{ href: places.models, name: 'the models' }}
      foot={
        <SaveFoot
          label="Save the model"
          saving={save.isPending}
          error={save.error}
          onSave={() => void submit()}
          onNewer={onNewer}
        />
      }
    >
      <ScrollView contentContainerStyle={styles.form}>
        <Field control={control} name="name" label="Name" />
        <Controller
          control={control}
          name="kind"
          render={({ field }) => (
            <Choice
              label="Kind"
              value={field.value}
              onChange={field.onChange}
              options={[
                { value: 'dome', label: 'Dome' },
                { value: 'inline', label: 'Inline' },
                { value: 'terminal', label: 'Express terminal' },
                { value: 'drop', label: 'Drop joint' },
                { value: 'rack', label: 'Rack module' },
              ]}
            />
          )}
        />
        <Field control={control} name="about" label="About it" />
        <View style={styles.fields}>
          {(
            [
              ['trays', 'Trays', undefined],
              ['singleSlots', 'Single sleeves on a tray', undefined],
              ['ribbonSlots', 'Ribbon sleeves on a tray', undefined],
              ['testPressure', 'Test pressure', 'kPa'],
            ] as const
          ).map(([name, label, unit]) => (
            <View key={name} style={styles.half}>
              <Field
                control={control}
                name={name}
                label={label}
                keyboard="decimal"
                {...(unit ? { unit } : {})}
              />
            </View>
          ))}
        </View>
        <Type look="small" tone="soft">
          Never above 34.5 kPa (5 psi). The maker’s instruction for the closure comes first.
        </Type>
        <Type look="heading" role="heading" aria-level={2}>
          Ports
        </Type>
        {ports.fields.map((port, index) => (
          <View
            key={port.id}
            role="group"
            aria-label={`Port ${index + 1}`}
            style={[styles.port, { borderColor: palette.hairline }]}
          >
            <View style={styles.fields}>
              <View style={styles.half}>
                <Field control={control} name={`ports.${index}.name`} label={`Port ${index + 1}, name`} />
              </View>
              <View style={styles.half}>
                <Field
                  control={control}
                  name={`ports.${index}.count`}
                  label={`Port ${index + 1}, how many`}
                  keyboard="numeric"
                />
              </View>
              <View style={styles.half}>
                <Field
                  control={control}
                  name={`ports.${index}.from`}
                  label={`Port ${index + 1}, cables from`}
                  unit="mm"
                  keyboard="decimal"
                  hint={inInches(typed.ports?.[index]?.from)}
                />
              </View>
              <View style={styles.half}>
                <Field
                  control={control}
                  name={`ports.${index}.to`}
                  label={`Port ${index + 1}, cables to`}
                  unit="mm"
                  keyboard="decimal"
                  hint={inInches(typed.ports?.[index]?.to)}
                />
              </View>
            </View>
            <View style={styles.row}>
              <Controller
                control={control}
                name={`ports.${index}.express`}
                render={({ field }) => (
                  <Action
                    label="Takes cables that go through"
                    pressed={field.value}
                    onPress={() => field.onChange(!field.value)}
                  />
                )}
              />
              {ports.fields.length > 1 ? (
                <Action
                  label="Take away"
                  spoken={`Take away port ${index + 1}`}
                  onPress={() => ports.remove(index)}
                />
              ) : null}
            </View>
          </View>
        ))}
        <Action
          icon="add"
          label="Port"
          spoken="Add a port"
          style={styles.start}
          onPress={() => ports.append({ name: 'Round', count: '1', from: '6', to: '18', express: false })}
        />
        <Type look="heading" role="heading" aria-level={2}>
          Lengths when a cable is prepared
        </Type>
        <View style={styles.fields}>
          {(
            [
              ['sheathOpening', 'Sheath opening'],
              ['strengthMember', 'Strength member left'],
              ['tube', 'Tube left'],
              ['trayFiber', 'Fiber on the tray'],
            ] as const
          ).map(([name, label]) => (
            <View key={name} style={styles.half}>
              <Field
                control={control}
                name={name}
                label={label}
                unit="mm"
                keyboard="decimal"
                hint={inInches(typed[name])}
              />
            </View>
          ))}
        </View>
      </ScrollView>
    </Screen>
  );
}

const styles = StyleSheet.create({
  form: { padding: space.large, paddingLeft: gutter.width, gap: space.large, maxWidth: 760 },
  fields: { flexDirection: 'row', flexWrap: 'wrap', gap: space.medium },
  half: { flexGrow: 1, flexBasis: 150 },
  port: { borderWidth: stroke.hair, padding: space.medium, gap: space.medium },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
  start: { alignSelf: 'flex-start' },
});
