import {
  formatLoss,
  limitsPresets,
  limitsSchema,
  usualWeights,
  weightWords,
  type Limits,
  type Project,
  shownNumber,
  type Weights,
} from '@cordel/core';
import { zodResolver } from '@hookform/resolvers/zod';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { Pressable, ScrollView, StyleSheet, View } from 'react-native';
import { z } from 'zod';
import { editedOf, useProject, useSaveSettings } from '../../data/projects';
import { useVersionedEdit, type VersionedEdit } from '../../data/versionedEdit';
import { Action } from '../../ui/Action';
import { Choice } from '../../ui/Field';
import { FormField } from '../../ui/FormField';
import { decimalField, optionalDecimalField } from '../../ui/numberField';
import { Panes } from '../../shell/frame/Panes';
import { Screen } from '../../shell/frame/Screen';
import { Failed, Loading } from '../../ui/States';
import { Tabs } from '../../shell/frame/Tabs';
import { useCordelTheme, useWide } from '../../ui/theme';
import { gutter, space, stroke, touch } from '../../ui/tokens';
import { TickRow } from '../../ui/TickRow';
import { Type } from '../../ui/Type';
import { CordNav } from '../../shell/frame/CordNav';
import { OvertakenNotice } from '../../shell/forms/OvertakenNotice';
import { limitFields } from '../../shell/fieldWords';
import { places, projectTabs } from '../../shell/places';

const formSchema = z.object({
  singleMax: decimalField(limitsSchema.shape.singleMax),
  ribbonFiberMax: decimalField(limitsSchema.shape.ribbonFiberMax),
  trayMean: decimalField(limitsSchema.shape.trayMean),
  closureMean: decimalField(limitsSchema.shape.closureMean),
  cleaveAngleMax: decimalField(limitsSchema.shape.cleaveAngleMax),
  offsetMax: optionalDecimalField(limitsSchema.shape.offsetMax.unwrap()),
  gapMax: optionalDecimalField(limitsSchema.shape.gapMax.unwrap()),
  tries: decimalField(limitsSchema.shape.tries),
});
type FormOutput = z.output<typeof formSchema>;
type FormInput = z.input<typeof formSchema>;

/** What the owner asks for. Verdicts are derived from these numbers, so a change judges everything anew, past readings too. */
export function LimitsScreen({ projectId }: { projectId: string }) {
  const { data: definition, error, refetch } = useProject(projectId);
  const edit = useVersionedEdit(definition?.project, refetch);
  const wide = useWide();
  const up = { href: places.line(projectId), name: 'the line' };
  if (!definition || !edit.base)
    return (
      <Screen title="Limits" up={up}>
        {error ? <Failed error={error} onRetry={() => void refetch()} /> : <Loading what="the limits" />}
      </Screen>
    );
  return (
    <Panes cord={<CordNav definition={definition} tab="limits" />}>
      <Screen
        title="Limits"
        subtitle={definition.project.name}
        up={up}
        foot={wide ? null : <Tabs tabs={projectTabs(projectId, 'limits')} />}
      >
        <LimitsForm key={edit.round} project={edit.base} edit={edit} />
      </Screen>
    </Panes>
  );
}

const asText = (limits: Limits): FormInput =>
  Object.fromEntries(
    limitFields.map(({ name, unit }) => {
      const value = limits[name];
      return [name, value === undefined ? '' : unit === 'dB' ? formatLoss(value) : shownNumber(value)];
    }),
  ) as FormInput;

/** An empty field sets no limit. */
const asLimits = (
  { offsetMax, gapMax, ...limits }: FormOutput,
  measured: boolean,
  weights: Weights,
): Limits => ({
  ...limits,
  ...(measured ? { measured } : {}),
  ...(sameWeights(weights, usualWeights) ? {} : { weights }),
  ...(offsetMax === null ? {} : { offsetMax }),
  ...(gapMax === null ? {} : { gapMax }),
});

const weightNames = ['time', 'over', 'slack'] as const;

function sameWeights(a: Weights, b: Weights): boolean {
  return weightNames.every((name) => a[name] === b[name]);
}

function optionsOf(name: (typeof weightNames)[number]) {
  const { title: _, ...words } = weightWords[name];
  return Object.entries(words).map(([value, label]) => ({ value, label }));
}

function LimitsForm({ project, edit }: { project: Project; edit: VersionedEdit<Project> }) {
  const { palette } = useCordelTheme();
  const save = useSaveSettings(project.id);
  const [measured, setMeasured] = useState(project.limits.measured === true);
  const before = project.limits.weights ?? usualWeights;
  const [weights, setWeights] = useState(before);
  const { control, handleSubmit, reset, formState } = useForm<FormInput, unknown, FormOutput>({
    resolver: zodResolver(formSchema),
    defaultValues: asText(project.limits),
  });
  const changed =
    formState.isDirty || measured !== (project.limits.measured === true) || !sameWeights(weights, before);
  const store = (output: FormOutput) => {
    const limits = asLimits(output, measured, weights);
    save.mutate({ base: project, settings: { ...editedOf(project), limits } }, { onSuccess: edit.settle });
  };
  return (
    <ScrollView contentContainerStyle={styles.form}>
      <View role="group" aria-label="Presets" style={styles.presets}>
        {limitsPresets.map((preset) => (
          <Pressable
            key={preset.id}
            role="button"
            onPress={() => reset(asText(preset.limits), { keepDefaultValues: true })}
            style={[styles.preset, { borderColor: palette.ink, backgroundColor: palette.sheet }]}
          >
            <Type look="heading">{preset.name}</Type>
            <Type look="small" tone="soft">
              {preset.about}
            </Type>
          </Pressable>
        ))}
      </View>
      <View style={styles.fields}>
        {limitFields.map(({ name, label, unit, hint }) => (
          <View key={name} style={styles.half}>
            <FormField
              control={control}
              name={name}
              label={label}
              keyboard="decimal"
              {...(unit ? { unit } : {})}
              {...(hint ? { hint } : {})}
            />
          </View>
        ))}
      </View>
      <TickRow ticked={measured} onPress={() => setMeasured(!measured)}>
        <Type>The owner wants measured losses, not the machine’s estimates</Type>
      </TickRow>
      <View style={styles.presets}>
        <Type look="heading" role="heading" aria-level={2}>
          What a redo is weighed against
        </Type>
        <Type look="small" tone="soft">
          The bench says whether a redo is worth it. These words set what it costs and what it saves.
        </Type>
        {weightNames.map((name) => (
          <Choice
            key={name}
            label={weightWords[name].title}
            options={optionsOf(name)}
            value={weights[name]}
            onChange={(value) => setWeights({ ...weights, [name]: value })}
          />
        ))}
      </View>
      {save.error ? (
        <OvertakenNotice error={save.error} show="Show the newer ones" onNewer={edit.showNewer} />
      ) : edit.newer ? (
        <View role="status" style={styles.preset}>
          <Type>Somebody else saved these settings meanwhile. What you typed is still here.</Type>
          <Action label="Show the newer ones" onPress={edit.showNewer} />
        </View>
      ) : null}
      <Action
        bench
        kind="now"
        label={save.isPending ? 'Saving …' : 'Save and judge again'}
        disabled={save.isPending || !changed}
        onPress={() => void handleSubmit(store)()}
      />
      <Type look="small" tone="soft">
        A limit is the largest value that still holds. Every reading of the project is judged anew when these
        are saved.
      </Type>
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  form: { padding: space.large, paddingLeft: gutter.width, gap: space.large, maxWidth: 760 },
  presets: { gap: space.small },
  preset: { borderWidth: stroke.hair, padding: space.medium, gap: space.tight, minHeight: touch.bench },
  fields: { flexDirection: 'row', flexWrap: 'wrap', gap: space.medium },
  half: { flexGrow: 1, flexBasis: 220 },
});
