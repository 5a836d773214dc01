import { findSplice, siteOf } from '@cordel/core';
import { heardVerdict, questionWords } from '@cordel/core/listen';
import { programWarningWords } from '@cordel/core/gear';
import { memo, useCallback, useEffect, useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { useJudged } from '../../../data/judge/useJudged';
import { machinesHere } from '../../../data/machine/machines';
import { useLinked, usePractice } from '../../../data/machine/linked';
import { usePreferences } from '../../../data/preferences';
import { CordNav } from '../../../shell/frame/CordNav';
import { Panes } from '../../../shell/frame/Panes';
import { Screen } from '../../../shell/frame/Screen';
import { DeviceNotices } from '../../../shell/frame/SendStatus';
import { places } from '../../../shell/places';
import { useRecordFact } from '../../../sync/react';
import { spokenFiber } from '../../../ui/FiberToken';
import { space } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import { useLatest } from '../../../ui/useLatest';
import { AtSlot, type AtSlotProps, type SlotAddress } from '../bench/AtSlot';
import { BenchQuestion } from '../bench/questions/BenchQuestion';
import { useAtSplice } from '../bench/useAtSplice';
import { useScreenOn } from '../bench/useScreenOn';
import { SeriesHint } from '../judge/SeriesHint';
import { SeriesSheet } from '../judge/SeriesSheet';
import { seriesAt } from '../judge/seriesAt';
import { TrayLedger } from '../record/TrayLedger';
import { boardOf } from './boardOf';
import { ByHandSheet } from './ByHandSheet';
import { FarBoard } from './FarBoard';
import { FarPair, leftAndRight } from './FarPair';
import { ListenFoot, type BigKey } from './ListenFoot';
import { MachineSheet } from './MachineSheet';
import { QuestionPanel } from './QuestionPanel';
import { useFound } from './useFound';
import { useListening } from './useListening';
import { useListenKeys } from './useListenKeys';
import { useSaid } from './useSaid';
import { commandWords, useSimulatedHands } from './useSimulatedHands';

/** The bench without hands: a linked machine is listened to at the slot that the address names. */
export function ListenScreen(address: SlotAddress) {
  const { projectId, closureId } = address;
  return (
    <AtSlot
      address={address}
      title="Hands free"
      up={({ tray, slot }) => ({ href: places.bench(projectId, closureId, tray, slot), name: 'the bench' })}
      At={ListenAt}
    />
  );
}

const ListenAt = memo(function ListenAt({ projectId, atHand, tray, here, onGo }: AtSlotProps) {
  const { closure, definition, ledger } = atHand;
  const { splice } = here;
  const [machines] = useState(machinesHere);
  const [sheet, setSheet] = useState<'machine' | 'hand' | 'series' | null>(null);
  const preferences = usePreferences();
  useScreenOn(preferences.screenStaysOn);
  const recordFact = useRecordFact(projectId);
  const linked = useLinked();
  const practice = usePractice();
  const { found, error, look } = useFound(machines);
  const at = useAtSplice(projectId, atHand, here, { onGo });
  const { bench, entering, question, cables } = at;
  const listening = useListening(projectId, atHand, here, at, machines, linked);
  // While somebody chooses how to practise, the hands wait.
  const byItself = practice.byItself && sheet === null;
  const hands = useSimulatedHands(machines, linked, { ...practice, byItself }, listening, at, here);
  const asked = listening.question;
  // A server that was started anew has its simulated machines anew.
  const why = listening.link?.is === 'dropped' ? listening.link.why : null;
  useEffect(() => {
    if (why !== null) look();
  }, [why, look]);

  const last = bench.last?.spliceId ? (findSplice(ledger, bench.last.spliceId) ?? null) : null;
  const sleeveFirst = preferences.sleeveReminder && at.joint.sleeve !== null;
  const board = boardOf(linked, listening, at.advice, here, last, entering, sleeveFirst);
  const pairTitle = !entering
    ? 'Here'
    : listening.inside
      ? 'Now'
      : here.verdict.mark === 'redo'
        ? 'Again'
        : last && last !== here
          ? 'Next'
          : 'Now';

  const again = useLatest(() => {
    const state = last ?? here;
    if (state !== here) at.go(state);
    at.askNewTry(state.splice.id);
  });
  const byHand = useCallback(() => setSheet('hand'), []);
  const showMachine = useCallback(() => setSheet('machine'), []);
  const showSeries = useCallback(() => setSheet('series'), []);
  const said = seriesAt(useJudged(atHand), at.machine?.id ?? null, splice.kind);
  const big: BigKey = !linked
    ? { label: 'Link a machine', onPress: showMachine }
    : hands.next && !practice.byItself
      ? {
          label: commandWords(hands.next),
          detail: 'at the simulated machine',
          onPress: () => hands.command(hands.next!),
        }
      : entering
        ? {
            label: 'Skip',
            detail: here.verdict.mark === 'redo' ? 'Leave the redo for later' : 'Leave this one open, go on',
            onPress: bench.skip,
          }
        : { label: 'Next', detail: 'Go on to what is left', onPress: bench.skip };
  useListenKeys({
    enabled: sheet === null && question === null && asked === null,
    onNext: big.onPress,
    onAgain: again,
    onSkip: bench.skip,
    onByHand: byHand,
  });

  const { left, right } = leftAndRight(here, cables);
  const pairWords = `${pairTitle}: ${spokenFiber(left)}${spokenFiber(left) === spokenFiber(right) ? '' : ` to ${spokenFiber(right)}`}.`;
  const attempt = bench.last?.takeBack?.attemptId ?? null;
  useSaid(
    last && attempt ? attempt : null,
    last?.verdict.mark === 'holds' ? 'holds' : last?.verdict.mark === 'redo' ? 'redo' : 'owner',
    last ? `${heardVerdict(last)}${last !== here ? ` ${pairWords}` : ''}` : '',
  );
  const paused = listening.hearing?.state === 'pause' ? `${listening.hearing.number}` : null;
  useSaid(paused, board.halt ? 'before' : 'fuse', `${board.far}.`);
  useSaid(
    asked ? `${asked.result.number}` : null,
    'ask',
    asked ? questionWords(asked, null, 'this splice') : '',
  );
  useSaid(listening.link?.is === 'dropped' ? 'dropped' : null, 'lost', 'The link dropped. Enter by hand.');

  const openSplice = useLatest((spliceId: string) => {
    const state = findSplice(ledger, spliceId);
    if (state) at.go(state);
  });
  const notices = [
    ...(at.gear.atBench?.warnings ?? []).map(programWarningWords),
    listening.said,
    hands.trouble,
    at.others.get(splice.id)
      ? `${at.others.get(splice.id)} stands at this splice. Agree on who takes it.`
      : null,
  ].filter((line): line is string => line !== null);

  return (
    <Panes
      cord={<CordNav definition={definition} closureId={closure.id} ledger={ledger} tray={tray.tray} />}
      ledger={
        <TrayLedger
          atHand={atHand}
          tray={tray}
          hereId={splice.id}
          others={at.others}
          onOpen={openSplice}
          titled
        />
      }
    >
      <Screen
        title={`Tray ${tray.tray} · slot ${splice.slot}`}
        subtitle={`${siteOf(definition.sites, closure.siteId).name} · hands free`}
        up={{ href: places.bench(projectId, closure.id, tray.tray, splice.slot), name: 'the bench' }}
        bench
        foot={
          asked ? (
            <View style={styles.asked}>
              <QuestionPanel
                question={asked}
                ledger={ledger}
                here={here}
                more={listening.hearing!.questions.length - 1}
                onAnswer={listening.answer}
              />
            </View>
          ) : question ? (
            <BenchQuestion
              question={question}
              atHand={atHand}
              here={here}
              gear={at.gear}
              asked={at.asked}
              onFact={(fact) => void recordFact(fact)}
            />
          ) : (
            <ListenFoot
              big={big}
              linked={linked}
              listening={listening}
              bench={bench}
              onAgain={again}
              onByHand={at.joint.kind === 'mechanical' || !entering ? null : byHand}
              onMachine={showMachine}
            />
          )
        }
      >
        <DeviceNotices />
        <ScrollView tabIndex={0} contentContainerStyle={styles.body}>
          <FarBoard board={board} />
          {said ? <SeriesHint said={said} onOpen={showSeries} /> : null}
          {notices.map((line) => (
            <Type key={line} look="strong" tone="accent" role="alert">
              {line}
            </Type>
          ))}
          <FarPair state={here} cables={cables} title={`${pairTitle}: slot ${splice.slot}`} />
        </ScrollView>
      </Screen>
      {sheet === 'hand' ? <ByHandSheet bench={bench} here={here} onClose={() => setSheet(null)} /> : null}
      {sheet === 'series' && said ? (
        <SeriesSheet
          said={said}
          closureId={closure.id}
          cables={cables}
          onFact={(fact) => void recordFact(fact)}
          onClose={() => setSheet(null)}
        />
      ) : null}
      {sheet === 'machine' ? (
        <MachineSheet
          machines={machines}
          linked={linked}
          found={found}
          error={error}
          onLook={look}
          gear={at.gear}
          onClose={() => setSheet(null)}
        />
      ) : null}
    </Panes>
  );
});

const styles = StyleSheet.create({
  body: { padding: space.small, gap: space.medium },
  asked: { padding: space.small },
});
