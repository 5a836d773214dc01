import {
  findSplice,
  formatLoss,
  formatMean,
  markWords,
  type ClosureLedger,
  type Mark,
  type RollUp,
} from '@cordel/core';
import { StyleSheet, View } from 'react-native';
import { useCordelTheme } from '../ui/theme';
import { space, stroke } from '../ui/tokens';
import { Type } from '../ui/Type';
import { allowanceWords, meanWords, measuredMeanWords } from './words';

/** The numbers of a tray or a closure against their limits. */
export function RollUpTable({
  rollUp,
  ledger,
  of,
}: {
  rollUp: RollUp;
  ledger: ClosureLedger;
  of: 'Tray' | 'Closure';
}) {
  const { palette } = useCordelTheme();
  const dB = (value: number | null) => (value === null ? '–' : `${formatMean(value)} dB`);
  const measured = measuredMeanWords(rollUp);
  const rows: { label: string; value: string; alarm?: boolean }[] = [
    {
      label: `${of} mean, estimated`,
      value: `${meanWords(rollUp)}${rollUp.mean === null ? '' : ' dB'} of ${formatLoss(rollUp.allowance.limit)}`,
      alarm: rollUp.meanOver,
    },
    ...(measured === null
      ? []
      : [{ label: `${of} mean, measured`, value: measured, alarm: rollUp.measured!.over }]),
    {
      label: 'Allowance',
      value: allowanceWords(rollUp.allowance, ledger.limits),
      alarm: (rollUp.allowance.mayAverage ?? 0) < 0,
    },
    { label: 'Median', value: dB(rollUp.median) },
    { label: '95 % are within', value: dB(rollUp.p95) },
    { label: 'Worst, estimated', value: worstWords(rollUp, ledger) },
    { label: `${rollUp.count} planned`, value: countWords(rollUp), alarm: rollUp.marks.redo > 0 },
  ];
  return (
    <View role="table" aria-label={`${of} numbers`} style={styles.table}>
      {rows.map(({ label, value, alarm }) => (
        <View key={label} role="row" style={[styles.row, { borderBottomColor: palette.hairline }]}>
          <Type role="rowheader" look="small" tone="soft" style={styles.label}>
            {label}
          </Type>
          <Type role="cell" look="heading" tone={alarm ? 'accent' : 'ink'} style={styles.value}>
            {value}
          </Type>
        </View>
      ))}
    </View>
  );
}

/** "5 holds · 19 open": only what there is. */
function countWords({ marks }: RollUp): string {
  return (['holds', 'allowed', 'owner', 'redo', 'open'] as Mark[])
    .filter((mark) => marks[mark] > 0)
    .map((mark) => `${marks[mark]} ${markWords[mark].toLowerCase()}`)
    .join(' · ');
}

function worstWords(rollUp: RollUp, ledger: ClosureLedger): string {
  if (!rollUp.worst) return '–';
  const { tray, slot } = findSplice(ledger, rollUp.worst.spliceId)!.splice;
  return `${formatLoss(rollUp.worst.loss)} dB, tray ${tray} slot ${slot}`;
}

const styles = StyleSheet.create({
  table: { paddingHorizontal: space.large },
  row: {
    flexDirection: 'row',
    flexWrap: 'wrap',
    alignItems: 'baseline',
    justifyContent: 'space-between',
    columnGap: space.medium,
    borderBottomWidth: stroke.hair,
    paddingVertical: space.tight,
  },
  label: { flexShrink: 0 },
  value: { flexShrink: 1, textAlign: 'right' },
});
