import {
  branchSites,
  cablesAlong,
  fiberCount,
  formatChainage,
  routeSites,
  type ProjectDefinition,
  type RollUp,
  type Site,
} from '@cordel/core';
import { router } from 'expo-router';
import { Pressable, ScrollView, StyleSheet, View } from 'react-native';
import { useProgressOf } from '../../../data/ledger';
import { useProject } from '../../../data/projects';
import { Action } from '../../../ui/Action';
import { CordRow, type Stretch } from '../../../ui/Cord';
import { Knot } from '../../../ui/Knot';
import { Panes } from '../../../shell/frame/Panes';
import { Screen } from '../../../shell/frame/Screen';
import { DeviceNotices } from '../../../shell/frame/SendStatus';
import { Failed, Loading } from '../../../ui/States';
import { Tabs } from '../../../shell/frame/Tabs';
import { useCordelTheme, useWide } from '../../../ui/theme';
import { clockTime } from '../../../ui/times';
import { gutter, space, stroke, touch } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import { progressWords, waitingWords } from '../../../shell/words';
import { CordNav } from '../../../shell/frame/CordNav';
import { places, projectTabs } from '../../../shell/places';
import { RouteSchematic } from './RouteSchematic';

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
  const length = Math.max(0, ...routeSites(sites).map((site) => site.chainage));
  return (
    <Panes cord={<CordNav definition={definition} tab="line" />}>
      <Screen
        title={project.name}
        subtitle={[
          formatChainage(length, project.units),
          `${sites.length} sites`,
          project.window ? `window closes ${clockTime(project.window.closes, project.timeZone)}` : null,
        ]
          .filter(Boolean)
          .join(' · ')}
        up={up}
        foot={wide ? null : <Tabs tabs={projectTabs(projectId, 'line')} />}
      >
        <DeviceNotices />
        <ScrollView>
          <RouteSchematic definition={definition} />
          <Route definition={definition} />
          <OtherCables definition={definition} />
        </ScrollView>
      </Screen>
    </Panes>
  );
}

function Route({ definition }: { definition: ProjectDefinition }) {
  const { sites } = definition;
  const progress = useProgressOf(definition);
  const rollUpOf = (closureId: string | undefined) =>
    progress.data?.find((item) => item.closureId === closureId)?.rollUp;
  const route = routeSites(sites);
  return route.map((site, index) => {
    const after = route[index + 1];
    const branch = branchSites(sites, site.id);
    return (
      <View key={site.id}>
        <SiteOnCord
          definition={definition}
          site={site}
          rollUp={rollUpOf}
          above={index === 0 ? 'none' : 'open'}
          below={after ? 'open' : 'none'}
        />
        {branch.length > 0 ? (
          <CordRow above={after ? 'open' : 'none'} below={after ? 'open' : 'none'} knot={null}>
            <View role="group" aria-label={`Branch at ${site.name}`}>
              {branch.map((one, place) => (
                <View key={one.id}>
                  <CordRow above={place === 0 ? 'done' : 'open'} below="open" knot={null}>
                    <Between definition={definition} from={branch[place - 1] ?? site} to={one} />
                  </CordRow>
                  <SiteOnCord
                    definition={definition}
                    site={one}
                    rollUp={rollUpOf}
                    above="open"
                    below={place < branch.length - 1 ? 'open' : 'none'}
                  />
                </View>
              ))}
            </View>
          </CordRow>
        ) : null}
        {after ? (
          <CordRow above="open" below="open" knot={null}>
            <Between definition={definition} from={site} to={after} />
          </CordRow>
        ) : null}
      </View>
    );
  });
}

function SiteOnCord({
  definition: { project, closures },
  site,
  rollUp: rollUpOf,
  above,
  below,
}: {
  definition: ProjectDefinition;
  site: Site;
  rollUp: (closureId: string | undefined) => RollUp | undefined;
  above: Stretch;
  below: Stretch;
}) {
  const closure = closures.find((candidate) => candidate.siteId === site.id);
  const rollUp = rollUpOf(closure?.id);
  const size = closure ? 26 : 20;
  return (
    <CordRow
      above={above}
      below={below}
      knot={
        <Knot
          mark={rollUp && rollUp.count > 0 && rollUp.settled === rollUp.count ? 'holds' : 'open'}
          size={size}
        />
      }
      knotSize={size}
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
        <Pressable
          role="link"
          onPress={() => router.navigate(places.site(project.id, site.id))}
          style={styles.site}
        >
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
        </Pressable>
      )}
    </CordRow>
  );
}

/** The cables on a stretch of the route, each a way to what it looks like. */
function Between({ definition, from, to }: { definition: ProjectDefinition; from: Site; to: Site }) {
  const { project } = definition;
  const here = cablesAlong(definition.sites, definition.cables).filter(
    (cable) => cable.siteIds.includes(from.id) && cable.siteIds.includes(to.id),
  );
  return (
    <View style={styles.between}>
      {here.map((cable) => (
        <Pressable
          key={cable.id}
          role="link"
          onPress={() => router.navigate(places.cable(project.id, cable.id))}
          style={styles.cable}
        >
          <Type look="small" style={styles.link}>
            {cable.label}
          </Type>
          <Type look="small" tone="soft">
            {fiberCount(cable.construction)} fibers
          </Type>
        </Pressable>
      ))}
    </View>
  );
}

/** What the route is made of, for the cables that end at one site and cannot be tapped between two. */
function OtherCables({ definition }: { definition: ProjectDefinition }) {
  const { project, cables, sites } = definition;
  const here = cables.filter((cable) => cable.siteIds.length < 2);
  return (
    <View style={styles.edit}>
      {here.length > 0 ? (
        <View style={styles.others}>
          {here.map((cable) => (
            <Action
              key={cable.id}
              label={cable.label}
              detail={sites.find((site) => site.id === cable.siteIds[0])?.name}
              onPress={() => router.navigate(places.cable(project.id, cable.id))}
            />
          ))}
        </View>
      ) : null}
      <View style={styles.others}>
        <Action
          icon="add"
          label="Site"
          spoken="Add a site"
          onPress={() => router.navigate(places.site(project.id, 'new'))}
        />
        <Action
          icon="add"
          label="Cable"
          spoken="Add a cable"
          onPress={() => router.navigate(places.editCable(project.id, 'new'))}
        />
        <Action
          label="Settings"
          spoken="Settings of the project"
          onPress={() => router.navigate(places.settings(project.id))}
        />
        <Action label="Nights" onPress={() => router.navigate(places.nights(project.id))} />
        <Action label="Time for the night" onPress={() => router.navigate(places.time(project.id))} />
        <Action label="Gear" onPress={() => router.navigate(places.gear)} />
        <Action label="Closure models" onPress={() => router.navigate(places.models)} />
      </View>
    </View>
  );
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
  between: {
    paddingVertical: space.tight,
    minHeight: 36,
    flexDirection: 'row',
    flexWrap: 'wrap',
    columnGap: space.large,
  },
  cable: {
    minHeight: touch.normal,
    flexDirection: 'row',
    alignItems: 'center',
    gap: space.small,
    flexShrink: 1,
  },
  link: { textDecorationLine: 'underline' },
  edit: { padding: space.large, paddingLeft: gutter.width, gap: space.large },
  others: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
  card: { borderWidth: stroke.heavy, padding: space.medium, gap: space.tight },
  meter: { height: 12, borderWidth: stroke.hair, marginVertical: space.tight },
  filled: { height: '100%' },
});
