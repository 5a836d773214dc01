import { formatChainage, type Cable, type ProjectDefinition, type Site } from '@cordel/core';
import { fiberCount } from '@cordel/core';
import { router } from 'expo-router';
import { Pressable, ScrollView, StyleSheet, View } from 'react-native';
import { useProgress, useProject } from '../../data/projects';
import { CordRow, type Stretch } from '../../ui/Cord';
import { Knot } from '../../ui/Knot';
import { Panes } from '../../ui/Panes';
import { Screen } from '../../ui/Screen';
import { RefusedFacts } from '../../ui/SendStatus';
import { Failed, Loading } from '../../ui/States';
import { Tabs } from '../../ui/Tabs';
import { useCordelTheme, useWide } from '../../ui/theme';
import { space, stroke, touch } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import { progressWords, waitingWords } from '../splice/words';
import { CordNav } from './CordNav';
import { places, projectTabs } from './places';

/** The route on its cord: every site at its distance, the cables between, and how far each closure is. */
export function LineScreen({ projectId }: { projectId: string }) {
  const { data: definition, error, refetch } = useProject(projectId);
  const wide = useWide();
  const up = { href: places.shelf, name: 'the shelf' };
  if (!definition)
    return (
      <Screen title="Line" up={up}>
        {error ? <Failed error={error} onRetry={() => void refetch()} /> : <Loading what="the route" />}
      </Screen>
    );
  const { project, sites } = definition;
  const length = Math.max(0, ...sites.map((site) => site.chainage));
  return (
    <Panes cord={<CordNav definition={definition} tab="line" />}>
      <Screen
        title={project.name}
        subtitle={[
          formatChainage(length, project.units),
          `${sites.length} sites`,
          project.window ? `window closes ${clock(project.window.closes)}` : null,
        ]
          .filter(Boolean)
          .join(' · ')}
        up={up}
        foot={wide ? null : <Tabs tabs={projectTabs(projectId, 'line')} />}
      >
        <RefusedFacts />
        <ScrollView>
          <Route definition={definition} />
        </ScrollView>
      </Screen>
    </Panes>
  );
}

function clock(time: string): string {
  return new Date(time).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' });
}

function Route({ definition }: { definition: ProjectDefinition }) {
  const { project, sites, closures, cables } = definition;
  const progress = useProgress(project.id);
  return sites.map((site, index) => {
    const closure = closures.find((candidate) => candidate.siteId === site.id);
    const rollUp = progress.data?.find((item) => item.closureId === closure?.id)?.rollUp;
    const after = sites[index + 1];
    const stretch: Stretch = 'open';
    return (
      <View key={site.id}>
        <CordRow
          above={index === 0 ? 'none' : stretch}
          below={after ? stretch : 'none'}
          knot={
            <Knot
              mark={rollUp && rollUp.count > 0 && rollUp.settled === rollUp.count ? 'holds' : 'open'}
              size={closure ? 26 : 20}
            />
          }
          knotSize={closure ? 26 : 20}
        >
          {closure ? (
            <ClosureCard
              site={site}
              units={project.units}
              kind={closure.kind}
              words={rollUp ? [progressWords(rollUp), waitingWords(rollUp)].filter(Boolean).join(' · ') : '…'}
              share={rollUp && rollUp.count > 0 ? rollUp.settled / rollUp.count : 0}
              onPress={() => router.navigate(places.closure(project.id, closure.id))}
            />
          ) : (
            <View style={styles.site}>
              <View style={styles.names}>
                <Type look="heading" style={styles.grow}>
                  {site.name}
                </Type>
                <Type look="small" tone="soft">
                  {formatChainage(site.chainage, project.units)}
                </Type>
              </View>
              <Type look="small" tone="soft">
                {[site.kind, site.placement, site.kind === 'closure' ? 'not planned yet' : null]
                  .filter(Boolean)
                  .join(' · ')}
              </Type>
            </View>
          )}
        </CordRow>
        {after ? (
          <CordRow above={stretch} below={stretch} knot={null}>
            <View style={styles.between}>
              <Type look="small" tone="soft">
                {cablesBetween(cables, site, after)}
              </Type>
            </View>
          </CordRow>
        ) : null}
      </View>
    );
  });
}

function cablesBetween(cables: readonly Cable[], from: Site, to: Site): string {
  const here = cables.filter((cable) => cable.siteIds.includes(from.id) && cable.siteIds.includes(to.id));
  return here.map((cable) => `${cable.label}, ${fiberCount(cable.construction)} fibers`).join(' · ');
}

interface ClosureCardProps {
  site: Site;
  units: 'mm' | 'in';
  kind: string;
  words: string;
  share: number;
  onPress: () => void;
}

function ClosureCard({ site, units, kind, words, share, onPress }: ClosureCardProps) {
  const { palette } = useCordelTheme();
  return (
    <Pressable
      role="link"
      onPress={onPress}
      style={[styles.card, { backgroundColor: palette.sheet, borderColor: palette.ink }]}
    >
      <View style={styles.names}>
        <Type look="title" style={styles.grow}>
          {site.name}
        </Type>
        <Type look="small" tone="soft">
          {formatChainage(site.chainage, units)}
        </Type>
      </View>
      <Type look="small" tone="soft">
        {[site.placement, kind].filter(Boolean).join(' · ')}
      </Type>
      <View aria-hidden style={[styles.meter, { borderColor: palette.ink }]}>
        <View style={[styles.filled, { width: `${100 * share}%`, backgroundColor: palette.ink }]} />
      </View>
      <View style={styles.names}>
        <Type look="strong" style={styles.grow}>
          {words}
        </Type>
        <Type look="heading" tone="accent">
          {share < 1 ? 'Splice' : 'Look'}
        </Type>
      </View>
    </Pressable>
  );
}

const styles = StyleSheet.create({
  site: { paddingVertical: space.medium, gap: space.hair, minHeight: touch.bench },
  names: { flexDirection: 'row', alignItems: 'baseline', gap: space.small, flexWrap: 'wrap' },
  grow: { flex: 1, minWidth: 120 },
  between: { paddingVertical: space.medium, minHeight: 36 },
  card: { borderWidth: stroke.heavy, padding: space.medium, gap: space.tight },
  meter: { height: 12, borderWidth: stroke.hair, marginVertical: space.tight },
  filled: { height: '100%' },
});
