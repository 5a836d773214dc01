import {
  formatLoss,
  lossRefusal,
  spliceHistory,
  type Joint,
  type Limits,
  type SpliceState,
  type TrayState,
  reasonWords,
} from '@cordel/core';
import type { ArcAdvice } from '@cordel/core/gear';
import { memo, useState, type ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { usePreferences } from '../../../data/preferences';
import { Action } from '../../../ui/Action';
import { Knot } from '../../../ui/Knot';
import { FullPad, HundredthsPad } from '../../../ui/Pad';
import { useCordelTheme, useWide } from '../../../ui/theme';
import { space, touch } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';

import type { BenchSheet } from './BenchSheets';
import { BeforeArcPanel } from './panels/BeforeArcPanel';
import { DetailsPanel } from './panels/DetailsPanel';
import { LightPad } from './panels/LightPad';
import type { Bench } from './types';
import { useLatest } from '../../../ui/useLatest';
import { allowanceWords, meanWords } from '../../../shell/words';

interface BenchFootProps {
  bench: Bench;
  state: SpliceState;
  tray: TrayState;
  limits: Limits;
  /** Whether the splice takes a reading now: it is open, to be redone, or a new try was asked for. */
  entering: boolean;
  joint: Joint;
  /** What to do with it once it was tried, in a line; null where nothing is advised. */
  advised: string | null;
  /** What to do before the arc. */
  advice: ArcAdvice | null;
  onNewTry: () => void;
  /** So many ends were cleaved again before the arc. */
  onRecleaved: (ends: number) => void;
  onFollow: () => void;
  onSheet: (sheet: BenchSheet) => void;
  /** How fast it goes. */
  pace: ReactNode;
  /** What has to be answered first, in the pad's place. */
  question: ReactNode;
  /** What the keyboard has typed, dB. */
  typed: string | null;
  refusal: string | null;
}

type Panel = 'pad' | 'full' | 'before' | 'details';

/** The lower half of the bench, under the thumb: tray mean, pad or decision, and the last verdict. */
export function BenchFoot({
  bench,
  state,
  tray,
  limits,
  entering,
  joint,
  advised,
  advice,
  onNewTry,
  onRecleaved,
  onFollow,
  onSheet,
  pace,
  question,
  typed,
  refusal,
}: BenchFootProps) {
  const wide = useWide();
  const { textScale } = useCordelTheme();
  const spliceId = state.splice.id;
  // A panel was opened for one splice; at the next the pad is back.
  const [opened, setOpened] = useState<{ for: string; panel: Panel }>({ for: spliceId, panel: 'pad' });
  const panel = opened.for === spliceId ? opened.panel : 'pad';
  const setPanel = (next: Panel) => setOpened({ for: spliceId, panel: next });

  // The pad is drawn once and keeps calling the newest handlers.
  const onReading = useLatest((loss: number) => {
    // Most readings come from the pad itself: then nothing is drawn before they are kept.
    if (panel !== 'pad') setPanel('pad');
    bench.record(loss);
  });
  const onFull = useLatest(() => setPanel('full'));
  const onBefore = useLatest(() => setPanel('before'));
  const onDetails = useLatest(() => setPanel('details'));
  const onLeave = useLatest(() => bench.answer('ask'));
  const onSkip = useLatest(bench.skip);

  // At large text the pad comes first, since not all of it is in sight.
  const large = textScale > 1.2;
  const mean = (
    <View>
      <TrayMean tray={tray} limits={limits} />
      <View style={styles.pace}>{pace}</View>
    </View>
  );
  return (
    <View style={styles.foot}>
      {large ? null : mean}
      {!entering ? (
        <Decision
          bench={bench}
          state={state}
          sleeve={joint.sleeve !== null}
          advised={advised}
          onNewTry={onNewTry}
          onSheet={onSheet}
        />
      ) : question ? (
        question
      ) : panel === 'full' ? (
        <FullPad refusal={lossRefusal} onReading={onReading} onClose={() => setPanel('pad')} />
      ) : panel === 'before' ? (
        <BeforeArcPanel
          before={bench.details.before}
          fibers={bench.fibers}
          advice={advice}
          onChange={(before) => bench.setDetails({ ...bench.details, before })}
          onRecleaved={onRecleaved}
          onDone={() => setPanel('pad')}
        />
      ) : panel === 'details' ? (
        <DetailsPanel
          details={bench.details}
          ribbon={bench.fibers > 1}
          joint={joint}
          onChange={bench.setDetails}
          onDone={() => setPanel('pad')}
          onBroken={() => bench.record(null)}
          onFollow={onFollow}
          onSheet={(sheet) => {
            setPanel('pad');
            onSheet(sheet);
          }}
        />
      ) : (
        <>
          {bench.read.length > 0 ? (
            <Action
              bench
              kind="now"
              label={`The other ${bench.fibers - bench.read.length} read ${formatLoss(bench.read.at(-1)!)} too`}
              onPress={bench.recordSame}
            />
          ) : null}
          {joint.kind === 'mechanical' ? (
            <LightPad onLight={bench.recordLight} />
          ) : (
            <HundredthsPad onReading={onReading} keyHints={wide} />
          )}
          <BesidePad
            onFull={joint.kind === 'mechanical' ? null : onFull}
            onBefore={joint.kind === 'mechanical' ? null : onBefore}
            onDetails={onDetails}
            onLeave={mayBeLeft(state) ? onLeave : null}
            onSkip={onSkip}
          />
        </>
      )}
      {question && !bench.last ? null : (
        <LastEntry
          bench={bench}
          typed={typed}
          refusal={refusal}
          entering={entering && !question}
          sleeve={joint.sleeve !== null}
        />
      )}
      {large ? mean : null}
    </View>
  );
}

/** A splice over its limit may be left to the owner before the tries are used up; one that broke or has no sleeve may not. */
function mayBeLeft(state: SpliceState): boolean {
  if (state.verdict.mark !== 'redo') return false;
  const { last } = spliceHistory(state.facts);
  return !last?.proofTestFailed && !last?.sleeveForgotten && last?.light !== 'glows';
}

const BesidePad = memo(function BesidePad({
  onFull,
  onBefore,
  onDetails,
  onLeave,
  onSkip,
}: {
  onFull: (() => void) | null;
  onBefore: (() => void) | null;
  onDetails: () => void;
  onLeave: (() => void) | null;
  onSkip: () => void;
}) {
  return (
    <View style={styles.row}>
      {onFull ? (
        <Action bench label=".10 +" spoken="0.10 dB or more" onPress={onFull} style={styles.flex} />
      ) : null}
      {onBefore ? <Action bench label="Before arc" onPress={onBefore} style={styles.flex} /> : null}
      <Action bench label="Details" onPress={onDetails} style={styles.flex} />
      {onLeave ? <Action bench label="Leave to owner" onPress={onLeave} style={styles.flex} /> : null}
      <Action bench label="Skip" onPress={onSkip} style={styles.flex} />
    </View>
  );
});

function TrayMean({ tray, limits }: { tray: TrayState; limits: Limits }) {
  const { meanOver, allowance } = tray.rollUp;
  return (
    <View style={styles.mean}>
      <Type look="small" tone="soft">
        Tray mean est.{' '}
        <Type look="heading" tone={meanOver ? 'accent' : 'ink'}>
          {meanWords(tray.rollUp)}
        </Type>{' '}
        of {formatLoss(allowance.limit)} dB
      </Type>
      <Type look="smallStrong" style={styles.allowance}>
        {allowanceWords(allowance, limits)}
      </Type>
    </View>
  );
}

/** A splice that is settled asks for no reading: what can be done with it, the most likely first. */
function Decision({
  bench,
  state,
  sleeve,
  advised,
  onNewTry,
  onSheet,
}: Pick<BenchFootProps, 'bench' | 'state' | 'advised' | 'onNewTry' | 'onSheet'> & { sleeve: boolean }) {
  const owner = state.verdict.mark === 'owner';
  return (
    <View style={styles.decision}>
      <Type look="strong">{state.verdict.reasons.map(reasonWords).join(' ') || 'This splice holds.'}</Type>
      {advised ? <Type>{advised}</Type> : null}
      <Action bench kind="now" label="Next to splice" onPress={bench.skip} />
      {owner ? (
        <View style={styles.row}>
          <Action bench label="Owner allows it" onPress={() => bench.answer('allow')} style={styles.flex} />
          <Action bench label="Owner wants a redo" onPress={() => bench.answer('redo')} style={styles.flex} />
        </View>
      ) : null}
      <View style={styles.row}>
        <Action bench label="Splice it again" onPress={onNewTry} style={styles.flex} />
        {sleeve ? (
          <Action bench label="Sleeve forgotten" onPress={bench.sleeveForgotten} style={styles.flex} />
        ) : null}
        <Action bench label="History, correct" onPress={() => onSheet('history')} style={styles.flex} />
      </View>
      <View style={styles.row}>
        <Action bench label="Gear tonight" onPress={() => onSheet('gear')} style={styles.flex} />
        <Action bench label="Order of work" onPress={() => onSheet('order')} style={styles.flex} />
      </View>
    </View>
  );
}

/** The verdict on the last entry, at once, with the few seconds in which it can be taken back; and the sleeve, asked before the next one. */
function LastEntry({
  bench,
  typed,
  refusal,
  entering,
  sleeve,
}: Pick<BenchFootProps, 'bench' | 'typed' | 'refusal' | 'entering'> & { sleeve: boolean }) {
  const { last, details } = bench;
  const { sleeveReminder } = usePreferences();
  const wide = useWide();
  const onTakeBack = useLatest(bench.takeBack);
  const onSleeve = useLatest(() =>
    bench.setDetails({ ...bench.details, sleeveConfirmed: !details.sleeveConfirmed }),
  );
  const askSleeve =
    entering && sleeve && sleeveReminder && bench.read.length === 0 && !details.sleeveForgotten;
  return (
    <View style={styles.last}>
      <View style={styles.said} aria-live="polite" role="status">
        {typed !== null ? (
          <Type look="heading">{typed} dB · Enter confirms</Type>
        ) : refusal ? (
          <Type look="smallStrong" tone="accent" style={styles.words}>
            {refusal}
          </Type>
        ) : last ? (
          <>
            <Knot mark={last.mark} size={22} />
            <Type look="smallStrong" testID="last-verdict" style={styles.words}>
              {last.text}
            </Type>
          </>
        ) : !entering ? null : (
          <Type look="small" tone="soft" style={styles.words}>
            {wide
              ? 'Digits enter · Enter confirms · arrows move along the cord · ? lists the keys'
              : sleeve
                ? 'Tap what the machine reads.'
                : 'Tap what the light shows.'}
          </Type>
        )}
      </View>
      {last?.takeBack ? <Action bench label="Take back" onPress={onTakeBack} /> : null}
      {askSleeve ? (
        <Action
          bench
          label={details.sleeveConfirmed ? 'Sleeve is on' : 'Sleeve on?'}
          pressed={details.sleeveConfirmed}
          onPress={onSleeve}
        />
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  foot: { padding: space.small, paddingTop: space.tight, gap: space.tight },
  mean: {
    flexDirection: 'row',
    flexWrap: 'wrap',
    alignItems: 'baseline',
    justifyContent: 'space-between',
    columnGap: space.medium,
    paddingHorizontal: space.tight,
    minHeight: 30,
  },
  pace: { paddingHorizontal: space.tight, minHeight: 20 },
  allowance: { flexShrink: 1, textAlign: 'right' },
  row: { flexDirection: 'row', gap: space.tight },
  flex: { flex: 1, paddingHorizontal: space.tight },
  decision: { gap: space.small, padding: space.tight },
  last: {
    minHeight: touch.bench,
    flexDirection: 'row',
    alignItems: 'center',
    gap: space.small,
    paddingHorizontal: space.tight,
  },
  said: { flex: 1, flexDirection: 'row', alignItems: 'center', gap: space.small },
  words: { flex: 1 },
});
