import {
  fiberName,
  fiberOf,
  fiberUnits,
  formatChainage,
  formatMillimeters,
  schemeOf,
  siteOf,
  type Cable,
  type ProjectDefinition,
  shownNumber,
} from '@cordel/core';
import { router } from 'expo-router';
import { useMemo, useState } from 'react';
import { FlatList, Pressable, ScrollView, StyleSheet, useWindowDimensions, View } from 'react-native';
import { useProject } from '../../../data/projects';
import { Action } from '../../../ui/Action';
import { CrossSection } from '../../../ui/CrossSection';
import { FiberToken, spokenFiber, UnitToken } from '../../../ui/FiberToken';
import { Panes } from '../../../shell/frame/Panes';
import { Screen } from '../../../shell/frame/Screen';
import { Empty, Failed, Loading } from '../../../ui/States';
import { useCordelTheme, useWide } from '../../../ui/theme';
import { gutter, space, stroke, touch } from '../../../ui/tokens';
import { SpokenOnly, Type } from '../../../ui/Type';
import { CableFinder } from './CableFinder';
import { constructionWords } from '../../../shell/cableWords';
import { CordNav } from '../../../shell/frame/CordNav';
import { places } from '../../../shell/places';

/** A cable: what it looks like cut across, and which fiber is which, both ways. */
export function CableScreen({ projectId, cableId }: { projectId: string; cableId: string }) {
  const { data: definition, error, refetch } = useProject(projectId);
  const up = { href: places.line(projectId), name: 'the line' };
  const cable = definition?.cables.find((one) => one.id === cableId);
  if (!definition || !cable)
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
  return <CableAt definition={definition} cable={cable} />;
}

function CableAt({ definition, cable }: { definition: ProjectDefinition; cable: Cable }) {
  const { width } = useWindowDimensions();
  const wide = useWide();
  const [chosen, setChosen] = useState(1);
  const units = fiberUnits(cable.construction);
  const unit = units[Math.min(chosen, units.length) - 1]!;
  const projectId = definition.project.id;
  const fibers = useMemo(
    () => Array.from({ length: unit.fibers }, (_, index) => fiberName(cable, unit.first + index)),
    [cable, unit],
  );
  const finder = <CableFinder cable={cable} onFound={(name) => setChosen(name.unit)} />;
  return (
    <Panes cord={<CordNav definition={definition} />} ledger={<ScrollView>{finder}</ScrollView>}>
      <Screen
        title={cable.label}
        subtitle={constructionWords(cable.construction)}
        up={{ href: places.line(projectId), name: 'the line' }}
        foot={
          <View style={styles.foot}>
            <Action
              bench
              label="Edit the cable"
              onPress={() => router.navigate(places.editCable(projectId, cable.id))}
              style={styles.flex}
            />
            <Action
              bench
              label="Follow a fiber"
              onPress={() => router.navigate(places.follow(projectId, cable.id, unit.first))}
              style={styles.flex}
            />
          </View>
        }
      >
        <FlatList
          data={fibers}
          keyExtractor={(name) => String(name.number)}
          contentContainerStyle={styles.list}
          initialNumToRender={14}
          ListHeaderComponent={
            <View style={styles.head}>
              <View style={styles.picture}>
                <CrossSection
                  cable={cable}
                  chosen={unit.unit}
                  onChoose={setChosen}
                  size={Math.min(wide ? 300 : width - 90, 300)}
                />
              </View>
              <Facts definition={definition} cable={cable} />
              {units.length > 1 ? <UnitChoice cable={cable} chosen={unit.unit} onChoose={setChosen} /> : null}
              <Type look="heading" role="heading" aria-level={2}>
                {unit.kind === 'bundle'
                  ? `${unit.fibers} fibers`
                  : `${unit.kind === 'tube' ? 'Tube' : 'Ribbon'} ${unit.unit}, fibers ${unit.first} to ${unit.first + unit.fibers - 1}`}
              </Type>
            </View>
          }
          renderItem={({ item }) => (
            <Pressable
              role="link"
              onPress={() => router.navigate(places.follow(projectId, cable.id, item.number))}
              style={styles.fiber}
            >
              <FiberToken name={item} />
              <SpokenOnly text={`, follow ${spokenFiber(item)}`} />
              {item.group !== null ? (
                <Type look="small" tone="soft">
                  group {item.group}
                </Type>
              ) : null}
            </Pressable>
          )}
          ListFooterComponent={wide ? null : finder}
        />
      </Screen>
    </Panes>
  );
}

function Facts({ definition, cable }: { definition: ProjectDefinition; cable: Cable }) {
  const { type, modeField } = fiberOf(cable);
  const sites = cable.siteIds.map((id) => siteOf(definition.sites, id));
  const words = [
    sites.map((site) => site.name).join(' → '),
    [
      schemeOf(cable).name,
      type.name,
      modeField === null ? null : `mode field ${shownNumber(modeField)} μm`,
      cable.diameter === undefined
        ? null
        : `${formatMillimeters(cable.diameter, definition.project.units)} thick`,
      cable.excess === undefined ? null : `${shownNumber(+(cable.excess * 100).toFixed(1))} % excess`,
      cable.groupIndex === undefined ? null : `index ${cable.groupIndex}`,
    ]
      .filter(Boolean)
      .join(' · '),
    cable.sheathMarks
      ? `Sheath marks ${formatChainage(cable.sheathMarks.first, definition.project.units)} and ${formatChainage(cable.sheathMarks.last, definition.project.units)}`
      : null,
    ...(cable.live ?? []).map(({ from, to, circuit }) => `Live: ${from}–${to}, ${circuit}. Do not cut.`),
  ].filter((one) => one !== null);
  return (
    <View>
      {words.map((line) => (
        <Type key={line} look="small" tone={line.startsWith('Live') ? 'accent' : 'soft'}>
          {line}
        </Type>
      ))}
    </View>
  );
}

/** The tubes and ribbons of the picture as a list, for those who do not tap on it. Only so many at once: the largest cables have hundreds. */
function UnitChoice({
  cable,
  chosen,
  onChoose,
}: {
  cable: Cable;
  chosen: number;
  onChoose: (unit: number) => void;
}) {
  const { palette } = useCordelTheme();
  const units = fiberUnits(cable.construction);
  const page = 24;
  const first = Math.floor((chosen - 1) / page) * page;
  return (
    <View style={styles.group}>
      <View role="radiogroup" aria-label="Tubes and ribbons" style={styles.units}>
        {units.slice(first, first + page).map((unit) => {
          const name = fiberName(cable, unit.first);
          return (
            <Pressable
              key={unit.unit}
              role="radio"
              aria-checked={unit.unit === chosen}
              aria-label={`${unit.kind} ${unit.unit} ${name.unitColor.code}, ${name.unitColor.name}`}
              onPress={() => onChoose(unit.unit)}
              style={[styles.unit, { borderColor: unit.unit === chosen ? palette.ink : palette.hairline }]}
            >
              <UnitToken unit={unit.unit} color={name.unitColor} kind={unit.kind} bare />
            </Pressable>
          );
        })}
      </View>
      {units.length > page ? (
        <View style={styles.row}>
          <Action label="Before" disabled={first === 0} onPress={() => onChoose(first)} style={styles.flex} />
          <Action
            label="After"
            disabled={first + page >= units.length}
            onPress={() => onChoose(first + page + 1)}
            style={styles.flex}
          />
        </View>
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  list: { paddingBottom: space.large },
  head: { padding: space.large, paddingLeft: gutter.width, gap: space.medium },
  picture: { alignItems: 'center' },
  group: { gap: space.tight },
  row: { flexDirection: 'row', gap: space.small },
  units: { flexDirection: 'row', flexWrap: 'wrap', gap: space.tight },
  unit: {
    minHeight: touch.normal,
    justifyContent: 'center',
    borderWidth: stroke.rule,
    paddingHorizontal: space.small,
  },
  fiber: {
    minHeight: touch.normal,
    flexDirection: 'row',
    alignItems: 'center',
    gap: space.large,
    paddingLeft: gutter.width,
    paddingRight: space.medium,
  },
  foot: { padding: space.small, flexDirection: 'row', gap: space.small },
  flex: { flex: 1 },
});
