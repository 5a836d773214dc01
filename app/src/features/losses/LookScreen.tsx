import { formatLoss, lossLimit, type ProjectDefinition } from '@cordel/core';
import {
  distributionOf,
  heatMapOf,
  usualAtMost,
  type Facet,
  type LossFilter,
  type LossRow,
} from '@cordel/core/losses';
import { router } from 'expo-router';
import { useMemo, useState } from 'react';
import { Pressable, ScrollView, StyleSheet, View } from 'react-native';
import { useProject } from '../../data/projects';
import { CordNav } from '../../shell/frame/CordNav';
import { Panes } from '../../shell/frame/Panes';
import { Screen } from '../../shell/frame/Screen';
import { places } from '../../shell/places';
import { Action } from '../../ui/Action';
import { Knot } from '../../ui/Knot';
import { Picker } from '../../ui/Picker';
import { Sheet } from '../../ui/Sheet';
import { Empty, Failed, Loading } from '../../ui/States';
import { useCordelTheme, useWide } from '../../ui/theme';
import { gutter, space, stroke, touch } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import { DistributionChart } from './DistributionChart';
import { HeatMapChart } from './HeatMapChart';
import { useLosses, type FacetShown, type Losses } from './useLosses';

/** The losses to think with: how they are spread, ribbons by positions, the worst, and what is to be made again tomorrow; of all, or of what is chosen. */
export function LookScreen({ projectId }: { projectId: string }) {
  const { data: definition, error, refetch } = useProject(projectId);
  const up = { href: places.losses(projectId), name: 'the losses' };
  if (!definition)
    return (
      <Screen title="Look at the losses" up={up}>
        {error ? <Failed error={error} onRetry={() => void refetch()} /> : <Loading what="the losses" />}
      </Screen>
    );
  return <Look definition={definition} />;
}

function Look({ definition }: { definition: ProjectDefinition }) {
  const wide = useWide();
  const [filter, setFilter] = useState<LossFilter>({});
  const [choosing, setChoosing] = useState(false);
  const losses = useLosses(definition, filter);
  const { project } = definition;
  const choose = (facet: Facet, value: string) => {
    const { [facet]: _, ...others } = filter;
    setFilter(value === '' ? others : { ...others, [facet]: value });
  };
  const filters = <Filters choices={losses.choices} filter={filter} onChoose={choose} />;
  const said = wordsOf(filter, losses);
  return (
    <Panes
      cord={<CordNav definition={definition} tab="losses" />}
      ledger={
        wide ? (
          <ScrollView contentContainerStyle={styles.side}>
            <Type look="heading" role="heading" aria-level={2}>
              What is looked at
            </Type>
            {filters}
          </ScrollView>
        ) : null
      }
    >
      <Screen
        title="Look at the losses"
        subtitle={project.name}
        up={{ href: places.losses(project.id), name: 'the losses' }}
        foot={
          wide ? null : (
            <View style={styles.foot}>
              <Action
                bench
                label="Choose what is looked at"
                detail={said}
                onPress={() => setChoosing(true)}
                style={styles.grow}
              />
            </View>
          )
        }
      >
        <ScrollView tabIndex={0} contentContainerStyle={styles.body}>
          {losses.rows === null ? (
            losses.error ? (
              <Failed error={losses.error} onRetry={losses.retry} />
            ) : (
              <Loading what="the losses" />
            )
          ) : losses.rows.length === 0 ? (
            <Empty
              title="Nothing is spliced yet"
              text="When the first splice is recorded, its loss stands here against the limits."
            />
          ) : (
            <Shown definition={definition} losses={losses} said={said} />
          )}
        </ScrollView>
      </Screen>
      {choosing ? (
        <Sheet title="What is looked at" open onClose={() => setChoosing(false)}>
          {filters}
          <Action bench kind="now" label="Look at these" onPress={() => setChoosing(false)} />
        </Sheet>
      ) : null}
    </Panes>
  );
}

function wordsOf(filter: LossFilter, { names }: Losses): string {
  const parts = (Object.entries(filter) as [Facet, string][]).map(([facet, value]) =>
    facet === 'position' ? `position ${value}` : names[facet](value),
  );
  return parts.length === 0 ? 'All that was spliced' : parts.join(' · ');
}

function Filters({
  choices,
  filter,
  onChoose,
}: {
  choices: readonly FacetShown[];
  filter: LossFilter;
  onChoose: (facet: Facet, value: string) => void;
}) {
  return (
    <View style={styles.filters}>
      {choices.map(({ facet, title, choices: options }) => (
        <Picker
          key={facet}
          label={title}
          options={options}
          value={filter[facet] ?? ''}
          onChange={(value) => onChoose(facet, value)}
          most={5}
        />
      ))}
    </View>
  );
}

function Shown({
  definition,
  losses,
  said,
}: {
  definition: ProjectDefinition;
  losses: Losses;
  said: string;
}) {
  const { shown, names, tomorrow } = losses;
  const { limits, id } = definition.project;
  const kinds = useMemo(() => new Set(shown.map(({ kind }) => kind)), [shown]);
  const spread = useMemo(() => distributionOf(shown, usualAtMost), [shown]);
  const map = useMemo(() => heatMapOf(shown), [shown]);
  const worst = useMemo(
    () => [...shown].sort((a, b) => (b.loss ?? Infinity) - (a.loss ?? Infinity)).slice(0, 10),
    [shown],
  );
  if (shown.length === 0)
    return (
      <Empty title="Nothing of that was spliced" text="Choose fewer things at once, or All of one of them." />
    );
  return (
    <>
      <Type look="small" tone="soft">
        {said}
      </Type>
      <DistributionChart of={spread} limits={kinds.size === 1 ? [lossLimit([...kinds][0]!, limits)] : []} />
      {map.ribbons.length > 0 ? (
        <Part title="Ribbons by positions">
          <HeatMapChart map={map} limit={limits.ribbonFiberMax} />
        </Part>
      ) : null}
      <Part title="The worst">
        {worst.map((row) => (
          <WorstRow
            key={`${row.spliceId} ${row.position}`}
            row={row}
            site={names.site(row.closureId)}
            projectId={id}
          />
        ))}
      </Part>
      {tomorrow ? (
        <Part title="The list for tomorrow">
          {tomorrow.splices === 0 ? (
            <Type>Nothing is to be made again.</Type>
          ) : (
            <Type>
              {`${tomorrow.splices === 1 ? '1 splice is' : `${tomorrow.splices} splices are`} to be made again, ${tomorrow.reopenings === 0 ? 'none of them under a seal' : `with ${tomorrow.reopenings === 1 ? '1 closure' : `${tomorrow.reopenings} closures`} to be opened for it`}. In the order of least reopening:`}
            </Type>
          )}
          {tomorrow.closures.map(({ closureId, reopen, trays }) => (
            <View key={closureId} style={styles.closure}>
              <Type look="strong">{`${names.site(closureId)}${reopen ? ', to be opened again' : ''}`}</Type>
              {trays.flatMap(({ splices }) =>
                splices.map(({ splice, readings }) => (
                  <Action
                    key={splice.id}
                    bench
                    label={`Tray ${splice.tray}, slot ${splice.slot}`}
                    detail={
                      readings.every(({ loss }) => loss === null)
                        ? 'broke'
                        : `reads ${formatLoss(Math.max(...readings.map(({ loss }) => loss ?? 0)))} dB`
                    }
                    onPress={() => router.navigate(places.bench(id, closureId, splice.tray, splice.slot))}
                  />
                )),
              )}
            </View>
          ))}
        </Part>
      ) : null}
    </>
  );
}

function Part({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <View style={styles.part}>
      <Type look="heading" role="heading" aria-level={2}>
        {title}
      </Type>
      {children}
    </View>
  );
}

function WorstRow({ row, site, projectId }: { row: LossRow; site: string; projectId: string }) {
  const { palette } = useCordelTheme();
  const { loss, tray, slot, kind, position, mark } = row;
  return (
    <Pressable
      role="link"
      onPress={() => router.navigate(places.bench(projectId, row.closureId, tray, slot))}
      style={[styles.worst, { borderColor: palette.hairline }]}
    >
      <Knot mark={mark} size={22} />
      <Type style={styles.place}>
        {`${site}, tray ${tray}, slot ${slot}${kind === 'ribbon' ? `, position ${position}` : ''}`}
      </Type>
      <Type look="reading" tone={row.over ? 'accent' : 'ink'}>
        {loss === null ? 'broke' : `${formatLoss(loss)} dB`}
      </Type>
    </Pressable>
  );
}

const styles = StyleSheet.create({
  body: { padding: space.large, paddingLeft: gutter.width, gap: space.large, maxWidth: 900 },
  side: { padding: space.large, gap: space.large },
  foot: { flexDirection: 'row', padding: space.small },
  grow: { flexGrow: 1, flexShrink: 1 },
  place: { flex: 1 },
  filters: { gap: space.medium },
  part: { gap: space.small },
  closure: { gap: space.small },
  worst: {
    flexDirection: 'row',
    alignItems: 'center',
    gap: space.small,
    minHeight: touch.bench,
    borderBottomWidth: stroke.hair,
  },
});
