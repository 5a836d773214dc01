import { formatTape, isDone, tickOf, tickTargets, type Cable, type Tick } from '@cordel/core';
import {
  isReleased,
  marksProgress,
  movedSince,
  prepareFindingWords,
  type CutMark,
  type CutSheet,
} from '@cordel/core/prepare';
import { router } from 'expo-router';
import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { Action } from '../../../ui/Action';
import { Caution } from '../../../ui/Caution';
import { Findings } from '../../../ui/Findings';
import { PrintOnly } from '../../../ui/Paper';
import { Screen } from '../../../shell/frame/Screen';
import { Sheet } from '../../../ui/Sheet';
import { useWide } from '../../../ui/theme';
import { gutter, space } from '../../../ui/tokens';
import type { ShownZone } from '../../../ui/times';
import { Type } from '../../../ui/Type';
import { constructionWords } from '../../../shell/cableWords';
import { places } from '../../../shell/places';
import { AtCable, PreparePanes, type AtHand } from '../../../shell/steps/AtClosure';
import { CutStrip } from './CutStrip';
import { SlackPart } from './SlackPart';
import { whoAndWhen } from '../../../shell/steps/tickWords';
import { mannerWords, sheetOf, towardOf, useSchools } from '../../../shell/steps/usePrepare';

/** What to cut where on one cable, to scale, each mark with its reason and its tick. */
export function CutSheetScreen(at: { projectId: string; closureId: string; cableId: string }) {
  return (
    <AtCable {...at} title="Cut sheet">
      {(atHand, cable) => <CutSheetAt atHand={atHand} cable={cable} />}
    </AtCable>
  );
}

function CutSheetAt({ atHand, cable }: { atHand: AtHand; cable: Cable }) {
  const { projectId, closure, definition, ledger, siteName } = atHand;
  const { state, tick } = atHand.preparing;
  const { units } = definition.project;
  const schools = useSchools();
  const wide = useWide();
  const sheet = sheetOf(definition, closure, ledger.plan, cable, schools);
  const [selected, setSelected] = useState<string | null>(null);
  const next = sheet.marks.find((mark) => !isDone(state, tickTargets.mark(cable.id, mark.id)));
  const [last, setLast] = useState<string | null>(null);
  const { done, total } = marksProgress(sheet, state);
  const released = isReleased(sheet, state);
  const stopOf = (mark: CutMark | undefined) => (released ? null : (mark?.stop ?? null));
  const set = (mark: CutMark, made: boolean) => {
    tick(
      tickTargets.mark(cable.id, mark.id),
      made ? 'done' : 'open',
      made ? { mm: Math.round(mark.at * 100) / 100 } : {},
    );
    setLast(made ? mark.id : null);
  };
  const chosen = sheet.marks.find((mark) => mark.id === selected);
  const back = sheet.marks.find((mark) => mark.id === last);
  const detail = chosen ? (
    <MarkDetail
      mark={chosen}
      tick={tickOf(state, tickTargets.mark(cable.id, chosen.id))}
      moved={movedSince(sheet, chosen.id, state)}
      units={units}
      zone={definition.project.timeZone}
      stop={stopOf(chosen)}
      onTick={(made) => set(chosen, made)}
    />
  ) : null;
  const moved = sheet.marks.filter((mark) => movedSince(sheet, mark.id, state) !== null);

  return (
    <PreparePanes
      atHand={atHand}
      ledger={
        <ScrollView contentContainerStyle={styles.pane}>
          {chosen ? (
            <Type look="title" role="heading" aria-level={2}>
              {chosen.title}
            </Type>
          ) : (
            <Type tone="soft">Choose a mark to see why it is there.</Type>
          )}
          {detail}
          <SlackPart sheet={sheet} cable={cable} units={units} />
        </ScrollView>
      }
    >
      <Screen
        title={`Cut sheet · ${sheet.key}`}
        subtitle={`${cable.label} at ${siteName} · ${total === 0 ? 'nothing to cut' : `${done} of ${total} made`} · ${units}`}
        up={{ href: places.prepare(projectId, closure.id), name: 'preparing' }}
        foot={
          total > 0 ? (
            <View style={styles.foot}>
              {back ? (
                <Action
                  bench
                  label="Take back"
                  spoken={`Take back: ${back.title}`}
                  onPress={() => set(back, false)}
                />
              ) : null}
              <Action
                bench
                kind="now"
                style={styles.flex}
                label={next ? `Done: ${sheet.marks.indexOf(next) + 1} · ${next.title}` : 'All marks are made'}
                detail={next ? (stopOf(next) ?? next.place) : undefined}
                disabled={!next || stopOf(next) !== null}
                onPress={() => next && set(next, true)}
              />
            </View>
          ) : null
        }
      >
        <ScrollView contentContainerStyle={styles.body}>
          <Intro sheet={sheet} cable={cable} manner={mannerWords(closure, cable)} />
          <Findings findings={sheet.findings} words={(one) => prepareFindingWords(one, units)} />
          {moved.length > 0 ? (
            <Type tone="accent" role="alert">
              {moved.map((mark) => mark.title).join(', ')}: made before the plan or the closure’s table
              changed, at another measure. Look again before anything more is cut.
            </Type>
          ) : null}
          {total > 0 ? (
            <CutStrip
              sheet={sheet}
              cable={cable}
              units={units}
              state={state}
              selected={selected}
              toward={sheet.reference === 'center' ? towardOf(definition, closure, cable) : undefined}
              onSelect={setSelected}
            />
          ) : null}
          <PrintOnly>
            {sheet.marks.map((mark, index) => (
              <Type key={mark.id} look="small">
                <Type look="smallStrong">
                  {index + 1} · {mark.title}, {mark.place}.
                </Type>{' '}
                {mark.tool}
                {mark.depth ? `; ${mark.depth}` : ''}. {mark.why} {mark.caution ?? ''} {mark.stop ?? ''}
              </Type>
            ))}
          </PrintOnly>
          {wide ? null : <SlackPart sheet={sheet} cable={cable} units={units} />}
          <View style={styles.ways}>
            <Action
              label="Steps"
              onPress={() => router.navigate(places.steps(projectId, closure.id, cable.id))}
            />
            <Action label="Print" onPress={() => window.print()} />
            <Action
              label="The closure’s table"
              onPress={() => router.navigate(places.table(projectId, closure.id))}
            />
          </View>
        </ScrollView>
      </Screen>
      {wide ? null : (
        <Sheet title={chosen?.title ?? ''} open={chosen !== undefined} onClose={() => setSelected(null)}>
          {detail}
        </Sheet>
      )}
    </PreparePanes>
  );
}

function Intro({ sheet, cable, manner }: { sheet: CutSheet; cable: Cable; manner: string }) {
  const error = sheet.findings.some(({ severity }) => severity === 'error');
  return (
    <View style={styles.intro}>
      <Type>
        {constructionWords(cable.construction)}, {manner}.{' '}
        {sheet.marks.length === 0
          ? error
            ? 'No mark is made from lengths that cannot be right.'
            : 'Nothing of it is spliced here, so leave its sheath closed.'
          : sheet.reference === 'end'
            ? 'Measured from the cable end. Make the marks in the order of their numbers.'
            : 'Measured from the center of the slack, to both sides. Make the marks in the order of their numbers.'}
      </Type>
      <Type look="small" tone="soft">
        Lengths are the closure’s own table, common practice where it has none. The maker’s instruction and
        local practice come first.
      </Type>
    </View>
  );
}

function MarkDetail({
  mark,
  tick,
  moved,
  units,
  zone,
  stop,
  onTick,
}: {
  mark: CutMark;
  tick: Tick | null;
  /** mm, where it was made at another measure. */
  moved: number | null;
  units: 'mm' | 'in';
  zone: ShownZone;
  /** Why it must not be made now. */
  stop: string | null;
  onTick: (made: boolean) => void;
}) {
  const made = tick?.body.state === 'done';
  return (
    <View style={styles.detail}>
      <Type look="reading">{mark.place}</Type>
      {made ? (
        <Type look="small" tone="soft">
          Made: {whoAndWhen(tick, zone)}
        </Type>
      ) : null}
      {moved === null ? null : (
        <Type tone="accent" role="alert">
          It was made at {formatTape(Math.abs(moved), units)}, before the plan or the table changed.
        </Type>
      )}
      <Type>
        <Type look="strong">Tool: </Type>
        {mark.tool}
      </Type>
      {mark.depth ? (
        <Type>
          <Type look="strong">Depth: </Type>
          {mark.depth}
        </Type>
      ) : null}
      <Type>
        <Type look="strong">Why: </Type>
        {mark.why}
      </Type>
      {mark.caution ? <Caution text={mark.caution} /> : null}
      {stop ? (
        <Type look="strong" tone="accent" role="alert">
          {stop} The steps ask for it.
        </Type>
      ) : null}
      <Action
        bench
        label={made ? 'Not made yet' : 'Made'}
        spoken={made ? `Not made yet: ${mark.title}` : `Made: ${mark.title}`}
        disabled={!made && stop !== null}
        onPress={() => onTick(!made)}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  body: { padding: space.medium, gap: space.medium, maxWidth: 820 },
  intro: { gap: space.tight, paddingLeft: gutter.width - space.medium },
  pane: { padding: space.large, gap: space.large },
  detail: { gap: space.medium },
  ways: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
  foot: { flexDirection: 'row', gap: space.small, padding: space.small },
  flex: { flex: 1 },
});
