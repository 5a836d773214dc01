import { cordOrder, siteOf, sumKits, type KitLine, type ProjectDefinition } from '@cordel/core';
import { useLocalSearchParams, router } from 'expo-router';
import { useMemo, useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { useProject } from '../../data/projects';
import { Action } from '../../ui/Action';
import { TextBox } from '../../ui/Field';
import { Panes } from '../../shell/frame/Panes';
import { Screen } from '../../shell/frame/Screen';
import { Empty, Failed, Loading } from '../../ui/States';
import { Tabs } from '../../shell/frame/Tabs';
import { useCordelTheme, useWide } from '../../ui/theme';
import { gutter, space, stroke } from '../../ui/tokens';
import { PrintOnly, ScreenOnly } from '../../ui/Paper';
import { TickRow } from '../../ui/TickRow';
import { Type } from '../../ui/Type';
import { csvText } from '../../shell/csv';
import { keptNights } from '../../shell/keptNights';
import { kitsOf, spares, spareShare } from '../../shell/kit/kits';
import { saveText } from '../../shell/download';
import { CordNav } from '../../shell/frame/CordNav';
import { PickWork } from '../../shell/PickWork';
import { places, projectTabs } from '../../shell/places';
import { useSchools } from '../../shell/steps/usePrepare';
import { useFactsOf } from '../../sync/react';
import { useKitTicks } from './useKitTicks';

/** What to bring: for one closure, or for all of the night. */
export function KitScreen({ projectId }: { projectId: string }) {
  const { data: definition, error, refetch } = useProject(projectId);
  if (!definition)
    return (
      <Screen title="Kit" up={{ href: places.line(projectId), name: 'the line' }}>
        {error ? <Failed error={error} onRetry={() => void refetch()} /> : <Loading what="the kit" />}
      </Screen>
    );
  return <KitAt definition={definition} />;
}

function KitAt({ definition }: { definition: ProjectDefinition }) {
  const { project } = definition;
  // A closure, or a crew's night of the plan that was kept.
  const asked = useLocalSearchParams<{ closure?: string; night?: string }>();
  const wide = useWide();
  const spareText = spares.use();
  const { spare, valid: spareValid } = spareShare(spareText);
  const nights = useMemo(() => keptNights(definition), [definition]);
  const night = nights.find(({ key }) => key === asked.night) ?? null;
  const chosen = definition.closures.find((one) => one.id === asked.closure);
  const closures = useMemo(
    () =>
      cordOrder(definition.sites).flatMap((site) =>
        definition.closures
          .filter((closure) => closure.siteId === site.id)
          .map((closure) => ({ closure, site })),
      ),
    [definition],
  );
  const schools = useSchools();
  const shown = useMemo(
    () =>
      closures.filter(({ closure }) =>
        chosen ? closure === chosen : !night || night.closureIds.includes(closure.id),
      ),
    [closures, chosen, night],
  );
  const known = useFactsOf(
    project.id,
    shown.map(({ closure }) => closure.id),
  );
  const kits = useMemo(
    () =>
      kitsOf(
        definition,
        shown.map(({ closure }) => closure),
        known.facts,
        spare,
        schools,
      ),
    [definition, shown, spare, schools, known.facts],
  );
  const lines = useMemo(
    (): readonly KitLine[] => (chosen ? (kits[0]?.lines ?? []) : sumKits(kits, { sparePercent: spare })),
    [kits, chosen, spare],
  );
  const ticks = useKitTicks(project.id, kits, known);
  const isTicked = (line: KitLine) => ticks.isTicked(line.item);
  const packed = lines.filter(isTicked).length;
  const title = chosen
    ? `Kit · ${siteOf(definition.sites, chosen.siteId).name}`
    : night
      ? `Kit · ${night.label}`
      : 'Kit for the night';
  const csv = async () =>
    saveText(
      await csvText([
        ['Item', 'Needed (pieces)', 'Spare (pieces)', 'To bring (pieces)', 'How it was counted', 'Packed'],
        ...lines.map((line) => [
          line.name,
          line.count,
          line.spare,
          line.count + line.spare,
          line.how,
          isTicked(line) ? 'yes' : '',
        ]),
      ]),
      `${project.name} ${title}.csv`,
      'text/csv;charset=utf-8',
    );

  return (
    <Panes cord={<CordNav definition={definition} tab="kit" />}>
      <Screen
        title={title}
        subtitle={ticks.ready ? `${packed} of ${lines.length} packed` : `${lines.length} to pack`}
        up={
          chosen
            ? { href: places.closure(project.id, chosen.id), name: 'the closure' }
            : { href: places.line(project.id), name: 'the line' }
        }
        foot={wide ? null : <Tabs tabs={projectTabs(project.id, 'kit')} />}
      >
        <ScrollView contentContainerStyle={styles.list}>
          <View style={styles.ask}>
            <PickWork
              definition={definition}
              closures={closures.map(({ closure }) => closure)}
              nights={nights}
              night={night}
              closureId={chosen?.id}
            />
            <TextBox
              label="Spares"
              unit="%"
              keyboard="decimal"
              value={spareText}
              onChangeText={spares.set}
              trouble={spareValid ? undefined : 'Give a share from 0 to 200 percent.'}
            />
          </View>
          {lines.length === 0 ? (
            <Empty
              title="Nothing to bring yet"
              text="The kit follows from the plans: put closures at the sites and give them an order."
            >
              <Action label="To the line" onPress={() => router.navigate(places.line(project.id))} />
            </Empty>
          ) : null}
          {ticks.error && !ticks.ready ? <Failed error={ticks.error} onRetry={ticks.retry} /> : null}
          {lines.map((line) => (
            <KitRow
              key={line.item}
              line={line}
              ticked={isTicked(line)}
              disabled={!ticks.ready}
              onTick={() => ticks.set([line.item], !isTicked(line))}
            />
          ))}
          {lines.length > 0 ? (
            <View style={styles.ways}>
              <Action icon="download" label="Kit list (CSV)" onPress={() => void csv()} />
              <Action label="Print" onPress={() => window.print()} />
              <Action
                label="Untick all"
                disabled={packed === 0}
                onPress={() =>
                  ticks.set(
                    lines.filter(isTicked).map((line) => line.item),
                    false,
                  )
                }
              />
            </View>
          ) : null}
          <Type look="small" tone="soft" style={styles.note}>
            Counts that do not follow from the plan are common practice. A maker’s instruction and the owner’s
            specification come first. What is ticked here is ticked for everybody, and in the lists before a
            blade comes out.
          </Type>
        </ScrollView>
      </Screen>
    </Panes>
  );
}

/** What to bring and how many; where that comes from in one line, all of it with a tap. */
function KitRow({
  line,
  ticked,
  disabled,
  onTick,
}: {
  line: KitLine;
  ticked: boolean;
  disabled: boolean;
  onTick: () => void;
}) {
  const { palette, textScale } = useCordelTheme();
  const wide = useWide();
  const [open, setOpen] = useState(false);
  const how = `${line.how}${line.spare > 0 ? `; ${line.spare} spare` : ''}`;
  const long = how.length > shortHow[wide ? 'wide' : 'phone'];
  const all = (
    <Type look="small" tone="soft">
      {how}
    </Type>
  );
  return (
    <View style={[styles.line, { borderBottomColor: palette.hairline }]}>
      <TickRow ticked={ticked} disabled={disabled} onPress={onTick}>
        <View style={styles.row}>
          <Type look="key" style={styles.count}>
            {line.count + line.spare}
          </Type>
          <View style={styles.flex}>
            <Type look="strong">{line.name}</Type>
            {long && !open ? (
              <>
                {textScale > 1.2 ? null : (
                  <ScreenOnly>
                    <Type look="small" tone="soft" numberOfLines={1}>
                      {how}
                    </Type>
                  </ScreenOnly>
                )}
                <PrintOnly>{all}</PrintOnly>
              </>
            ) : (
              all
            )}
          </View>
        </View>
      </TickRow>
      {long ? (
        <Action
          kind="plain"
          label={open ? 'Less' : 'How'}
          spoken={`${open ? 'Less' : 'How'}: ${line.name}`}
          onPress={() => setOpen(!open)}
          style={styles.how}
        />
      ) : null}
    </View>
  );
}

/** Characters of where a count comes from that stand in one line. */
const shortHow = { phone: 34, wide: 100 };

const styles = StyleSheet.create({
  list: { paddingBottom: space.large },
  ask: { padding: space.large, paddingLeft: gutter.width, gap: space.medium, maxWidth: 760 },
  line: { flexDirection: 'row', paddingHorizontal: space.medium, borderBottomWidth: stroke.hair },
  row: { flexDirection: 'row', alignItems: 'center', gap: space.medium },
  count: { minWidth: 56, textAlign: 'right' },
  flex: { flex: 1 },
  how: { alignSelf: 'center' },
  ways: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small, padding: space.large },
  note: { paddingHorizontal: space.large },
});
