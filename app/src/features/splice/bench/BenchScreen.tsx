import { alongTheCord, findSplice, lossRefusal, siteOf, type SpliceState } from '@cordel/core';
import { adviceLine } from '@cordel/core/advice';
import type { ProgramWarning } from '@cordel/core/gear';
import { handLine } from '@cordel/core/prepare';
import { router } from 'expo-router';
import { memo, useCallback, useState } from 'react';
import { ScrollView, StyleSheet, useWindowDimensions } from 'react-native';
import { useRecordFact } from '../../../sync/react';
import { pickGear, usedGear } from '../../../data/gearTonight';
import { useJudged } from '../../../data/judge/useJudged';
import { cablesOf } from '../../../data/ledger';
import { usePreferences } from '../../../data/preferences';
import { Action } from '../../../ui/Action';
import { Panes } from '../../../shell/frame/Panes';
import { Screen } from '../../../shell/frame/Screen';
import { DeviceNotices } from '../../../shell/frame/SendStatus';
import { useWide } from '../../../ui/theme';
import { space } from '../../../ui/tokens';
import { useLatest } from '../../../ui/useLatest';
import { newRecleave } from '../gear/newGearFact';
import { SeriesHint } from '../judge/SeriesHint';
import { useAdvice } from '../judge/useAdvice';
import { seriesAt } from '../judge/seriesAt';
import { CordNav } from '../../../shell/frame/CordNav';
import { places } from '../../../shell/places';
import { AroundHere } from './AroundHere';
import { AtSlot, type AtSlotProps, type SlotAddress } from './AtSlot';
import { BenchFoot } from './BenchFoot';
import { BenchSheets, type BenchSheet } from './BenchSheets';
import { HeaterStrip } from './clocks/HeaterStrip';
import { PaceLine } from './clocks/PaceLine';
import { BenchQuestion } from './questions/BenchQuestion';
import { SpliceCard } from './SpliceCard';
import { TrayLedger } from '../record/TrayLedger';
import { useAtSplice } from './useAtSplice';
import { useBenchKeys } from './useBenchKeys';
import { useHands } from './useHands';
import { useRedosLeft } from './useRedosLeft';
import { useScreenOn } from './useScreenOn';
import { progressWords } from '../../../shell/words';

/** The bench: one splice at a time, at the slot that the address names. */
export function BenchScreen(address: SlotAddress) {
  const { projectId, closureId } = address;
  return (
    <AtSlot
      address={address}
      title="Bench"
      up={({ tray }) => ({ href: places.tray(projectId, closureId, tray), name: `tray ${tray}` })}
      At={BenchAt}
    />
  );
}

/** Drawn again when something changed here, not with every answer of the server that brings nothing. */
const BenchAt = memo(function BenchAt({ projectId, atHand, tray, here, onGo }: AtSlotProps) {
  const { closure, definition, ledger } = atHand;
  const { splice } = here;
  const closureId = closure.id;
  const wide = useWide();
  const { height } = useWindowDimensions();
  const cables = cablesOf(definition);
  const preferences = usePreferences();
  useScreenOn(preferences.screenStaysOn);
  const recordFact = useRecordFact(projectId);
  const [sheet, setSheet] = useState<BenchSheet | null>(null);
  const [refusal, setRefusal] = useState<string | null>(null);

  const moved = useCallback(
    (state: SpliceState) => {
      setRefusal(null);
      onGo(state);
    },
    [onGo],
  );
  const { go, bench, joint, gear, machine, asked, question, advice, entering, others, taken, askNewTry } =
    useAtSplice(projectId, atHand, here, { onGo: moved, onRecorded: () => setSheet(null) });
  // What stays the same from reading to reading is drawn once, so these must not change with every one.
  const openSplice = useLatest((spliceId: string) => {
    const state = findSplice(ledger, spliceId);
    if (state) go(state);
  });
  const showHistory = useCallback(() => setSheet('history'), []);
  const showWhy = useCallback(() => setSheet('why'), []);
  const showSeries = useCallback(() => setSheet('series'), []);
  const closeSheet = useCallback(() => setSheet(null), []);
  const follow = () => {
    // The stretch on which the left fiber comes to this closure.
    const { cableId, fiber, side } = splice.left[0]!;
    const at = cables.get(cableId)!.siteIds.indexOf(closure.siteId);
    router.navigate(places.follow(projectId, cableId, fiber, side === 'high' ? at : Math.max(0, at - 1)));
  };

  const redos = useRedosLeft(atHand, here);
  const hands = useHands(atHand, here, joint, gear);
  const judged = useJudged(atHand);
  const said = seriesAt(judged, machine?.id ?? null, splice.kind);
  const advised = useAdvice(atHand, tray, here, judged, redos);

  const typed = useBenchKeys({
    enabled: sheet === null,
    entering: entering && question === null && joint.kind !== 'mechanical',
    onReading: (loss) => {
      const trouble = lossRefusal(loss);
      setRefusal(trouble);
      if (trouble === null) bench.record(loss);
    },
    onMove: (by) => {
      const cord = alongTheCord(ledger);
      const next = cord[cord.indexOf(here) + by];
      if (next) go(next);
    },
    onSkip: bench.skip,
    onTakeBack: bench.takeBack,
    onHelp: () => setSheet('keys'),
  });

  const foot = (
    <BenchFoot
      bench={bench}
      state={here}
      tray={tray}
      limits={ledger.limits}
      entering={entering}
      joint={joint}
      advised={advised && adviceLine(advised)}
      advice={advice}
      onNewTry={() => askNewTry(splice.id)}
      onRecleaved={(ends) => {
        const cleaver = usedGear()?.cleaver;
        if (cleaver) void recordFact(newRecleave(closureId, cleaver, ends));
      }}
      onFollow={follow}
      onSheet={setSheet}
      pace={<PaceLine atHand={atHand} tray={tray} kind={splice.kind} machine={machine} />}
      question={
        question ? (
          <BenchQuestion
            question={question}
            atHand={atHand}
            here={here}
            gear={gear}
            asked={asked}
            onFact={(fact) => void recordFact(fact)}
          />
        ) : null
      }
      typed={typed}
      refusal={refusal}
    />
  );
  const site = siteOf(definition.sites, closure.siteId);

  return (
    <Panes
      cord={<CordNav definition={definition} closureId={closureId} ledger={ledger} tray={tray.tray} />}
      ledger={
        <TrayLedger
          atHand={atHand}
          tray={tray}
          hereId={splice.id}
          others={others}
          onOpen={openSplice}
          titled
        />
      }
    >
      <Screen
        title={`Tray ${tray.tray} · slot ${splice.slot}`}
        subtitle={`${site.name} · ${progressWords(ledger.rollUp)}`}
        up={{ href: places.tray(projectId, closureId, tray.tray), name: `tray ${tray.tray}` }}
        bench
        corner={
          joint.kind === 'mechanical' ? null : (
            <Action
              bench
              icon="listen"
              label="Hands free"
              kind="plain"
              onPress={() => router.navigate(places.listen(projectId, closureId, tray.tray, splice.slot))}
              style={styles.corner}
            />
          )
        }
        foot={foot}
      >
        <DeviceNotices />
        {preferences.heaterLane ? <HeaterStrip atHand={atHand} machine={machine} /> : null}
        {said ? <SeriesHint said={said} onOpen={showSeries} /> : null}
        {/* By keyboard too: at a low window the card is longer than its place. */}
        <ScrollView tabIndex={0} contentContainerStyle={wide ? styles.wide : styles.cord}>
          <AroundHere
            atHand={atHand}
            tray={tray}
            here={here}
            rows={question || said ? 0 : height >= tallFrom ? 2 : 1}
            others={others}
            onOpen={openSplice}
          >
            <SpliceCard
              state={here}
              cables={cables}
              limits={ledger.limits}
              details={bench.details}
              advice={advice?.action === 'look' ? null : advice}
              warnings={gear.atBench?.warnings ?? noWarnings}
              onSwitch={switchProgram}
              joint={joint}
              hands={joint.kind === 'mechanical' ? '' : handLine(hands)}
              other={others.get(splice.id) ?? null}
              onPass={bench.skip}
              read={bench.read}
              redos={redos}
              advised={advised}
              onWhy={showWhy}
              asked={question === 'polarity' || question === 'ribbonize'}
              onHistory={showHistory}
            />
          </AroundHere>
        </ScrollView>
      </Screen>
      {sheet ? (
        <BenchSheets
          sheet={sheet}
          projectId={projectId}
          atHand={atHand}
          here={here}
          bench={bench}
          gear={gear}
          hands={hands}
          tray={tray}
          said={said}
          advised={advised}
          taken={taken}
          onFact={(fact, shown) => void recordFact(fact, shown)}
          onGo={go}
          onFollow={follow}
          onClose={closeSheet}
        />
      ) : null}
    </Panes>
  );
});

/** From this height there is room for two splices above and below. px */
const tallFrom = 900;

const noWarnings: readonly never[] = [];

/** The person set the machine as the card says. */
function switchProgram({ what, fitting, cladding }: ProgramWarning): void {
  if (fitting === null) return;
  pickGear(what === 'heater' ? { heater: fitting } : { program: fitting, cladding });
}

const styles = StyleSheet.create({
  corner: { flexDirection: 'column', gap: 0, paddingHorizontal: 0, alignSelf: 'center' },
  cord: { paddingVertical: 0 },
  wide: { flexGrow: 1, justifyContent: 'center', padding: space.wide },
});
