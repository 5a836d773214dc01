import { isOpened, measuredDiameters, siteOf, type Cable } from '@cordel/core';
import {
  cautionsFor,
  endState,
  itemsFor,
  marksProgress,
  prepareFindingWords,
  readiness,
  sealPlan,
  stepsFor,
  stepsProgress,
  type EndState,
  type Progress,
} from '@cordel/core/prepare';
import { isSealed } from '@cordel/core/seal';
import { router } from 'expo-router';
import { ScrollView, StyleSheet, View } from 'react-native';
import { Action } from '../../ui/Action';
import { CordRow, type Stretch } from '../../ui/Cord';
import { Knot } from '../../ui/Knot';
import { Screen } from '../../shell/frame/Screen';
import { gutter, space } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import { constructionWords } from '../../shell/cableWords';
import { places } from '../../shell/places';
import { AtClosure, PreparePanes, type AtHand } from '../../shell/steps/AtClosure';
import { endingOf } from '../../shell/steps/ending';
import { endCalled } from './connectors/endCalled';
import { SchoolsPart } from './steps/SchoolsPart';
import { cablesOf } from '../../data/ledger';
import { mannerWords, seatOf, sheetOf, useSchools } from '../../shell/steps/usePrepare';

/** The preparation of a closure on its cord: before a blade comes out, each cable, the seals, and what comes after. */
export function PrepareScreen({ projectId, closureId }: { projectId: string; closureId: string }) {
  return (
    <AtClosure projectId={projectId} closureId={closureId} title="Prepare">
      {(atHand) => <PrepareAt atHand={atHand} />}
    </AtClosure>
  );
}

interface Stage {
  readonly key: string;
  readonly title: string;
  readonly words: string;
  readonly done: boolean;
  readonly wrong?: string | null;
  readonly ways: readonly { readonly label: string; readonly spoken: string; readonly go: () => void }[];
}

function PrepareAt({ atHand }: { atHand: AtHand }) {
  const { projectId, siteName, closure } = atHand;
  const stages = useStages(atHand);
  const next = stages.find((stage) => !stage.done);
  const { cables, ledger, facts, preparing } = atHand;
  const diameters = measuredDiameters(closure, preparing.state);
  const sealed = isSealed({ closure, plan: ledger.plan, cables, diameters, facts });
  const stretch = (done: boolean): Stretch => (done ? 'done' : 'open');
  return (
    <PreparePanes atHand={atHand}>
      <Screen
        title={`Prepare · ${siteName}`}
        subtitle={`${stages.filter((stage) => stage.done).length} of ${stages.length} done`}
        up={{ href: places.closure(projectId, closure.id), name: 'the closure' }}
        foot={
          <View style={styles.foot}>
            {next ? (
              <Action bench kind="now" label={`Next: ${next.title}`} onPress={next.ways[0]!.go} />
            ) : (
              <Action
                bench
                kind="now"
                label="To the trays"
                onPress={() => router.navigate(places.closure(projectId, closure.id))}
              />
            )}
          </View>
        }
      >
        <ScrollView contentContainerStyle={styles.list}>
          {stages.map((stage, index) => (
            <CordRow
              key={stage.key}
              above={index === 0 ? 'none' : stretch(stages[index - 1]!.done)}
              below={stretch(stage.done)}
              knot={<Knot mark={stage.wrong ? 'redo' : stage.done ? 'holds' : 'open'} size={24} />}
              knotSize={24}
              knotAt={30}
            >
              <View style={styles.stage}>
                <Type look="heading" role="heading" aria-level={2}>
                  {stage.title}
                </Type>
                <Type look="small" tone="soft">
                  {stage.words}
                </Type>
                {stage.wrong ? (
                  <Type look="small" tone="accent">
                    {stage.wrong}
                  </Type>
                ) : null}
                <View style={styles.ways}>
                  {stage.ways.map(({ label, spoken, go }) => (
                    <Action key={label} label={label} spoken={spoken} onPress={go} />
                  ))}
                </View>
              </View>
            </CordRow>
          ))}
          <CordRow
            above="open"
            below="none"
            knot={<Knot mark={sealed ? 'holds' : 'open'} size={24} />}
            knotSize={24}
            knotAt={30}
          >
            <View style={styles.stage}>
              <Type look="heading" role="heading" aria-level={2}>
                Sealed and tested
              </Type>
              <Type look="small" tone="soft">
                {sealed ? 'Sealed.' : 'Comes after the splices: final look, caps, flash test.'}
              </Type>
              <View style={styles.ways}>
                <Action label="Seal" onPress={() => router.navigate(places.seal(projectId, closure.id))} />
              </View>
            </View>
          </CordRow>
          <View style={styles.more}>
            <SchoolsPart />
            <View style={styles.ways}>
              <Action
                label="How long it takes"
                onPress={() => router.navigate(places.time(projectId, closure.id))}
              />
              <Action
                label="The closure’s table"
                detail="Lengths, ports and seal parts"
                onPress={() => router.navigate(places.table(projectId, closure.id))}
              />
            </View>
          </View>
        </ScrollView>
      </Screen>
    </PreparePanes>
  );
}

function useStages(atHand: AtHand): Stage[] {
  const { projectId, closure, definition, cables, ledger } = atHand;
  const { state } = atHand.preparing;
  const schools = useSchools();
  const { plan } = ledger;
  const site = siteOf(definition.sites, closure.siteId);
  const ready = readiness(
    itemsFor(closure, plan, cables, schools, measuredDiameters(closure, state)),
    cautionsFor(site, closure, plan, cables),
    state,
  );
  const stages: Stage[] = [
    {
      key: 'before',
      title: 'Before a blade comes out',
      words: [
        ready.open.length > 0 ? `${ready.open.length} things not looked at` : 'everything looked at',
        ready.openCautions.length > 0
          ? `${ready.openCautions.length} of ${ready.cautions.length} cautions open`
          : ready.cautions.length > 0
            ? 'cautions ticked'
            : null,
      ]
        .filter(Boolean)
        .join(' · '),
      done: ready.open.length === 0 && ready.openCautions.length === 0,
      wrong:
        ready.missing.length > 0
          ? `Missing: ${ready.missing.map(({ name, stops }) => `${name} (stops ${stops})`).join(', ')}.`
          : null,
      ways: [
        {
          label: 'Check the lists',
          spoken: 'Check the lists',
          go: () => router.navigate(places.before(projectId, closure.id)),
        },
      ],
    },
  ];
  const seals = sealPlan(closure, cables, measuredDiameters(closure, state));
  const known = seals.cables.filter(({ measured }) => measured).length;
  const unsealed = seals.cables.flatMap((one) => one.findings.filter(({ severity }) => severity === 'error'));
  stages.push({
    key: 'seals',
    title: 'Seals and measures',
    words: `${known} of ${seals.cables.length} cables measured`,
    done: closure.entries.length > 0 && known === seals.cables.length,
    wrong: unsealed[0] ? prepareFindingWords(unsealed[0], definition.project.units) : null,
    ways: [
      {
        label: 'Measure, choose the parts',
        spoken: 'Measure, choose the parts',
        go: () => router.navigate(places.seals(projectId, closure.id)),
      },
    ],
  });
  closure.entries.forEach(({ cableId }) => {
    const cable = cables.get(cableId);
    if (cable) stages.push(cableStage(atHand, cable, schools));
  });
  if (plan.ends.length > 0) stages.push(connectorStage(atHand));
  return stages;
}

/** The ends that wear a connector: after the cables, since they are opened for it. */
function connectorStage(atHand: AtHand): Stage {
  const { projectId, closure, ledger } = atHand;
  const { state } = atHand.preparing;
  const { ends } = ledger.plan;
  const inState = (wanted: EndState) => ends.filter((end) => endState(end, state) === wanted);
  const failing = inState('fails');
  const passing = inState('passes').length;
  return {
    key: 'connectors',
    title: 'Connectors',
    words: `${ends.length === 1 ? '1 fiber ends in a connector' : `${ends.length} fibers end in connectors`} · light gets through ${passing}`,
    done: passing === ends.length,
    wrong:
      failing.length > 0
        ? `Light does not get through ${failing.map((end) => endCalled(closure, end)).join(', ')}.`
        : null,
    ways: [
      {
        label: 'Put them on, check the light',
        spoken: 'Put connectors on, check the light',
        go: () => router.navigate(places.connectors(projectId, closure.id)),
      },
    ],
  };
}

function cableStage(atHand: AtHand, cable: Cable, schools: ReturnType<typeof useSchools>): Stage {
  const { projectId, closure, definition, ledger } = atHand;
  const { state } = atHand.preparing;
  const { plan } = ledger;
  const sheet = sheetOf(definition, closure, plan, cable, schools);
  const chapters = stepsFor(closure, plan, cable, {
    units: definition.project.units,
    schools,
    seat: seatOf(closure, cablesOf(definition), state, cable.id),
    ending: endingOf(closure, cable.id),
  });
  const marks = marksProgress(sheet, state);
  const steps = stepsProgress(cable.id, chapters, state);
  const opened = isOpened(plan, closure, cable);
  const error = sheet.findings.find(({ severity }) => severity === 'error');
  return {
    key: cable.id,
    title: `${sheet.key} · ${cable.label}`,
    words: [
      constructionWords(cable.construction),
      mannerWords(closure, cable),
      opened
        ? `marks ${progressOf(marks)}, steps ${progressOf(steps)}`
        : 'nothing of it is spliced here: leave it closed',
    ].join(' · '),
    done: !opened || (marks.total > 0 && marks.done === marks.total && steps.done === steps.total),
    wrong: error ? prepareFindingWords(error, definition.project.units) : null,
    ways: opened
      ? [
          {
            label: 'Steps',
            spoken: `Steps for ${cable.label}`,
            go: () => router.navigate(places.steps(projectId, closure.id, cable.id)),
          },
          {
            label: 'Cut sheet',
            spoken: `Cut sheet for ${cable.label}`,
            go: () => router.navigate(places.cutSheet(projectId, closure.id, cable.id)),
          },
        ]
      : [
          {
            label: 'Cut sheet',
            spoken: `Cut sheet for ${cable.label}`,
            go: () => router.navigate(places.cutSheet(projectId, closure.id, cable.id)),
          },
        ],
  };
}

function progressOf({ done, total }: Progress): string {
  return `${done} of ${total}`;
}

const styles = StyleSheet.create({
  list: { paddingTop: space.small, paddingBottom: space.large },
  stage: { paddingVertical: space.medium, gap: space.tight },
  ways: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small, paddingTop: space.tight },
  more: { padding: space.large, paddingLeft: gutter.width, gap: space.medium, maxWidth: 760 },
  foot: { padding: space.small },
});
