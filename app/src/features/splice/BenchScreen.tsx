import {
  alongTheCord,
  findSplice,
  lossRefusal,
  needsSplicing,
  siteOf,
  type SpliceState,
  type TrayState,
} from '@cordel/core';
import { router } from 'expo-router';
import { useCallback, useMemo, useState } from 'react';
import { ScrollView, StyleSheet, useWindowDimensions, View } from 'react-native';
import { cablesOf, useClosure, type ClosureAtHand } from '../../data/ledger';
import { CordRow } from '../../ui/Cord';
import { Knot } from '../../ui/Knot';
import { later } from '../../ui/later';
import { Panes } from '../../ui/Panes';
import { Screen } from '../../ui/Screen';
import { RefusedFacts } from '../../ui/SendStatus';
import { Empty, Failed, Loading } from '../../ui/States';
import { useWide } from '../../ui/theme';
import { space } from '../../ui/tokens';
import { CordNav } from '../line/CordNav';
import { places } from '../line/places';
import { BenchFoot } from './BenchFoot';
import { SpliceCard } from './SpliceCard';
import { SpliceRow, stretchAfter } from './SpliceRow';
import { TrayLedger } from './TrayLedger';
import { useBench } from './useBench';
import { useLatest } from '../../ui/useLatest';
import { useStanding } from './useStanding';
import { useBenchKeys } from './useBenchKeys';
import { usePolarityAsked } from './usePolarityAsked';
import { useRedosLeft } from './useRedosLeft';
import { progressWords } from './words';

const HistorySheet = later('the history', async () => (await import('../fetchedLater')).HistorySheet);
const KeysSheet = later('the keys', async () => (await import('../fetchedLater')).KeysSheet);
const PasteSheet = later('the sheet', async () => (await import('../fetchedLater')).PasteSheet);

interface BenchScreenProps {
  projectId: string;
  closureId: string;
  tray: number;
  slot: number;
}

/** The bench: one splice at a time, at the slot that the address names. */
export function BenchScreen({ projectId, closureId, ...address }: BenchScreenProps) {
  const { tray, slot, go } = useStanding(address);
  const { atHand, error, retry } = useClosure(projectId, closureId);
  const up = { href: places.tray(projectId, closureId, tray), name: `tray ${tray}` };
  if (!atHand)
    return (
      <Screen title="Bench" up={up}>
        {error ? <Failed error={error} onRetry={retry} /> : <Loading what="the closure" />}
      </Screen>
    );
  const trayState = atHand.ledger.trays[tray - 1];
  const here = trayState?.splices.find((state) => state.splice.slot === slot);
  if (!trayState || !here)
    return (
      <Screen title="Bench" up={{ href: places.closure(projectId, closureId), name: 'the closure' }}>
        <Empty
          title={`Nothing planned at tray ${tray}, slot ${slot}`}
          text="The order has no splice there. Go up the cord and pick one of the planned ones."
        />
      </Screen>
    );
  return <BenchAt projectId={projectId} atHand={atHand} tray={trayState} here={here} onGo={go} />;
}

function BenchAt({
  projectId,
  atHand,
  tray,
  here,
  onGo,
}: {
  projectId: string;
  atHand: ClosureAtHand;
  tray: TrayState;
  here: SpliceState;
  onGo: (state: SpliceState) => void;
}) {
  const { closure, definition, ledger } = atHand;
  const wide = useWide();
  const cables = cablesOf(definition);
  const [sheet, setSheet] = useState<'history' | 'keys' | 'paste' | null>(null);
  const [newTryFor, setNewTryFor] = useState<string | null>(null);
  const [refusal, setRefusal] = useState<string | null>(null);

  const go = useCallback(
    (state: SpliceState) => {
      setRefusal(null);
      setNewTryFor(null);
      onGo(state);
    },
    [onGo],
  );
  // What stays the same from reading to reading is drawn once, so these must not change with every one.
  const openSplice = useLatest((spliceId: string) => {
    const state = findSplice(ledger, spliceId);
    if (state) go(state);
  });
  const showHistory = useCallback(() => setSheet('history'), []);
  const follow = () => {
    // The stretch on which the left fiber comes to this closure.
    const { cableId, fiber, side } = here.splice.left[0]!;
    const at = cables.get(cableId)!.siteIds.indexOf(closure.siteId);
    router.navigate(places.follow(projectId, cableId, fiber, side === 'high' ? at : Math.max(0, at - 1)));
  };
  const bench = useBench(projectId, atHand, here, go);
  const entering = needsSplicing(here) || newTryFor === here.splice.id;
  const redos = useRedosLeft(atHand, here);
  const askPolarity = usePolarityAsked(projectId, atHand, tray, here);

  const record = (loss: number | null) => {
    // A new try of a ribbon is asked for until all its fibers are read.
    if (loss === null || bench.read.length + 1 === bench.fibers) setNewTryFor(null);
    bench.record(loss);
  };
  const typed = useBenchKeys({
    enabled: sheet === null,
    entering: entering && !askPolarity,
    onReading: (loss) => {
      const trouble = lossRefusal(loss);
      setRefusal(trouble);
      if (trouble === null) record(loss);
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
      bench={{
        ...bench,
        record,
        recordSame: () => {
          setNewTryFor(null);
          bench.recordSame();
        },
      }}
      state={here}
      tray={tray}
      limits={ledger.limits}
      entering={entering}
      onNewTry={() => setNewTryFor(here.splice.id)}
      onHistory={showHistory}
      onFollow={follow}
      onPaste={() => setSheet('paste')}
      cables={cables}
      onPolarity={askPolarity}
      typed={typed}
      refusal={refusal}
    />
  );
  const site = siteOf(definition.sites, closure.siteId);
  const closureId = closure.id;

  return (
    <Panes
      cord={<CordNav definition={definition} closureId={closureId} ledger={ledger} tray={tray.tray} />}
      ledger={<TrayLedger atHand={atHand} tray={tray} hereId={here.splice.id} onOpen={openSplice} titled />}
    >
      <Screen
        title={`Tray ${tray.tray} · slot ${here.splice.slot}`}
        subtitle={`${site.name} · ${progressWords(ledger.rollUp)}`}
        up={{ href: places.tray(projectId, closureId, tray.tray), name: `tray ${tray.tray}` }}
        foot={foot}
      >
        <RefusedFacts />
        <ScrollView contentContainerStyle={wide ? styles.wide : styles.cord}>
          <AroundHere atHand={atHand} tray={tray} here={here} onOpen={openSplice}>
            <SpliceCard
              state={here}
              cables={cables}
              limits={ledger.limits}
              details={bench.details}
              read={bench.read}
              redos={redos}
              asked={askPolarity !== null}
              onHistory={showHistory}
            />
          </AroundHere>
        </ScrollView>
      </Screen>
      {sheet === 'history' ? (
        <HistorySheet
          state={here}
          open
          onClose={() => setSheet(null)}
          onCorrect={bench.correct}
          onFollow={follow}
        />
      ) : null}
      {sheet === 'keys' ? <KeysSheet open onClose={() => setSheet(null)} /> : null}
      {sheet === 'paste' ? (
        <PasteSheet
          fibers={bench.fibers}
          open
          onClose={() => setSheet(null)}
          onLosses={(losses) => {
            setSheet(null);
            setNewTryFor(null);
            bench.recordAll(losses);
          }}
        />
      ) : null}
    </Panes>
  );
}

/** The stretch of cord one stands on. On a wide screen the ledger beside it shows the whole, so only the card is left. */
function AroundHere({
  atHand,
  tray,
  here,
  onOpen,
  children,
}: {
  atHand: ClosureAtHand;
  tray: TrayState;
  here: SpliceState;
  onOpen: (spliceId: string) => void;
  children: React.ReactNode;
}) {
  const { height } = useWindowDimensions();
  const wide = useWide();
  const at = tray.splices.indexOf(here);
  const around = height >= 800 ? 2 : 1;
  const knot = useMemo(() => <Knot mark={here.verdict.mark} size={26} />, [here.verdict.mark]);
  // Keyed by its distance from where one stands: a step along the cord changes the words of the rows instead of making new ones.
  const row = (away: number) => {
    const index = at + away;
    const state = tray.splices[index];
    if (!state) return null;
    return (
      <SpliceRow
        key={away}
        state={state}
        cables={cablesOf(atHand.definition)}
        limits={atHand.ledger.limits}
        above={index === 0 ? 'done' : stretchAfter(tray.splices[index - 1])}
        below={index === tray.splices.length - 1 ? 'none' : stretchAfter(state)}
        onPress={onOpen}
      />
    );
  };
  if (wide) return children;
  const steps = Array.from({ length: around }, (_, index) => index + 1);
  return (
    <View>
      {[...steps].reverse().map((step) => row(-step))}
      <CordRow
        above={at === 0 ? 'done' : stretchAfter(tray.splices[at - 1])}
        below={at === tray.splices.length - 1 ? 'none' : stretchAfter(here)}
        knot={knot}
        knotSize={26}
      >
        {children}
      </CordRow>
      {steps.map((step) => row(step))}
    </View>
  );
}

const styles = StyleSheet.create({
  cord: { paddingVertical: 0 },
  wide: { flexGrow: 1, justifyContent: 'center', padding: space.wide },
});
