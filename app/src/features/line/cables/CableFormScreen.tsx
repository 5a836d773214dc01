import { colorSchemes, fiberTypes, type Cable, type ProjectDefinition } from '@cordel/core';
import { lineOf } from '@cordel/core/edits';
import { router } from 'expo-router';
import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { v7 } from 'uuid';
import { useSaveLine } from '../../../data/plan';
import { useProject } from '../../../data/projects';
import { useVersionedEdit, type VersionedEdit } from '../../../data/versionedEdit';
import { afterwards } from '../../../data/afterwards';
import { Action } from '../../../ui/Action';
import { CrossSection } from '../../../ui/CrossSection';
import { Choice, TextBox } from '../../../ui/Field';
import { SaveFoot } from '../../../shell/forms/SaveFoot';
import { Screen } from '../../../shell/frame/Screen';
import { Sheet } from '../../../ui/Sheet';
import { Empty, Failed, Loading } from '../../../ui/States';
import { gutter, space } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import {
  cableOfForm,
  constructionOf,
  emptyCable,
  formOfCable,
  ribbonSizeOptions,
  type CableForm,
  type FormTroubles,
} from './cableForm';
import { constructionWords } from '../../../shell/cableWords';
import { OwnScheme } from './OwnScheme';
import { SitesOfCable } from './SitesOfCable';
import { places } from '../../../shell/places';

/** Makes a cable ("new") or edits one: what it is made of, its colors, its fiber, where it runs. */
export function CableFormScreen({ projectId, cableId }: { projectId: string; cableId: string }) {
  const { data: definition, error, refetch } = useProject(projectId);
  const edit = useVersionedEdit(definition, refetch, lineOf);
  const up = { href: places.line(projectId), name: 'the line' };
  const cable = definition?.cables.find((one) => one.id === cableId);
  if (!definition || (!cable && cableId !== 'new'))
    return (
      <Screen title="Cable" up={up}>
        {definition ? (
          <Empty title="This project has no such cable" text="It may have been taken out of the route." />
        ) : error ? (
          <Failed error={error} onRetry={() => void refetch()} />
        ) : (
          <Loading what="the cable" />
        )}
      </Screen>
    );
  return <CableFormAt key={edit.round} definition={definition} cable={cable ?? null} edit={edit} />;
}

const kinds = [
  { value: 'stranded-tubes', label: 'Loose tubes' },
  { value: 'central-ribbon', label: 'Central ribbons' },
  { value: 'stranded-ribbon', label: 'Ribbons in tubes' },
  { value: 'drop', label: 'Drop' },
  { value: 'pigtails', label: 'Pigtails' },
] as const;

const countLabels: Record<CableForm['kind'], string> = {
  'stranded-tubes': 'Tubes',
  'central-ribbon': 'Ribbons',
  'stranded-ribbon': 'Tubes',
  drop: 'Fibers',
  pigtails: 'Pigtails',
};

function CableFormAt({
  definition,
  cable,
  edit,
}: {
  definition: ProjectDefinition;
  cable: Cable | null;
  edit: VersionedEdit<ProjectDefinition>;
}) {
  const { project } = definition;
  const base = edit.base!;
  const [form, setForm] = useState<CableForm>(() => (cable ? formOfCable(cable, project.units) : emptyCable));
  const [troubles, setTroubles] = useState<FormTroubles>({});
  const [removing, setRemoving] = useState(false);
  const save = useSaveLine(project.id);
  const set = (change: Partial<CableForm>) => {
    setForm((before) => ({ ...before, ...change }));
    setTroubles((before) =>
      Object.fromEntries(Object.entries(before).filter(([field]) => !(field in change))),
    );
  };
  const box = (
    name: keyof CableForm,
    label: string,
    more: { unit?: string; hint?: string; keyboard?: 'numeric' | 'decimal' } = {},
  ) => (
    <View style={styles.half}>
      <TextBox
        label={label}
        value={String(form[name])}
        onChangeText={(text) => set({ [name]: text })}
        trouble={troubles[name]}
        {...more}
      />
    </View>
  );
  const far = project.units === 'mm' ? 'm' : 'ft';
  const preview = constructionOf(form).construction;
  const previewCable: Cable | null = preview
    ? {
        id: cable?.id ?? project.id,
        label: form.label,
        schemeId: form.schemeId === 'own' ? colorSchemes[0]!.id : form.schemeId,
        construction: preview,
        siteIds: [],
        ...(form.schemeId === 'own' && form.ownSequence.length > 0
          ? { ownScheme: { ...colorSchemes[0]!, id: 'own', name: form.ownName, sequence: form.ownSequence } }
          : {}),
      }
    : null;
  const usedIn = definition.closures.filter((closure) =>
    closure.entries.some((entry) => entry.cableId === cable?.id),
  );

  const store = (cables: Cable[], then: () => void) =>
    afterwards(save.mutateAsync({ base, sites: definition.sites, cables }), (saved) => {
      edit.settle(saved);
      then();
    });
  const submit = () => {
    const read = cableOfForm(form, cable?.id ?? v7(), project.units, cable);
    setTroubles(read.troubles);
    if (!read.cable) return;
    const made = read.cable;
    const others = definition.cables.filter((one) => one.id !== made.id);
    store([...others, made], () => router.replace(places.cable(project.id, made.id)));
  };

  return (
    <Screen
      title={cable ? `Edit ${cable.label}` : 'New cable'}
      subtitle={preview ? constructionWords(preview) : project.name}
      up={
        cable
          ? { href: places.cable(project.id, cable.id), name: 'the cable' }
          : { href: places.line(project.id), name: 'the line' }
      }
      foot={
        <SaveFoot
          label="Save the cable"
          saving={save.isPending}
          error={save.error}
          trouble={Object.values(troubles)[0]}
          onSave={submit}
          newer={edit.newer}
          onNewer={edit.showNewer}
        />
      }
    >
      <ScrollView contentContainerStyle={styles.form}>
        <TextBox
          label="Label"
          value={form.label}
          onChangeText={(label) => set({ label })}
          trouble={troubles.label}
        />
        <Choice label="What it is" options={kinds} value={form.kind} onChange={(kind) => set({ kind })} />
        {previewCable ? (
          <View style={styles.picture}>
            <CrossSection cable={previewCable} chosen={null} onChoose={nothing} size={200} />
          </View>
        ) : null}
        <View style={styles.fields}>
          {box('count', countLabels[form.kind], { keyboard: 'numeric' })}
          {form.kind === 'stranded-tubes' ? (
            <>
              {box('each', 'Fibers in a tube', { hint: 'One number for all, or one for each tube' })}
              {box('groupSize', 'Fibers in a binder group', {
                keyboard: 'numeric',
                hint: 'Empty without groups',
              })}
            </>
          ) : null}
          {form.kind === 'stranded-ribbon'
            ? box('ribbonsPerTube', 'Ribbons in a tube', { hint: 'One number for all, or one for each tube' })
            : null}
          {form.kind === 'stranded-tubes' || form.kind === 'stranded-ribbon'
            ? box('fillers', 'Fillers at positions', {
                hint: 'Counted in the stranding, like 3, 8. A filler has no number',
              })
            : null}
        </View>
        {form.kind === 'central-ribbon' || form.kind === 'stranded-ribbon' ? (
          <Choice
            label="Fibers in a ribbon"
            options={ribbonSizeOptions}
            value={form.ribbonSize}
            onChange={(ribbonSize) => set({ ribbonSize })}
          />
        ) : null}
        {form.kind === 'drop' ? (
          <>
            <Choice
              label="Shape"
              options={[
                { value: 'flat', label: 'Flat' },
                { value: 'round', label: 'Round' },
              ]}
              value={form.shape}
              onChange={(shape) => set({ shape })}
            />
          </>
        ) : null}
        {form.kind === 'pigtails' ? null : (
          <View style={styles.row} role="group" aria-label="Metal in it">
            {form.kind === 'drop' ? (
              <Action
                label="Toning wire"
                pressed={form.toningWire}
                onPress={() => set({ toningWire: !form.toningWire })}
              />
            ) : null}
            <Action label="Armor" pressed={form.armor} onPress={() => set({ armor: !form.armor })} />
            <Action
              label="Messenger"
              pressed={form.messenger}
              onPress={() => set({ messenger: !form.messenger })}
            />
          </View>
        )}
        {form.kind === 'pigtails' ? (
          <Choice
            label="Outside of each"
            options={[
              { value: '900', label: '900 μm' },
              { value: '250', label: '250 μm' },
            ]}
            value={form.buffer}
            onChange={(buffer) => set({ buffer })}
          />
        ) : null}

        <Choice
          label="Color code"
          options={[
            ...colorSchemes.map((scheme) => ({ value: scheme.id, label: scheme.name })),
            { value: 'own', label: 'Own' },
          ]}
          value={form.schemeId}
          onChange={(schemeId) => set({ schemeId })}
        />
        {form.schemeId === 'own' ? (
          <OwnScheme form={form} trouble={troubles.ownSequence ?? troubles.ownName} onChange={set} />
        ) : null}
        <Choice
          label="Fiber"
          options={fiberTypes.map((type) => ({ value: type.id as CableForm['fiberType'], label: type.name }))}
          value={form.fiberType}
          onChange={(fiberType) => set({ fiberType })}
        />
        <View style={styles.fields}>
          {box('modeField', 'Mode field at 1310 nm', {
            unit: 'μm',
            keyboard: 'decimal',
            hint: `Empty: the type’s ${fiberTypes.find((type) => type.id === form.fiberType)?.modeField ?? 'has none'}`,
          })}
          {box('groupIndex', 'Group index', { keyboard: 'decimal', hint: 'Empty: the type’s' })}
          {box('diameter', 'Diameter', {
            unit: project.units,
            keyboard: 'decimal',
            hint: 'Decides the port and its seal',
          })}
          {box('excess', 'Excess length of the fiber', { unit: '%', keyboard: 'decimal' })}
          {box('markFirst', 'Sheath mark at the first site', { unit: far, keyboard: 'decimal' })}
          {box('markLast', 'Sheath mark at the last site', { unit: far, keyboard: 'decimal' })}
        </View>
        <SitesOfCable definition={definition} form={form} trouble={troubles.siteIds} onChange={set} />
        <TextBox
          label="Live circuits"
          hint="One a line, like 133-144 District ring. An order that cuts them is told."
          multiline
          rows={2}
          value={form.live}
          onChangeText={(live) => set({ live })}
          trouble={troubles.live}
        />
        {cable ? (
          <Action label="Take the cable out" onPress={() => setRemoving(true)} style={styles.start} />
        ) : null}
      </ScrollView>
      <Sheet title={`Take out ${cable?.label ?? ''}`} open={removing} onClose={() => setRemoving(false)}>
        {usedIn.length > 0 ? (
          <Type>
            It still comes into {usedIn.length === 1 ? 'a closure' : `${usedIn.length} closures`}. Take it out
            of the plan there first.
          </Type>
        ) : (
          <>
            <Type>The cable leaves the route. No splice uses it.</Type>
            <Action
              kind="now"
              label="Take it out"
              onPress={() =>
                store(
                  definition.cables.filter((one) => one.id !== cable!.id),
                  () => router.replace(places.line(project.id)),
                )
              }
            />
          </>
        )}
      </Sheet>
    </Screen>
  );
}

const nothing = () => undefined;

const styles = StyleSheet.create({
  form: { padding: space.large, paddingLeft: gutter.width, gap: space.large, maxWidth: 760 },
  picture: { alignItems: 'flex-start' },
  fields: { flexDirection: 'row', flexWrap: 'wrap', gap: space.medium },
  half: { flexGrow: 1, flexBasis: 150 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.tight },
  start: { alignSelf: 'flex-start' },
});
