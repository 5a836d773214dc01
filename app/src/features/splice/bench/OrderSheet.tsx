import { nextSplice, type ClosureLedger, type SpliceState, type WorkOrder } from '@cordel/core';
import { setOrderOfWork, useOrderOfWork } from '../../../data/orderOfWork';
import { Action } from '../../../ui/Action';
import { Choice } from '../../../ui/Field';
import { Sheet } from '../../../ui/Sheet';
import { Type } from '../../../ui/Type';

interface OrderSheetProps {
  closureId: string;
  ledger: ClosureLedger;
  hereId: string;
  taken: ReadonlySet<string>;
  onGo: (state: SpliceState) => void;
  onClose: () => void;
}

const orders = [
  { value: 'tray', label: 'Tray after tray' },
  { value: 'tube', label: 'Tube after tube' },
  { value: 'redo', label: 'Only what is to be redone' },
] as const;

/** In which order the bench goes on; kept for this closure on this device. */
export function OrderSheet({ closureId, ledger, hereId, taken, onGo, onClose }: OrderSheetProps) {
  const order = useOrderOfWork(closureId);
  const circuits = [...new Set(ledger.plan.splices.flatMap(({ circuit }) => circuit ?? []))];
  const next = nextSplice(ledger, hereId, order, taken);
  const value = order.by === 'circuit' ? `circuit ${order.circuit}` : order.by;
  return (
    <Sheet title="Order of work" open onClose={onClose}>
      <Choice<string>
        bench
        label="What comes next"
        value={value}
        options={[
          ...orders,
          ...circuits.map((circuit) => ({ value: `circuit ${circuit}`, label: `${circuit} first` })),
        ]}
        onChange={(chosen) => setOrderOfWork(closureId, orderOf(chosen))}
      />
      <Type role="status">
        {next
          ? `Next: tray ${next.splice.tray}, slot ${next.splice.slot}${next.splice.circuit ? `, ${next.splice.circuit}` : ''}.`
          : 'Nothing else is left in this order.'}
      </Type>
      {next ? (
        <Action
          bench
          kind="now"
          label={`Go to tray ${next.splice.tray}, slot ${next.splice.slot}`}
          onPress={() => {
            onClose();
            onGo(next);
          }}
        />
      ) : null}
    </Sheet>
  );
}

function orderOf(chosen: string): WorkOrder {
  const by = orders.find(({ value }) => value === chosen)?.value;
  return by ? { by } : { by: 'circuit', circuit: chosen.slice('circuit '.length) };
}
