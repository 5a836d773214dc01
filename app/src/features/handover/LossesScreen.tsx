import { alongTheRoute, formatChainage, formatLoss, siteOf, type ProjectDefinition } from '@cordel/core';
import { router } from 'expo-router';
import { useState } from 'react';
import { Pressable, ScrollView, StyleSheet, View } from 'react-native';
import { useProgressOf } from '../../data/ledger';
import { documents, useDeleteProject, useProject } from '../../data/projects';
import { Action } from '../../ui/Action';
import { CordRow } from '../../ui/Cord';
import { Knot } from '../../ui/Knot';
import { Panes } from '../../shell/frame/Panes';
import { Screen } from '../../shell/frame/Screen';
import { Sheet } from '../../ui/Sheet';
import { Empty, Failed, Loading } from '../../ui/States';
import { Tabs } from '../../shell/frame/Tabs';
import { useCordelTheme, useWide } from '../../ui/theme';
import { space, stroke } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import { CordNav } from '../../shell/frame/CordNav';
import { places, projectTabs } from '../../shell/places';
import { allowanceWords, meanWords, measuredMeanWords, progressWords, waitingWords } from '../../shell/words';
import { download, handOn, type Told } from '../../shell/download';
import { ToldWords } from '../../shell/ToldWords';
import { lossSheetHere, projectHere } from '../../shell/madeHere';

/** What is handed over: losses per closure against the limits, the loss sheet, and the project as one document. */
export function LossesScreen({ projectId }: { projectId: string }) {
  const { data: definition, error, refetch } = useProject(projectId);
  const wide = useWide();
  const up = { href: places.line(projectId), name: 'the line' };
  if (!definition)
    return (
      <Screen title="Losses" up={up}>
        {error ? <Failed error={error} onRetry={() => void refetch()} /> : <Loading what="the losses" />}
      </Screen>
    );
  return (
    <Panes cord={<CordNav definition={definition} tab="losses" />}>
      <Screen
        title="Losses"
        subtitle={definition.project.name}
        up={up}
        foot={wide ? null : <Tabs tabs={projectTabs(projectId, 'losses')} />}
      >
        <ScrollView contentContainerStyle={styles.body}>
          <View style={styles.documents}>
            <Action
              bench
              label="Look at the losses"
              detail="How they are spread, ribbons by positions, the worst, tomorrow’s list"
              onPress={() => router.navigate(places.look(projectId))}
            />
            <Action
              bench
              kind="now"
              label="Ready to hand over?"
              detail="What stands against it, documents, sign-off"
              onPress={() => router.navigate(places.handover(projectId))}
            />
          </View>
          <ClosureList definition={definition} />
          <Documents definition={definition} />
        </ScrollView>
      </Screen>
    </Panes>
  );
}

function ClosureList({ definition }: { definition: ProjectDefinition }) {
  const { palette } = useCordelTheme();
  const { project, closures, sites } = definition;
  const { data: progress, error, refetch } = useProgressOf(definition);
  if (error && !progress) return <Failed error={error} onRetry={() => void refetch()} />;
  if (!progress) return <Loading what="the losses" />;
  if (closures.length === 0)
    return (
      <Empty
        title="No closure yet"
        text="Losses appear here when the route has a closure with a splicing order."
      />
    );
  const rows = alongTheRoute(
    sites,
    closures.map((closure) => ({
      site: siteOf(sites, closure.siteId),
      closure,
      rollUp: progress.find((one) => one.closureId === closure.id)!.rollUp,
    })),
  );
  return rows.map(({ site, closure, rollUp }, index) => (
    <CordRow
      key={closure.id}
      above={index === 0 ? 'none' : 'open'}
      below={index === rows.length - 1 ? 'none' : 'open'}
      knot={
        <Knot
          mark={rollUp.marks.redo > 0 ? 'redo' : rollUp.settled === rollUp.count ? 'holds' : 'open'}
          size={22}
        />
      }
      knotSize={22}
    >
      <Pressable
        role="link"
        onPress={() => router.navigate(places.closure(project.id, closure.id))}
        style={[styles.card, { backgroundColor: palette.sheet, borderColor: palette.ink }]}
      >
        <View style={styles.line}>
          <Type look="heading">{site.name}</Type>
          <Type look="small" tone="soft">
            {formatChainage(site.chainage, project.units)}
          </Type>
        </View>
        <View style={styles.line}>
          <Type>{[progressWords(rollUp), waitingWords(rollUp)].filter(Boolean).join(' · ')}</Type>
        </View>
        <View style={styles.line}>
          <Type look="reading" tone={rollUp.meanOver ? 'accent' : 'ink'}>
            {meanWords(rollUp)} dB mean est.
          </Type>
          <Type look="small" tone="soft">
            limit {formatLoss(rollUp.allowance.limit)}
            {rollUp.worst ? ` · worst ${formatLoss(rollUp.worst.loss)}` : ''}
          </Type>
        </View>
        {rollUp.measured ? (
          <Type tone={rollUp.measured.over ? 'accent' : 'ink'}>
            {`Measured: ${measuredMeanWords(rollUp)} on average`}
          </Type>
        ) : null}
        <Type look="small">{allowanceWords(rollUp.allowance, project.limits)}</Type>
      </Pressable>
    </CordRow>
  ));
}

function Documents({ definition }: { definition: ProjectDefinition }) {
  const { project } = definition;
  const [told, setTold] = useState<Told | null>(null);
  const [deleting, setDeleting] = useState(false);
  const remove = useDeleteProject();
  return (
    <View style={styles.documents}>
      <Type look="heading" role="heading" aria-level={2}>
        Files
      </Type>
      <Action
        bench
        icon="download"
        label="Loss sheet (CSV)"
        onPress={() =>
          void download(documents.lossSheet(project.id), project.id, () => lossSheetHere(definition)).then(
            setTold,
          )
        }
      />
      <Action
        bench
        icon="download"
        label="Whole project (JSON)"
        onPress={() =>
          void download(documents.project(project.id), project.id, () => projectHere(definition)).then(
            setTold,
          )
        }
      />
      <Action
        bench
        icon="share"
        label="Hand to another device"
        detail="As a file, with what waits here; no network needed"
        onPress={() => void handOn(() => projectHere(definition)).then(setTold)}
      />
      <ToldWords told={told} />
      <Type look="small" tone="soft">
        Losses are the splicing machine’s estimates unless they are called measured. The actual loss of a
        splice is the average of OTDR readings from both ends. A project file has every record, but not the
        pictures of photos and not the signed documents: a backup of the shelf has those.
      </Type>
      <Action
        label="Delete this project"
        kind="plain"
        onPress={() => setDeleting(true)}
        style={styles.left}
      />
      <Sheet title="Delete this project?" open={deleting} onClose={() => setDeleting(false)}>
        <Type>
          {`“${project.name}” leaves the shelf with every reading in it. For 30 days it can be put back from the foot of the shelf; after that only a project file or a backup brings it back.`}
        </Type>
        {remove.error ? (
          <Type tone="accent" role="alert">
            {remove.error.message}
          </Type>
        ) : null}
        <Action
          bench
          kind="now"
          label="Delete it"
          onPress={() => remove.mutate(project.id, { onSuccess: () => router.replace(places.shelf) })}
        />
        <Action bench label="Keep it" onPress={() => setDeleting(false)} />
      </Sheet>
    </View>
  );
}

const styles = StyleSheet.create({
  body: { paddingVertical: space.small, maxWidth: 760 },
  card: { borderWidth: stroke.rule, padding: space.medium, gap: space.tight, marginVertical: space.small },
  line: {
    flexDirection: 'row',
    flexWrap: 'wrap',
    alignItems: 'baseline',
    justifyContent: 'space-between',
    columnGap: space.medium,
  },
  documents: { padding: space.large, gap: space.medium },
  left: { alignSelf: 'flex-start' },
});
