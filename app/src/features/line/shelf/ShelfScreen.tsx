import { formatChainage, type ProjectDefinition } from '@cordel/core';
import { router } from 'expo-router';
import { useState } from 'react';
import { Pressable, ScrollView, StyleSheet, View } from 'react-native';
import { useProgressOf } from '../../../data/ledger';
import { useProject, useRestoreProject, useShelf } from '../../../data/projects';
import { useEdits, useEntries } from '../../../sync/react';
import { Action } from '../../../ui/Action';
import { CordRow } from '../../../ui/Cord';
import { Icon } from '../../../ui/Icon';
import { Knot } from '../../../ui/Knot';
import { Screen } from '../../../shell/frame/Screen';
import { DeviceNotices } from '../../../shell/frame/SendStatus';
import { Empty, Failed, Loading } from '../../../ui/States';
import { useCordelTheme } from '../../../ui/theme';
import { gutter, space, stroke, touch } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import { AlongRow } from './AlongRow';
import { ImportAction } from './ImportAction';
import { Tonight } from './Tonight';
import { places } from '../../../shell/places';
import { PreferencesSheet } from '../../../shell/PreferencesSheet';

/** All projects of this server, each a knot where a cord begins. */
export function ShelfScreen() {
  const shelf = useShelf();
  const { palette, size } = useCordelTheme();
  const [preferences, setPreferences] = useState(false);
  const entries = shelf.data?.shelf ?? [];
  const deleted = shelf.data?.deleted ?? [];
  return (
    <Screen
      title="Cordel"
      subtitle="Projects"
      corner={
        <Pressable
          role="button"
          aria-label="Preferences: day or night, text size, your name"
          onPress={() => setPreferences(true)}
          style={styles.corner}
        >
          <Icon name="settings" size={size('title')} color={palette.ink} />
        </Pressable>
      }
      foot={
        <View style={styles.foot}>
          <ImportAction />
          <Action bench label="Gear" onPress={() => router.navigate(places.gear)} style={styles.grow} />
          <Action
            bench
            kind={entries.length === 0 ? 'now' : 'block'}
            icon="add"
            label="New project"
            onPress={() => router.navigate(places.newProject)}
            style={styles.grow}
          />
        </View>
      }
    >
      <DeviceNotices />
      <ScrollView contentContainerStyle={styles.list}>
        {shelf.error && !shelf.data ? (
          <Failed error={shelf.error} onRetry={() => void shelf.refetch()} />
        ) : !shelf.data ? (
          <Loading what="the shelf" />
        ) : entries.length === 0 ? (
          <Empty
            title="The shelf is empty"
            text="Projects stand here: a route, its closures and every splice in them. Make the first one, import a project file, or read a backup."
          />
        ) : (
          entries.map((summary, index) => (
            <ProjectRow
              key={summary.project.id}
              summary={summary}
              below={index === entries.length - 1 ? 'none' : 'done'}
            />
          ))
        )}
        {deleted.length > 0 ? <Deleted projects={deleted} /> : null}
        <Action
          kind="plain"
          label="Practice"
          onPress={() => router.navigate(places.practice)}
          style={styles.backup}
        />
        <Action
          kind="plain"
          label="Backup of the whole shelf"
          onPress={() => router.navigate(places.backup)}
          style={styles.backup}
        />
      </ScrollView>
      {preferences ? <PreferencesSheet open onClose={() => setPreferences(false)} /> : null}
    </Screen>
  );
}

type Summary = NonNullable<ReturnType<typeof useShelf>['data']>['shelf'][number];
interface RowProps {
  summary: Summary;
  below: 'none' | 'done';
}

/** A project on the shelf: as the server counts, and from what is on this device while it has something that the server has not. */
function ProjectRow(props: RowProps) {
  const { id } = props.summary.project;
  const entries = useEntries().some((entry) => entry.projectId === id && entry.refused === null);
  const edits = useEdits(id).length > 0;
  return entries || edits ? <RowFromHere {...props} /> : <Row {...props} />;
}

function RowFromHere(props: RowProps) {
  const { data: definition } = useProject(props.summary.project.id);
  return definition ? <CountedHere {...props} definition={definition} /> : <Row {...props} />;
}

function CountedHere({ summary, definition, below }: RowProps & { definition: ProjectDefinition }) {
  const { data: progress = summary.progress } = useProgressOf(definition);
  return <Row summary={{ ...summary, project: definition.project, progress }} below={below} />;
}

function Row({ summary: { project, siteCount, lengthMeters, progress }, below }: RowProps) {
  const { palette } = useCordelTheme();
  const count = progress.reduce((sum, one) => sum + one.rollUp.count, 0);
  const settled = progress.reduce((sum, one) => sum + one.rollUp.settled, 0);
  const redo = progress.reduce((sum, one) => sum + one.rollUp.marks.redo, 0);
  const owner = progress.reduce((sum, one) => sum + one.rollUp.marks.owner, 0);
  const words = [
    `${settled} of ${count} splices`,
    redo > 0 ? `${redo} redo` : null,
    owner > 0 ? `${owner} owner’s call` : null,
  ]
    .filter(Boolean)
    .join(' · ');
  return (
    <CordRow
      above="done"
      below={below}
      knot={<Knot mark={count > 0 && settled === count ? 'holds' : 'open'} size={24} />}
      knotSize={24}
    >
      <Pressable
        role="link"
        onPress={() => router.navigate(places.line(project.id))}
        style={[styles.card, { backgroundColor: palette.sheet, borderColor: palette.ink }]}
      >
        <Type look="title">{project.name}</Type>
        <Type look="small" tone="soft">
          {formatChainage(lengthMeters, project.units)} · {siteCount} sites
        </Type>
        <Type look="strong">{words}</Type>
      </Pressable>
      <Tonight project={project} progress={progress} />
      <AlongRow projectId={project.id} name={project.name} />
    </CordRow>
  );
}

/** What was deleted and can still be put back. */
function Deleted({ projects }: { projects: readonly { readonly id: string; readonly name: string }[] }) {
  const restore = useRestoreProject();
  return (
    <View style={styles.deleted}>
      <Type look="heading" role="heading" aria-level={2}>
        Deleted
      </Type>
      <Type look="small" tone="soft">
        Kept for 30 days with every reading, then cleared away.
      </Type>
      {projects.map((project) => (
        <View key={project.id} style={styles.deletedRow}>
          <Type style={styles.grow}>{project.name}</Type>
          <Action
            label="Put back"
            spoken={`Put back ${project.name}`}
            disabled={restore.isPending}
            onPress={() => restore.mutate(project.id)}
          />
        </View>
      ))}
      {restore.error ? (
        <Type tone="accent" role="alert">
          {restore.error.message}
        </Type>
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  deleted: { padding: space.large, paddingLeft: gutter.width, gap: space.small },
  deletedRow: { flexDirection: 'row', alignItems: 'center', gap: space.small },
  list: { maxWidth: 760, width: '100%' },
  card: { borderWidth: stroke.rule, padding: space.medium, gap: space.tight, marginVertical: space.small },
  corner: { width: touch.bench, alignItems: 'center', justifyContent: 'center' },
  foot: {
    flexWrap: 'wrap',
    flexDirection: 'row',
    gap: space.small,
    padding: space.small,
    paddingLeft: gutter.width,
    maxWidth: 760,
  },
  backup: { alignSelf: 'flex-start', marginLeft: gutter.width, marginTop: space.small },
  grow: { flexGrow: 1 },
});
