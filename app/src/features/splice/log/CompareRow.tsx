import { findSplice, formatLoss, spliceHistory, type ClosureLedger } from '@cordel/core';
import { matchWords, type LogMatch, type LogSplice } from '@cordel/core/machine';
import { memo } from 'react';
import { StyleSheet, View } from 'react-native';
import { Action } from '../../../ui/Action';
import { useCordelTheme } from '../../../ui/theme';
import { clockTime, type ShownZone } from '../../../ui/times';
import { space, stroke } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';

interface CompareRowProps {
  match: LogMatch;
  log: readonly LogSplice[];
  ledger: ClosureLedger;
  zone: ShownZone;
  /** Not to be recorded. */
  left: boolean;
  /** What the log says is taken. */
  taken: boolean;
  onLeave: () => void;
  onTake: () => void;
}

/** A row of the comparison: what the log says, and what is on record, side by side. */
export const CompareRow = memo(function CompareRow({
  match,
  log,
  ledger,
  zone,
  left,
  taken,
  onLeave,
  onTake,
}: CompareRowProps) {
  const { palette } = useCordelTheme();
  const { what, row, splice, tryId, doubt } = match;
  const own = row === null ? null : log[row]!;
  const state = splice === null ? null : findSplice(ledger, splice);
  const attempt =
    state && tryId ? spliceHistory(state.facts).attempts.find(({ fact }) => fact.id === tryId) : null;
  const place = state ? `Tray ${state.splice.tray} · slot ${state.splice.slot}` : 'Of no splice here';
  const losses = (list: readonly (number | null)[], failed: boolean) =>
    `${list.map((one) => (one === null ? 'no loss' : formatLoss(one))).join(' · ')}${failed ? ' · proof test failed' : ''}`;
  return (
    <View
      role="group"
      aria-label={`${place}: ${matchWords[what]}`}
      style={[styles.row, { borderBottomColor: palette.hairline }]}
    >
      <View style={styles.head}>
        <Type look="strong">{place}</Type>
        <Type look="smallStrong" tone={what === 'differs' ? 'accent' : 'ink'}>
          {what === 'fills' && left
            ? 'Left out'
            : what === 'differs' && taken
              ? 'Corrected'
              : matchWords[what]}
        </Type>
      </View>
      <View style={styles.columns}>
        <View style={styles.column}>
          <Type look="small" tone="soft">
            {own
              ? `Log${own.number ? ` no. ${own.number}` : ''}${own.at === null ? '' : `, ${clockTime(own.at, zone)}`}${own.label ? `, “${own.label}”` : ''}`
              : 'Log'}
          </Type>
          <Type look="reading">
            {own
              ? losses(
                  own.readings.map(({ loss }) => loss),
                  own.proofTestFailed,
                )
              : '–'}
          </Type>
        </View>
        <View style={styles.column}>
          <Type look="small" tone="soft">
            {attempt
              ? `${sourceWords[attempt.fact.body.source]}, ${clockTime(attempt.fact.madeAt, zone)}`
              : 'On record'}
          </Type>
          <Type look="reading">
            {attempt
              ? losses(
                  attempt.readings.map(({ loss }) => loss),
                  attempt.proofTestFailed,
                )
              : '–'}
          </Type>
        </View>
      </View>
      {doubt && what === 'fills' ? (
        <Type look="small" tone="accent">
          {doubt === 'again'
            ? 'Taken as another try of this splice. Leave it out if it is of another one.'
            : 'Others before it are open, or something is on record here. Look whether it is of this splice.'}
        </Type>
      ) : null}
      {what === 'fills' ? (
        <Action label={left ? 'Record it' : 'Leave it out'} onPress={onLeave} style={styles.key} />
      ) : what === 'differs' ? (
        <Action
          label={taken ? 'Keep what was entered' : 'Take what the log says'}
          onPress={onTake}
          style={styles.key}
        />
      ) : null}
    </View>
  );
});

const sourceWords = { hand: 'By hand', machine: 'From the machine', log: 'From a log' } as const;

const styles = StyleSheet.create({
  row: { gap: space.tight, paddingVertical: space.medium, borderBottomWidth: stroke.hair },
  head: { flexDirection: 'row', flexWrap: 'wrap', justifyContent: 'space-between', columnGap: space.medium },
  columns: { flexDirection: 'row', gap: space.medium },
  column: { flex: 1, minWidth: 0 },
  key: { alignSelf: 'flex-start' },
});
