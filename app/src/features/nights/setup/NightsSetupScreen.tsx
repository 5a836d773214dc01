import {
  newNightsSetup,
  nightsSetupSchema,
  type NightsSetup,
  type Project,
  type ProjectDefinition,
} from '@cordel/core';
import { router } from 'expo-router';
import { useState } from 'react';
import { ScrollView, StyleSheet } from 'react-native';
import { afterwards } from '../../../data/afterwards';
import { editedOf, useProject, useSaveSettings } from '../../../data/projects';
import { useVersionedEdit, type VersionedEdit } from '../../../data/versionedEdit';
import { SaveFoot } from '../../../shell/forms/SaveFoot';
import { CordNav } from '../../../shell/frame/CordNav';
import { Panes } from '../../../shell/frame/Panes';
import { Screen } from '../../../shell/frame/Screen';
import { places } from '../../../shell/places';
import { Failed, Loading } from '../../../ui/States';
import { gutter, space } from '../../../ui/tokens';
import { CrewsPart } from './CrewsPart';
import { NightsPart } from './NightsPart';
import { RulesPart } from './RulesPart';
import { WaysPart } from './WaysPart';

/** What the nights are planned from: when, who, and what holds for each closure. */
export function NightsSetupScreen({ projectId }: { projectId: string }) {
  const { data: definition, error, refetch } = useProject(projectId);
  const edit = useVersionedEdit(definition?.project, refetch);
  if (!definition || !edit.base)
    return (
      <Screen title="Nights and crews" up={{ href: places.nights(projectId), name: 'the nights' }}>
        {error ? (
          <Failed error={error} onRetry={() => void refetch()} />
        ) : (
          <Loading what="nights and crews" />
        )}
      </Screen>
    );
  return (
    <Panes cord={<CordNav definition={definition} tab="line" />}>
      <SetupForm key={edit.round} definition={definition} project={edit.base} edit={edit} />
    </Panes>
  );
}

/** A part of the form: what stands in it, and how it is changed. */
export interface SetupPart {
  readonly definition: ProjectDefinition;
  readonly draft: NightsSetup;
  readonly onChange: (next: Partial<NightsSetup>) => void;
}

function SetupForm({
  definition,
  project,
  edit,
}: {
  definition: ProjectDefinition;
  project: Project;
  edit: VersionedEdit<Project>;
}) {
  const [draft, setDraft] = useState<NightsSetup>(project.nights ?? newNightsSetup);
  const [tried, setTried] = useState(false);
  const save = useSaveSettings(project.id);
  const read = nightsSetupSchema.safeParse(draft);
  const trouble = tried && !read.success ? troubleWords(read.error.issues[0]!, draft) : undefined;
  const submit = () => {
    setTried(true);
    if (!read.success) return;
    afterwards(
      save.mutateAsync({ base: project, settings: { ...editedOf(project), nights: read.data } }),
      () => router.navigate(places.nights(project.id)),
    );
  };
  const part: SetupPart = {
    definition,
    draft,
    onChange: (next) => setDraft((before) => ({ ...before, ...next })),
  };
  return (
    <Screen
      title="Nights and crews"
      subtitle={project.name}
      up={{ href: places.nights(project.id), name: 'the nights' }}
      foot={
        <SaveFoot
          label="Save and plan"
          saving={save.isPending}
          error={save.error}
          trouble={trouble}
          newer={edit.newer}
          onNewer={edit.showNewer}
          onSave={submit}
        />
      }
    >
      <ScrollView contentContainerStyle={styles.form}>
        <NightsPart {...part} />
        <CrewsPart {...part} />
        <RulesPart {...part} />
        <WaysPart {...part} />
      </ScrollView>
    </Screen>
  );
}

/** "Noa: Calibration: give a time.": where, and what. */
function troubleWords(
  { path, message }: { readonly path: readonly PropertyKey[]; readonly message: string },
  { crews }: NightsSetup,
): string {
  const [list, index] = path;
  if (list === 'crews' && typeof index === 'number')
    return `${crews[index]?.name || `Crew ${index + 1}`}: ${message}`;
  if (list === 'nights' && typeof index === 'number') return `Night ${index + 1}: ${message}`;
  return message;
}

const styles = StyleSheet.create({
  form: { padding: space.large, paddingLeft: gutter.width, gap: space.huge, maxWidth: 720 },
});
