import { type ClosureModel } from '@cordel/core';
import { builtInModels } from '@cordel/core/builtInModels';
import { zodResolver } from '@hookform/resolvers/zod';
import { router } from 'expo-router';
import { Controller, useForm, useWatch } from 'react-hook-form';
import { ScrollView, StyleSheet, View } from 'react-native';
import { v7 } from 'uuid';
import { useModels, useSaveModel } from '../../../data/plan';
import { useVersionedEdit, type VersionedEdit } from '../../../data/versionedEdit';
import { Choice } from '../../../ui/Field';
import { FormField } from '../../../ui/FormField';
import { SaveFoot } from '../../../shell/forms/SaveFoot';
import { Screen } from '../../../shell/frame/Screen';
import { Empty, Failed, Loading } from '../../../ui/States';
import { gutter, space } from '../../../ui/tokens';
import { places } from '../../../shell/places';
import {
  formOfModel,
  modelFormSchema,
  tableOfForm,
  type ModelFormInput,
  type ModelFormOutput,
} from './modelForm';
import { SealingFields } from './SealingFields';
import { TableFields } from './TableFields';

/** The catalogue is of no project, so its lengths are in mm; inches may be typed with their unit. */
const units = 'mm';

/** Makes a closure model ("new") or edits one. */
export function ModelScreen({ modelId }: { modelId: string }) {
  const models = useModels();
  const up = { href: places.models, name: 'the models' };
  const model = models.data?.find((one) => one.id === modelId);
  const edit = useVersionedEdit(model, models.refetch);
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
  return <ModelForm key={edit.round} edit={edit} />;
}

/** `edit` of none: a new one. */
function ModelForm({ edit }: { edit: VersionedEdit<ClosureModel> }) {
  const model = edit.base ?? null;
  const save = useSaveModel();
  const { control, handleSubmit } = useForm<ModelFormInput, unknown, ModelFormOutput>({
    resolver: zodResolver(modelFormSchema(units)),
    defaultValues: formOfModel(model ?? { ...builtInModels[0]!, name: '', about: '' }, units),
  });
  const kind = useWatch({ control, name: 'kind' });
  const submit = handleSubmit((form) => {
    const { name, kind, about, trays, singleSlots, ribbonSlots } = form;
    save.mutate(
      {
        base: model,
        model: {
          id: model?.id ?? v7(),
          version: model?.version ?? 1,
          ...{ name, kind, about, trays, singleSlots, ribbonSlots },
          ...(model?.sleeveLength ? { sleeveLength: model.sleeveLength } : {}),
          ...tableOfForm(form, model),
        },
      },
      { onSuccess: () => router.navigate(places.models) },
    );
  });
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
          newer={edit.newer}
          onNewer={edit.showNewer}
        />
      }
    >
      <ScrollView contentContainerStyle={styles.form}>
        <FormField control={control} name="name" label="Name" />
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
        <FormField control={control} name="about" label="About it" />
        <View style={styles.fields}>
          {(
            [
              ['trays', 'Trays'],
              ['singleSlots', 'Single sleeves on a tray'],
              ['ribbonSlots', 'Ribbon sleeves on a tray'],
            ] as const
          ).map(([name, label]) => (
            <View key={name} style={styles.half}>
              <FormField control={control} name={name} label={label} keyboard="decimal" />
            </View>
          ))}
        </View>
        <SealingFields control={control} kind={kind} />
        <TableFields control={control} units={units} />
      </ScrollView>
    </Screen>
  );
}

const styles = StyleSheet.create({
  form: { padding: space.large, paddingLeft: gutter.width, gap: space.large, maxWidth: 760 },
  fields: { flexDirection: 'row', flexWrap: 'wrap', gap: space.medium },
  half: { flexGrow: 1, flexBasis: 150 },
});
