import { fiberCount, siteOf, sumKits, type Closure, type ProjectDefinition } from '@cordel/core';
import { cautionsFor, minutes } from '@cordel/core/prepare';
import type { PlannedNight } from '@cordel/core/schedule';
import { useMemo } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { cablesOf, planOf } from '../../../data/ledger';
import { useProject } from '../../../data/projects';
import { CordNav } from '../../../shell/frame/CordNav';
import { Panes } from '../../../shell/frame/Panes';
import { Screen } from '../../../shell/frame/Screen';
import { kitsOf, spares, spareShare } from '../../../shell/kit/kits';
import { places } from '../../../shell/places';
import { useSchools } from '../../../shell/steps/usePrepare';
import { useFactsOf } from '../../../sync/react';
import { Action } from '../../../ui/Action';
import { Caution } from '../../../ui/Caution';
import { ScreenOnly } from '../../../ui/Paper';
import { Empty, Failed, Loading } from '../../../ui/States';
import { useCordelTheme } from '../../../ui/theme';
import { clockTime, dayAndTime } from '../../../ui/times';
import { gutter, space, stroke } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import { useNightsPage } from '../useNightsPage';
import { closureName, crewName, nightName, percent, spanOf } from '../words';

/** What a crew does in one night and takes along, to be printed. */
export function CrewSheetScreen({
  projectId,
  night,
  crew,
}: {
  projectId: string;
  night?: string;
  crew?: string;
}) {
  const { data: definition, error, refetch } = useProject(projectId);
  const up = { href: places.nights(projectId), name: 'the nights' };
  if (!definition)
    return (
      <Screen title="Crew’s sheet" up={up}>
        {error ? <Failed error={error} onRetry={() => void refetch()} /> : <Loading what="the sheet" />}
      </Screen>
    );
  return (
    <Panes cord={<CordNav definition={definition} tab="line" />}>
      <SheetAt definition={definition} nightId={night ?? ''} crewId={crew ?? ''} />
    </Panes>
  );
}

function SheetAt({
  definition,
  nightId,
  crewId,
}: {
  definition: ProjectDefinition;
  nightId: string;
  crewId: string;
}) {
  const { project } = definition;
  const zone = project.timeZone;
  const page = useNightsPage(definition);
  const { answer } = page;
  const planned = answer?.planned.filter((one) => one.crewId === crewId) ?? [];
  const at = planned.findIndex((one) => one.nightId === nightId);
  const plan = planned[at];
  return (
    <Screen
      title={`${crewName(definition, crewId)}${plan ? `, ${nightName(plan, zone)}` : ''}`}
      subtitle={project.name}
      up={{ href: places.nights(project.id), name: 'the nights' }}
    >
      <ScrollView contentContainerStyle={styles.list}>
        {(page.failed ?? page.error) ? (
          <Failed error={(page.failed ?? page.error)!} onRetry={page.retry} />
        ) : !answer ? (
          <Loading what="the plan" />
        ) : !plan ? (
          <Empty
            title="Nothing is planned here"
            text="This crew has nothing to do in this night by now, or the night is over. The nights say who does what."
          />
        ) : (
          <CrewNight definition={definition} plan={plan} before={planned[at - 1]} />
        )}
      </ScrollView>
    </Screen>
  );
}

const noFacts: never[] = [];

function CrewNight({
  definition,
  plan,
  before,
}: {
  definition: ProjectDefinition;
  plan: PlannedNight;
  /** The crew's night before it. */
  before: PlannedNight | undefined;
}) {
  const { palette } = useCordelTheme();
  const { project } = definition;
  const zone = project.timeZone;
  const crew = project.nights?.crews.find(({ id }) => id === plan.crewId);
  return (
    <>
      <View style={styles.lines}>
        {plan.leaves === null ? null : (
          <Type look="heading">
            {`Leave ${crew?.startSiteId ? siteOf(definition.sites, crew.startSiteId).name : ''} by ${clockTime(plan.leaves, zone)}`}
          </Type>
        )}
        <Type>{`The night is open ${spanOf({ begins: plan.opens, ends: plan.closes }, zone)}. All of it is done at ${clockTime(plan.ends, zone)}, ${percent(plan.chance)} in time; ${minutes(plan.travel)} on the way.`}</Type>
        <Type>{`${crew?.people.join(', ') ?? ''}. ${plan.machines.length > 0 ? `Machines: ${plan.machines.join(', ')}.` : 'No machine.'}`}</Type>
      </View>
      {plan.stops.map((stop, index) => {
        const closure = definition.closures.find(({ id }) => id === stop.closureId);
        return (
          <View
            key={stop.job}
            role="group"
            aria-label={closureName(definition, stop.closureId)}
            style={[styles.stop, { borderTopColor: palette.ink }]}
          >
            <View style={styles.head}>
              <Type look="heading" role="heading" aria-level={2} style={styles.grow}>
                {`${index + 1}. ${closureName(definition, stop.closureId)}`}
              </Type>
              <Type look="reading">{spanOf(stop, zone)}</Type>
            </View>
            {stop.part ? <Type look="strong">{`Only: ${stop.part.words}`}</Type> : null}
            {stop.backBy === null ? null : (
              <Type look="strong">{`Its circuits are back by ${clockTime(stop.backBy, zone)}.`}</Type>
            )}
            {stop.holdingFrom === null ? null : (
              <Type>{`Its holding test can be read from ${dayAndTime(stop.holdingFrom, zone)}.`}</Type>
            )}
            {closure ? <AtClosure definition={definition} closure={closure} /> : null}
          </View>
        );
      })}
      <Kit definition={definition} plan={plan} before={before} />
      {crew?.contacts.trim() ? (
        <View style={styles.lines}>
          <Type look="heading" role="heading" aria-level={2}>
            Contacts
          </Type>
          <Type>{crew.contacts}</Type>
        </View>
      ) : null}
      <ScreenOnly>
        <Action label="Print" onPress={() => window.print()} />
      </ScreenOnly>
      <Type look="small" tone="soft">
        The plan as it stood when this was made. Local rules, the owner’s permits and the road come first.
      </Type>
    </>
  );
}

/** Its cables, and the cautions of the place. */
function AtClosure({ definition, closure }: { definition: ProjectDefinition; closure: Closure }) {
  const cables = cablesOf(definition);
  const site = siteOf(definition.sites, closure.siteId);
  const cautions = cautionsFor(site, closure, planOf(closure, definition), cables);
  return (
    <>
      {closure.entries.map(({ cableId, manner }) => {
        const cable = cables.get(cableId);
        if (!cable) return null;
        const live = cable.live?.map(({ from, to, circuit }) => `${from} to ${to} ${circuit}`) ?? [];
        return (
          <Type key={cableId} look="small">
            {`${cable.label}: ${fiberCount(cable.construction)} fibers, ${manner}${live.length > 0 ? `; live: ${live.join(', ')}` : ''}`}
          </Type>
        );
      })}
      {cautions.map(({ id, text }) => (
        <Caution key={id} text={text} />
      ))}
    </>
  );
}

/** What this night uses up, with what the night before leaves over of its spares. */
function Kit({
  definition,
  plan,
  before,
}: {
  definition: ProjectDefinition;
  plan: PlannedNight;
  before: PlannedNight | undefined;
}) {
  const { palette } = useCordelTheme();
  const schools = useSchools();
  const { spare } = spareShare(spares.use());
  const [own, earlier] = useMemo(
    () =>
      [plan, before].map((night) =>
        [...new Set(night?.stops.map(({ closureId }) => closureId))].flatMap(
          (id) => definition.closures.find((closure) => closure.id === id) ?? [],
        ),
      ) as [Closure[], Closure[]],
    [definition, plan, before],
  );
  const known = useFactsOf(
    definition.project.id,
    [...own, ...earlier].map(({ id }) => id),
  );
  const facts = known.facts ?? noFacts;
  const lines = useMemo(() => {
    const of = (closures: readonly Closure[], from: number) =>
      sumKits(kitsOf(definition, closures, facts.slice(from), spare, schools), { sparePercent: spare });
    const over = new Map(of(earlier, own.length).map((line) => [line.item, line.spare]));
    return of(own, 0).map((line) => {
      const carried = Math.min(line.spare, over.get(line.item) ?? 0);
      return { ...line, carried, bring: line.count + line.spare - carried };
    });
  }, [definition, facts, own, earlier, spare, schools]);
  return (
    <View role="group" aria-label="Kit">
      <Type look="heading" role="heading" aria-level={2}>
        Kit
      </Type>
      {lines.map((line) => (
        <View key={line.item} style={[styles.kit, { borderBottomColor: palette.hairline }]}>
          <Type look="strong" style={styles.count}>
            {line.bring}
          </Type>
          <Type style={styles.grow}>
            {line.carried > 0
              ? `${line.name} (and ${line.carried} left over from ${nightName(before!, definition.project.timeZone)})`
              : line.name}
          </Type>
        </View>
      ))}
      {lines.length === 0 ? <Type>Nothing that is used up.</Type> : null}
    </View>
  );
}

const styles = StyleSheet.create({
  list: { padding: space.large, paddingLeft: gutter.width, gap: space.large, maxWidth: 820 },
  lines: { gap: space.tight },
  stop: { borderTopWidth: stroke.rule, paddingTop: space.small, gap: space.small },
  head: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'baseline', columnGap: space.medium },
  grow: { flexGrow: 1, flexShrink: 1 },
  kit: {
    flexDirection: 'row',
    gap: space.medium,
    borderBottomWidth: stroke.hair,
    paddingVertical: space.tight,
  },
  count: { minWidth: 48, textAlign: 'right' },
});
