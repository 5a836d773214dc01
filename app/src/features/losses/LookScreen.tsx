import { lossLimit, type ProjectDefinition } from '@cordel/core';
import { distributionOf, heatMapOf, usualAtMost, type Facet, type LossFilter } from '@cordel/core/losses';
import { router } from 'expo-router';
import { useCallback, useMemo, useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { useProject } from '../../data/projects';
import { CordNav } from '../../shell/frame/CordNav';
import { Panes } from '../../shell/frame/Panes';
import { Screen } from '../../shell/frame/Screen';
import { places } from '../../shell/places';
import { Action } from '../../ui/Action';
import { Choice } from '../../ui/Field';
import { InTurn } from '../../ui/InTurn';
import { ScreenOnly } from '../../ui/Paper';
import { Picker } from '../../ui/Picker';
import { Sheet } from '../../ui/Sheet';
import { Empty, Failed, Loading } from '../../ui/States';
import { useWide } from '../../ui/theme';
import { gutter, space } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import { DistributionChart } from './DistributionChart';
import { HeatMapChart } from './HeatMapChart';
import { Part, Tomorrow, Worst, Worth } from './LossLists';
import { PlacesChart } from './PlacesChart';
import { TimeChart } from './TimeChart';
import { useChoices, useLosses, usePlaces, useTime, type Losses } from './useLosses';

/** The losses to think with: how they are spread, ribbons by positions, the worst, and what is to be made again tomorrow; of all, or of what is chosen. */
export function LookScreen({
  projectId,
  filter,
  measured,
}: {
  projectId: string;
  filter: LossFilter;
  /** What was measured, in place of the estimates. */
  measured: boolean;
}) {
  const { data: definition, error, refetch } = useProject(projectId);
  const up = { href: places.losses(projectId), name: 'the losses' };
  if (!definition)
    return (
      <Screen title="Look at the losses" up={up}>
        {error ? <Failed error={error} onRetry={() => void refetch()} /> : <Loading what="the losses" />}
      </Screen>
    );
  return <Look definition={definition} filter={filter} measured={measured} />;
}

function Look({
  definition,
  filter: given,
  measured,
}: {
  definition: ProjectDefinition;
  filter: LossFilter;
  measured: boolean;
}) {
  const wide = useWide();
  const [choosing, setChoosing] = useState(false);
  // The same choices are the same object, whatever else of the address was read again.
  const written = JSON.stringify(given);
  const filter = useMemo(() => JSON.parse(written) as LossFilter, [written]);
  const losses = useLosses(definition, filter, measured);
  const { project } = definition;
  const choose = (name: Facet | 'of', value: string) =>
    router.setParams({ [name]: value === '' ? undefined : value });
  const filters = <Filters losses={losses} onChoose={choose} />;
  const said = `${measured ? 'Measured losses' : 'Estimated losses'} · ${wordsOf(filter, losses)}`;
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
              title={measured ? 'Nothing is measured yet' : 'Nothing is spliced yet'}
              text={
                measured
                  ? 'Measured losses are entered from a tray or a splice.'
                  : 'When the first splice is recorded, its loss stands here against the limits.'
              }
            />
          ) : (
            <Shown losses={losses} said={said} />
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
  losses,
  onChoose,
}: {
  losses: Losses;
  onChoose: (facet: Facet | 'of', value: string) => void;
}) {
  const { filter, measured, anyMeasured } = losses;
  const choices = useChoices(losses);
  return (
    <View style={styles.filters}>
      {anyMeasured || measured ? (
        <Choice
          label="Losses"
          options={[
            { value: '', label: 'Estimated' },
            { value: 'measured', label: 'Measured' },
          ]}
          value={measured ? 'measured' : ''}
          onChange={(value) => onChoose('of', value)}
        />
      ) : null}
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

function Shown({ losses, said }: { losses: Losses; said: string }) {
  const { definition, shown, measured } = losses;
  const { limits } = definition.project;
  const kinds = useMemo(() => new Set(shown.map(({ kind }) => kind)), [shown]);
  const spread = useMemo(() => distributionOf(shown, usualAtMost), [shown]);
  if (shown.length === 0)
    return (
      <Empty title="Nothing of that was spliced" text="Choose fewer things at once, or All of one of them." />
    );
  return (
    <>
      <Type look="small" tone="soft">
        {said}
      </Type>
      <ScreenOnly>
        <Action label="Print" onPress={() => window.print()} style={styles.left} />
      </ScreenOnly>
      <InTurn>
        <DistributionChart
          of={spread}
          limits={kinds.size === 1 ? [lossLimit([...kinds][0]!, limits)] : []}
          measured={measured}
        />
        <Places losses={losses} />
        {measured ? null : <InTime losses={losses} />}
        {kinds.has('ribbon') ? <Ribbons losses={losses} /> : null}
        <Worst losses={losses} />
        <Tomorrow losses={losses} />
        <Worth losses={losses} />
      </InTurn>
    </>
  );
}

function Places({ losses }: { losses: Losses }) {
  const rows = usePlaces(losses);
  const { id } = losses.definition.project;
  const open = useCallback(
    (closureId: string, tray: number, slot: number) =>
      router.navigate(places.bench(id, closureId, tray, slot)),
    [id],
  );
  return (
    <Part title="Every fiber in its place">
      <PlacesChart rows={rows} site={losses.names.site} measured={losses.measured} onOpen={open} />
    </Part>
  );
}

function InTime({ losses }: { losses: Losses }) {
  const { units, timeZone } = losses.definition.project;
  const { time, placeOf } = useTime(losses);
  if (time.points.length < 2) return null;
  return (
    <Part title="In the order of time">
      <TimeChart of={time} units={units} zone={timeZone} place={placeOf} machine={losses.names.machine} />
    </Part>
  );
}

function Ribbons({ losses: { shown, definition } }: { losses: Losses }) {
  const map = useMemo(() => heatMapOf(shown), [shown]);
  return (
    <Part title="Ribbons by positions">
      <HeatMapChart map={map} limit={definition.project.limits.ribbonFiberMax} />
    </Part>
  );
}

const styles = StyleSheet.create({
  body: { padding: space.large, paddingLeft: gutter.width, gap: space.large, maxWidth: 900 },
  side: { padding: space.large, gap: space.large },
  foot: { flexDirection: 'row', padding: space.small },
  grow: { flexGrow: 1, flexShrink: 1 },
  left: { alignSelf: 'flex-start' },
  filters: { gap: space.medium },
});
