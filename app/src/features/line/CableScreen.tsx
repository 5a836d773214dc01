import {
  colorAt,
  fiberCount,
  fiberName,
  fiberOf,
  fibersByColor,
  fiberUnits,
  formatChainage,
  formatMillimeters,
  schemeOf,
  siteOf,
  type Cable,
  type FiberName,
  type ProjectDefinition,
} from '@cordel/core';
import { router } from 'expo-router';
import { useMemo, useState } from 'react';
import { FlatList, Pressable, ScrollView, StyleSheet, useWindowDimensions, View } from 'react-native';
import { useProject } from '../../data/projects';
import { Action } from '../../ui/Action';
import { CrossSection } from '../../ui/CrossSection';
import { FiberToken, GlassCapsule, HolderTokens, spokenFiber, UnitToken } from '../../ui/FiberToken';
import { TextBox } from '../../ui/Field';
import { Panes } from '../../ui/Panes';
import { Screen } from '../../ui/Screen';
import { Empty, Failed, Loading } from '../../ui/States';
import { useCordelTheme, useWide } from '../../ui/theme';
import { gutter, space, stroke, touch } from '../../ui/tokens';
import { SpokenOnly, Type } from '../../ui/Type';
import { constructionWords } from './cableWords';
import { CordNav } from './CordNav';
import { places } from './places';

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
  const finder = <Finder cable={cable} onFound={(name) => setChosen(name.unit)} />;
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
      modeField === null ? null : `mode field ${modeField} µm`,
      cable.diameter === undefined
        ? null
        : `${formatMillimeters(cable.diameter, definition.project.units)} thick`,
      cable.excess === undefined ? null : `${+(cable.excess * 100).toFixed(1)} % excess`,
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

/** Number to colors, and colors to number. */
function Finder({ cable, onFound }: { cable: Cable; onFound: (name: FiberName) => void }) {
  const count = fiberCount(cable.construction);
  const [number, setNumber] = useState('');
  const [unitCode, setUnitCode] = useState<string | null>(null);
  const [fiberCode, setFiberCode] = useState<string | null>(null);
  const scheme = schemeOf(cable);
  const units = fiberUnits(cable.construction);

  const wanted = Number(number);
  const valid = Number.isInteger(wanted) && wanted >= 1 && wanted <= count;
  const name = number.trim() !== '' && valid ? fiberName(cable, wanted) : null;
  const mostFibers = Math.max(...units.map((unit) => unit.groupSize ?? unit.fibers));
  const unitColors = [
    ...new Map(
      units.map((unit) => {
        const color = colorAt(scheme, unit.inTube ?? unit.unit);
        return [color.code, color];
      }),
    ).values(),
  ];
  const found =
    fiberCode !== null
      ? fibersByColor(cable, {
          ...(unitCode && units[0]!.kind !== 'bundle' ? { unit: unitCode } : {}),
          fiber: fiberCode,
        })
      : [];
  return (
    <View style={styles.finder}>
      <Type look="heading" role="heading" aria-level={2}>
        Which fiber is this?
      </Type>
      <TextBox
        label={`Number, 1 to ${count}`}
        keyboard="numeric"
        value={number}
        onChangeText={setNumber}
        trouble={
          number.trim() !== '' && !valid
            ? `The cable has fibers 1 to ${count}. Give one of these numbers.`
            : undefined
        }
      />
      {name ? <Found name={name} onFound={onFound} /> : null}
      <Type look="smallStrong">Or by its colors</Type>
      {units[0]!.kind !== 'bundle' ? (
        <Swatches
          label={units[0]!.kind === 'tube' ? 'Tube' : 'Ribbon'}
          colors={unitColors.slice(0, 36)}
          chosen={unitCode}
          onChoose={setUnitCode}
        />
      ) : null}
      <Swatches
        label="Fiber"
        colors={Array.from({ length: mostFibers }, (_, index) => colorAt(scheme, index + 1))}
        chosen={fiberCode}
        onChoose={setFiberCode}
      />
      {found.slice(0, 24).map((one) => (
        <Found key={one.number} name={one} onFound={onFound} />
      ))}
      {fiberCode !== null && found.length === 0 ? (
        <Type>No fiber of this cable has these colors.</Type>
      ) : null}
      {found.length > 24 ? (
        <Type look="small" tone="soft">
          And {found.length - 24} more. Pick the tube’s color too.
        </Type>
      ) : null}
    </View>
  );
}

function Found({ name, onFound }: { name: FiberName; onFound: (name: FiberName) => void }) {
  const { palette } = useCordelTheme();
  return (
    <Pressable
      role="button"
      onPress={() => onFound(name)}
      style={[styles.found, { borderColor: palette.ink, backgroundColor: palette.sheet }]}
    >
      <Type look="reading">{name.number}</Type>
      <HolderTokens name={name} />
      <FiberToken name={name} />
      <SpokenOnly text={`, show ${spokenFiber(name)}`} />
    </Pressable>
  );
}

function Swatches({
  label,
  colors,
  chosen,
  onChoose,
}: {
  label: string;
  colors: readonly ReturnType<typeof colorAt>[];
  chosen: string | null;
  onChoose: (code: string | null) => void;
}) {
  const { palette } = useCordelTheme();
  return (
    <View role="group" aria-label={`${label} color`} style={styles.group}>
      <Type look="small" tone="soft">
        {label}
      </Type>
      <View style={styles.units}>
        {colors.map((color) => (
          <Pressable
            key={color.code}
            role="button"
            aria-pressed={color.code === chosen}
            aria-label={`${label} ${color.code}, ${color.name}`}
            onPress={() => onChoose(color.code === chosen ? null : color.code)}
            style={[styles.swatch, { borderColor: color.code === chosen ? palette.ink : 'transparent' }]}
          >
            <GlassCapsule color={color} size="tube" />
            <Type look="small">{color.code}</Type>
          </Pressable>
        ))}
      </View>
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
  finder: { padding: space.large, gap: space.medium },
  found: {
    flexDirection: 'row',
    flexWrap: 'wrap',
    alignItems: 'center',
    columnGap: space.large,
    rowGap: space.tight,
    minHeight: touch.normal,
    borderWidth: stroke.rule,
    padding: space.small,
  },
  swatch: {
    minHeight: touch.normal,
    minWidth: touch.normal,
    alignItems: 'center',
    justifyContent: 'center',
    borderWidth: stroke.rule,
    paddingHorizontal: space.tight,
  },
  foot: { padding: space.small, flexDirection: 'row', gap: space.small },
  flex: { flex: 1 },
});
