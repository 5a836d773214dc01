import { isDone, isSmall, tickOf, tickTargets, type Cable, type TickAnswer } from '@cordel/core';
import { prepareFindingWords, stepsFor, stepsProgress, type Step } from '@cordel/core/prepare';
import { router } from 'expo-router';
import { useMemo, useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { cablesOf } from '../../../data/ledger';
import { setPreferences, usePreferences } from '../../../data/preferences';
import { Action } from '../../../ui/Action';
import { CordRow } from '../../../ui/Cord';
import { Choice } from '../../../ui/Field';
import { Screen } from '../../../shell/frame/Screen';
import { Empty } from '../../../ui/States';
import { gutter, space } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import { places } from '../../../shell/places';
import { AtCable, PreparePanes, type AtHand } from '../../../shell/steps/AtClosure';
import { endings, endingOf, keepEnding } from '../../../shell/steps/ending';
import { SchoolsPart } from './SchoolsPart';
import { SlackPart } from '../cut/SlackPart';
import { StepCard } from '../../../shell/steps/StepCard';
import { seatOf, sheetOf, towardOf, useSchools } from '../../../shell/steps/usePrepare';

/** The guided steps for one cable: one open at a time, or folded to a checklist. */
export function StepsScreen(at: { projectId: string; closureId: string; cableId: string }) {
  return (
    <AtCable {...at} title="Steps">
      {(atHand, cable) => <StepsAt atHand={atHand} cable={cable} />}
    </AtCable>
  );
}

function StepsAt({ atHand, cable }: { atHand: AtHand; cable: Cable }) {
  const { projectId, closure, definition, ledger, siteName } = atHand;
  const { state, tick } = atHand.preparing;
  const { units } = definition.project;
  const { stepsFolded } = usePreferences();
  const schools = useSchools();
  const [ending, setEnding] = useState(() => endingOf(closure, cable.id));
  const inConnectors = ledger.plan.ends.filter((end) => end.cableId === cable.id).length;
  const planned =
    inConnectors > 0 || closure.entries.find((entry) => entry.cableId === cable.id)?.ending !== undefined;
  const sheet = sheetOf(definition, closure, ledger.plan, cable, schools);
  const chapters = useMemo(
    () =>
      stepsFor(closure, ledger.plan, cable, {
        units,
        schools,
        seat: seatOf(closure, cablesOf(definition), state, cable.id),
        ending,
        toward: towardOf(definition, closure, cable),
      }),
    [closure, ledger.plan, cable, units, schools, ending, definition, state],
  );
  const steps = chapters.flatMap((chapter) => chapter.steps);
  const done = (step: Step) => isDone(state, tickTargets.step(cable.id, step.id));
  const next = steps.find((step) => !done(step));
  // null: the next one that is to be done; '': none.
  const [chosen, setChosen] = useState<string | null>(null);
  const open = chosen ?? (stepsFolded ? '' : next?.id);
  const progress = stepsProgress(cable.id, chapters, state);
  const error = sheet.findings.find(({ severity }) => severity === 'error');

  const finish = (step: Step, answer: TickAnswer | null = null, note = '') => {
    tick(tickTargets.step(cable.id, step.id), 'done', { answer, note });
    // What the step makes is made.
    for (const id of step.marks ?? []) {
      const mark = sheet.marks.find((one) => one.id === id);
      const about = tickTargets.mark(cable.id, id);
      if (mark && !isDone(state, about)) tick(about, 'done', { mm: Math.round(mark.at * 100) / 100 });
    }
    setChosen(null);
  };
  const titleOf = (id: string) => steps.find((step) => step.id === id)!.title;
  /** What has to be done before a step may be. */
  const firstOf = (step: Step) => {
    const first = steps.find(({ id }) => id === step.after);
    return first && !done(first) ? titleOf(first.id) : null;
  };
  const nextIsOpen = next !== undefined && open === next.id;

  return (
    <PreparePanes
      atHand={atHand}
      ledger={
        sheet.units.length > 0 ? (
          <ScrollView contentContainerStyle={styles.head}>
            <SlackPart sheet={sheet} cable={cable} units={units} />
          </ScrollView>
        ) : null
      }
    >
      <Screen
        title={`Steps · ${sheet.key}`}
        subtitle={`${cable.label} at ${siteName} · ${progress.done} of ${progress.total} done`}
        up={{ href: places.prepare(projectId, closure.id), name: 'preparing' }}
        foot={
          steps.length > 0 ? (
            <View style={styles.foot}>
              {next === undefined ? (
                <Action
                  bench
                  kind="now"
                  label={inConnectors > 0 ? 'To the connectors' : 'To the other cables'}
                  onPress={() =>
                    router.navigate(
                      (inConnectors > 0 ? places.connectors : places.prepare)(projectId, closure.id),
                    )
                  }
                />
              ) : nextIsOpen && !next.check ? (
                <Action bench kind="now" label={`Done: ${next.title}`} onPress={() => finish(next)} />
              ) : nextIsOpen ? (
                <Type look="strong" style={styles.asked}>
                  Answer the question to go on: {next.check!.ask}
                </Type>
              ) : (
                <Action bench kind="now" label={`Next: ${next.title}`} onPress={() => setChosen(next.id)} />
              )}
            </View>
          ) : null
        }
      >
        <ScrollView contentContainerStyle={styles.list}>
          <View style={styles.head}>
            {error ? (
              <Type tone="accent" role="alert">
                {prepareFindingWords(error, units)}
                {error.code === 'live-in-cut'
                  ? ''
                  : ' The measures below follow from it: mend it before anything is cut.'}
              </Type>
            ) : null}
            {isSmall(cable) && !planned ? (
              <Choice
                label="It ends with"
                options={endings}
                value={ending}
                onChange={(value) => {
                  setEnding(value);
                  keepEnding(cable.id, value);
                }}
              />
            ) : null}
            <View style={styles.ways}>
              <Action
                label={stepsFolded ? 'Show the steps in full' : 'Fold to a checklist'}
                onPress={() => {
                  setPreferences({ stepsFolded: !stepsFolded });
                  setChosen(null);
                }}
              />
              <Action
                label="Cut sheet"
                onPress={() => router.navigate(places.cutSheet(projectId, closure.id, cable.id))}
              />
            </View>
          </View>
          {steps.length === 0 ? (
            <Empty
              title="Nothing to prepare"
              text="No line of the order splices this cable here, so it stays closed."
            />
          ) : null}
          {chapters.map((chapter) => (
            <View key={chapter.id}>
              <CordRow
                above={chapter === chapters[0] ? 'none' : 'open'}
                below={chapter === chapters[0] ? 'none' : 'open'}
                knot={null}
              >
                <Type look="heading" role="heading" aria-level={2} style={styles.chapter}>
                  {chapter.title}
                </Type>
              </CordRow>
              {chapter.steps.map((step) => (
                <StepCard
                  key={step.id}
                  step={step}
                  first={step === steps[0]}
                  last={step === steps.at(-1)}
                  beforeDone={steps[steps.indexOf(step) - 1] ? done(steps[steps.indexOf(step) - 1]!) : false}
                  tick={tickOf(state, tickTargets.step(cable.id, step.id))}
                  marks={sheet.marks.filter((mark) => step.marks?.includes(mark.id))}
                  open={open === step.id}
                  zone={definition.project.timeZone}
                  timerId={`${closure.id}.${cable.id}.${step.id}`}
                  waitsFor={firstOf(step)}
                  folded={stepsFolded}
                  onOpen={() => setChosen(open === step.id ? '' : step.id)}
                  onDone={(answer, note) => finish(step, answer, note)}
                  onUndo={() => tick(tickTargets.step(cable.id, step.id), 'open')}
                />
              ))}
            </View>
          ))}
          <View style={styles.head}>
            <SchoolsPart />
            <Type look="small" tone="soft">
              Common practice. The maker’s instruction, the owner’s rules and local code come first.
            </Type>
          </View>
        </ScrollView>
      </Screen>
    </PreparePanes>
  );
}

const styles = StyleSheet.create({
  list: { paddingBottom: space.large, maxWidth: 820 },
  head: { padding: space.large, paddingLeft: gutter.width, gap: space.medium },
  chapter: { paddingTop: space.medium },
  ways: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
  foot: { padding: space.small },
  asked: { padding: space.medium, textAlign: 'center' },
});
