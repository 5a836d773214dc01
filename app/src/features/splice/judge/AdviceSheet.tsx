import {
  formatLoss,
  formatMean,
  highestLoss,
  highestMeasured,
  type ClosureLedger,
  type SpliceState,
  type TrayState,
} from '@cordel/core';
import {
  adviceLine,
  choiceWords,
  effectOf,
  flipWords,
  oddsOf,
  type Choice,
  type SpliceAdvice,
} from '@cordel/core/advice';
import { StyleSheet, View } from 'react-native';
import { lossTold } from '../../../shell/words';
import { Sheet } from '../../../ui/Sheet';
import { useCordelTheme } from '../../../ui/theme';
import { space, stroke } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';

/** Why this is advised: what each choice is expected to cost, what would change it, the odds and what they are made from, and what the reading does to the limits. */
export function AdviceSheet({
  told,
  ledger,
  tray,
  state,
  onClose,
}: {
  told: SpliceAdvice;
  ledger: ClosureLedger;
  tray: TrayState;
  state: SpliceState;
  onClose: () => void;
}) {
  const { advice, odds } = told;
  const effect = effectOf(ledger, tray, state);
  const costs = (Object.entries(advice.costs) as [Choice, number][]).sort((a, b) => a[1] - b[1]);
  return (
    <Sheet title="Why this advice" open onClose={onClose}>
      <Type look="strong">{adviceLine(told)}</Type>
      <Type>{flipWords(advice)}</Type>
      <Rows
        title="Expected cost, in minutes of the window"
        rows={costs.map(([choice, cost]) => [choiceWords[choice], `${Math.round(cost)} min`])}
      />
      <Rows
        title="A new try"
        rows={[
          [`holds (at most ${formatLoss(told.limit)} dB)`, oddsOf(odds.holds)],
          ['is better than this one', oddsOf(odds.better)],
          ['what made this one bad is still there', oddsOf(odds.persists)],
          ['reads on average, where all is well', `${formatMean(odds.mean)} dB`],
        ]}
      />
      <Type look="small" tone="soft">
        {Math.round(odds.tries) === 0
          ? 'There is no record between these cables with this machine yet: these are the odds of a crew in good order.'
          : `From ${Math.round(odds.tries)} first tries between these cables with this machine, later ones counting more, and from how redos went. While they are few, what is usual counts with them.`}
      </Type>
      <Rows
        title="What this estimate does, where it stays"
        rows={[
          ...(effect.ribbonMean === null
            ? []
            : [['ribbon mean', `${formatMean(effect.ribbonMean)} dB`] as const]),
          ['tray mean', means(effect.tray)],
          ['the rest of the tray may average', allowed(effect.tray.mayAverage)],
          ['closure mean', means(effect.closure)],
          ['the rest of the closure may average', allowed(effect.closure.mayAverage)],
          ...(effect.rank === null
            ? []
            : [['in its tray', effect.rank === 1 ? 'the worst' : 'the second worst'] as const]),
          ['the record will show', recordWords(state)],
        ]}
      />
    </Sheet>
  );
}

/** What stands of it in what is handed over, where nothing more is done. */
function recordWords(state: SpliceState): string {
  const loss = lossTold(highestLoss(state.readings), highestMeasured(state.measured));
  const what = {
    open: 'not spliced',
    holds: 'holds',
    allowed: 'over its limit, allowed by the owner',
    redo: 'to be redone, which stands against acceptance',
    owner: 'the owner’s call, which stands against acceptance',
  }[state.verdict.mark];
  return [loss, what].filter(Boolean).join(': ');
}

function means({
  without,
  with: now,
  limit,
}: {
  without: number | null;
  with: number | null;
  limit: number;
}): string {
  const text = (value: number | null) => (value === null ? 'none' : formatMean(value));
  return `${text(without)} without it, ${text(now)} with it, of ${formatLoss(limit)} dB`;
}

function allowed(mean: number | null): string {
  if (mean === null) return 'nothing is left';
  return mean < 0 ? 'below nothing: it can’t be kept' : `${formatMean(mean)} dB`;
}

function Rows({ title, rows }: { title: string; rows: readonly (readonly [string, string])[] }) {
  const { palette } = useCordelTheme();
  return (
    <View>
      <Type look="smallStrong" tone="soft" role="heading" aria-level={3}>
        {title}
      </Type>
      {rows.map(([what, value]) => (
        <View key={what} style={[styles.row, { borderColor: palette.hairline }]}>
          <Type style={styles.what}>{what}</Type>
          <Type look="strong" style={styles.value}>
            {value}
          </Type>
        </View>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  row: {
    flexDirection: 'row',
    flexWrap: 'wrap',
    justifyContent: 'space-between',
    columnGap: space.medium,
    paddingVertical: space.tight,
    borderBottomWidth: stroke.hair,
  },
  what: { flexGrow: 1, flexShrink: 1, flexBasis: 150 },
  value: { flexShrink: 1, textAlign: 'right' },
});
