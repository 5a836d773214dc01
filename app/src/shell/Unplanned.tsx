import {
  endsOfRuns,
  fiberCount,
  fiberName,
  formatLoss,
  spliceHistory,
  type Cable,
  type ClosureLedger,
  type FiberEnd,
} from '@cordel/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Action } from '../ui/Action';
import { fiberLabel } from '../ui/FiberToken';
import { Sheet } from '../ui/Sheet';
import { space } from '../ui/tokens';
import { Type } from '../ui/Type';

/** Splices that were made and are not, or no longer, in the plan: kept, and shown as such. */
export function Unplanned({ ledger, cables }: { ledger: ClosureLedger; cables: ReadonlyMap<string, Cable> }) {
  const [open, setOpen] = useState(false);
  if (ledger.unplanned.size === 0) return null;
  const end = ({ cableId, fiber }: FiberEnd) => {
    const cable = cables.get(cableId);
    return cable && fiber <= fiberCount(cable.construction)
      ? `${cable.label} ${fiberLabel(fiberName(cable, fiber))}`
      : `fiber ${fiber}`;
  };
  return (
    <>
      <Action
        label={`${ledger.unplanned.size} spliced here but not in the plan`}
        detail="Kept, and listed on the loss sheet"
        onPress={() => setOpen(true)}
      />
      <Sheet title="Spliced, not in the plan" open={open} onClose={() => setOpen(false)}>
        {[...ledger.unplanned].slice(0, 200).map(([id, facts]) => {
          const { last, attempts } = spliceHistory(facts);
          const { subject } = facts[0]!;
          const [left, right] = [endsOfRuns(subject.left), endsOfRuns(subject.right)];
          const losses = last?.readings.map((reading) =>
            reading.loss === null ? '–' : formatLoss(reading.loss),
          );
          return (
            <View key={id} style={styles.splice}>
              <Type look="strong">
                {[left[0], right[0]].map((one) => (one ? end(one) : '?')).join(' to ')}
                {left.length > 1 ? `, ribbon of ${left.length}` : ''}
              </Type>
              <Type look="small" tone="soft">
                {losses ? `${losses.join(' ')} dB` : 'taken back'} · {attempts.length}{' '}
                {attempts.length === 1 ? 'try' : 'tries'}
              </Type>
            </View>
          );
        })}
      </Sheet>
    </>
  );
}

const styles = StyleSheet.create({ splice: { gap: space.hair } });
