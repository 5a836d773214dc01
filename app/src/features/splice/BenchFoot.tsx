import {
  formatLoss,
  formatMean,
  lossRefusal,
  spliceHistory,
  type Cable,
  type Limits,
  type SpliceState,
  type Tick,
  type TrayState,
} from '@cordel/core';
import { memo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { usePreferences } from '../../data/preferences';
import { Action } from '../../ui/Action';
import { Knot } from '../../ui/Knot';
import { later } from '../../ui/later';
import { FullPad, HundredthsPad } from '../../ui/Pad';
import { useWide } from '../../ui/theme';
import { space, touch } from '../../ui/tokens';
import { Type } from '../../ui/Type';

import type { Bench } from './useBench';
import { useLatest } from '../../ui/useLatest';
import { allowanceWords } from './words';

interface BenchFootProps {
  bench: Bench;
  state: SpliceState;
  tray: TrayState;
  limits: Limits;
  /** Whether the splice takes a reading now: it is open, to be redone, or a new try was asked for. */
  entering: boolean;
  onNewTry: () => void;
  onHistory: () => void;
  onFollow: () => void;
  onPaste: () => void;
  cables: ReadonlyMap<string, Cable>;
  /** How the ribbons of this holder lie was not checked yet: what to do with the answer. */
  onPolarity: ((answer: NonNullable<Tick['answer']>, note: string) => void) | null;
  /** What the keyboard has typed, dB. */
  typed: string | null;
  refusal: string | null;
}

const DetailsPanel = later('the details', async () => (await import('../fetchedLater')).DetailsPanel);
/** Asked before the first ribbon of a holder; fetched once the bench stands. */
const PolarityCheck = later('the question', async () => (await import('../fetchedLater')).PolarityCheck);

type Panel = 'pad' | 'full' | 'details';

/** The lower half of the bench, under the thumb: tray mean, pad or decision, and the last verdict. */
export function BenchFoot({
  bench,
  state,
  tray,
  limits,
  entering,
  onNewTry,
  onHistory,
  onFollow,
  onPaste,
  cables,
  onPolarity,
  typed,
  refusal,
}: BenchFootProps) {
  const wide = useWide();
  const spliceId = state.splice.id;
  // A panel was opened for one splice; at the next the pad is back.
  const [opened, setOpened] = useState<{ for: string; panel: Panel }>({ for: spliceId, panel: 'pad' });
  const panel = opened.for === spliceId ? opened.panel : 'pad';
  const setPanel = (next: Panel) => setOpened({ for: spliceId, panel: next });

  // The pad is drawn once and keeps calling the newest handlers.
  const onReading = useLatest((loss: number) => {
    setPanel('pad');
    bench.record(loss);
  });
  const onFull = useLatest(() => setPanel('full'));
  const onDetails = useLatest(() => setPanel('details'));
  const onLeave = useLatest(() => bench.answer('ask'));
  const onSkip = useLatest(bench.skip);

  return (
    <View style={styles.foot}>
      <TrayMean tray={tray} limits={limits} />
      {!entering ? (
        <Decision bench={bench} state={state} onNewTry={onNewTry} onHistory={onHistory} />
      ) : onPolarity ? (
        <PolarityCheck splice={state.splice} cables={cables} onDone={onPolarity} />
      ) : panel === 'full' ? (
        <FullPad refusal={lossRefusal} onReading={onReading} onClose={() => setPanel('pad')} />
      ) : panel === 'details' ? (
        <DetailsPanel
          details={bench.details}
          angles={state.splice.kind === 'single'}
          onChange={bench.setDetails}
          onDone={() => setPanel('pad')}
          onBroken={() => bench.record(null)}
          onFollow={onFollow}
          onPaste={bench.fibers > 1 ? onPaste : null}
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
          <HundredthsPad onReading={onReading} keyHints={wide} />
          <BesidePad
            angles={state.splice.kind === 'single'}
            onFull={onFull}
            onDetails={onDetails}
            onLeave={mayBeLeft(state) ? onLeave : null}
            onSkip={onSkip}
          />
        </>
      )}
      <LastEntry bench={bench} typed={typed} refusal={refusal} entering={entering && !onPolarity} />
    </View>
  );
}

/** A splice over its limit may be left to the owner before the tries are used up; one that broke or has no sleeve may not. */
function mayBeLeft(state: SpliceState): boolean {
  if (state.verdict.mark !== 'redo') return false;
  const { last } = spliceHistory(state.facts);
  return !last?.proofTestFailed && !last?.sleeveForgotten;
}

const BesidePad = memo(function BesidePad({
  angles,
  onFull,
  onDetails,
  onLeave,
  onSkip,
}: {
  angles: boolean;
  onFull: () => void;
  onDetails: () => void;
  onLeave: (() => void) | null;
  onSkip: () => void;
}) {
  return (
    <View style={styles.row}>
      <Action bench label=".10 +" spoken="0.10 dB or more" onPress={onFull} style={styles.flex} />
      <Action
        bench
        label="Details"
        detail={angles ? 'angles, proof, note' : 'proof, note'}
        onPress={onDetails}
        style={styles.wider}
      />
      {onLeave ? <Action bench label="Leave to owner" onPress={onLeave} style={styles.flex} /> : null}
      <Action bench label="Skip" onPress={onSkip} style={styles.flex} />
    </View>
  );
});

function TrayMean({ tray, limits }: { tray: TrayState; limits: Limits }) {
  const { mean, meanOver, allowance } = tray.rollUp;
  return (
    <View style={styles.mean}>
      <Type look="small" tone="soft">
        Tray mean{' '}
        <Type look="heading" tone={meanOver ? 'accent' : 'ink'}>
          {mean === null ? '–' : formatMean(mean)}
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
  onNewTry,
  onHistory,
}: Pick<BenchFootProps, 'bench' | 'state' | 'onNewTry' | 'onHistory'>) {
  const owner = state.verdict.mark === 'owner';
  return (
    <View style={styles.decision}>
      <Type look="strong">
        {state.verdict.reasons.map((reason) => reason.message).join(' ') || 'This splice holds.'}
      </Type>
      <Action bench kind="now" label="Next to splice" onPress={bench.skip} />
      {owner ? (
        <View style={styles.row}>
          <Action bench label="Owner allows it" onPress={() => bench.answer('allow')} style={styles.flex} />
          <Action bench label="Owner wants a redo" onPress={() => bench.answer('redo')} style={styles.flex} />
        </View>
      ) : null}
      <View style={styles.row}>
        <Action bench label="Splice it again" onPress={onNewTry} style={styles.flex} />
        <Action bench label="Sleeve forgotten" onPress={bench.sleeveForgotten} style={styles.flex} />
        <Action bench label="History, correct" onPress={onHistory} style={styles.flex} />
      </View>
    </View>
  );
}

/** The verdict on the last entry, at once, and the few seconds in which it can be taken back. */
function LastEntry({
  bench,
  typed,
  refusal,
  entering,
}: Pick<BenchFootProps, 'bench' | 'typed' | 'refusal' | 'entering'>) {
  const { last } = bench;
  const { sleeveReminder } = usePreferences();
  const wide = useWide();
  const onTakeBack = useLatest(bench.takeBack);
  return (
    <View style={styles.last} aria-live="polite" role="status">
      {typed !== null ? (
        <Type look="heading">{typed} dB · Enter confirms</Type>
      ) : refusal ? (
        <Type look="smallStrong" tone="accent" style={styles.words}>
          {refusal}
        </Type>
      ) : last ? (
        <>
          <Knot mark={last.mark} size={22} />
          <View style={styles.words}>
            <Type look="smallStrong" testID="last-verdict">
              {last.text}
            </Type>
            {entering && sleeveReminder && bench.read.length === 0 ? (
              <Type look="small">Next: sleeve on first.</Type>
            ) : null}
          </View>
          {last.takeBack ? <Action bench label="Take back" onPress={onTakeBack} /> : null}
        </>
      ) : !entering ? null : (
        <Type look="small" tone="soft">
          {wide
            ? 'Digits enter · Enter confirms · arrows move along the cord · ? lists the keys'
            : sleeveReminder
              ? 'Sleeve on first. Then tap what the machine reads.'
              : 'Tap what the machine reads.'}
        </Type>
      )}
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
  allowance: { flexShrink: 1, textAlign: 'right' },
  row: { flexDirection: 'row', gap: space.tight },
  flex: { flex: 1, paddingHorizontal: space.tight },
  wider: { flex: 1.6, paddingHorizontal: space.tight },
  decision: { gap: space.small, padding: space.tight },
  last: {
    minHeight: touch.bench,
    flexDirection: 'row',
    alignItems: 'center',
    gap: space.small,
    paddingHorizontal: space.tight,
  },
  words: { flex: 1 },
});
