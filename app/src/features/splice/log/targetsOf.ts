import {
  inWorkOrder,
  lossLimit,
  needsSplicing,
  spliceHistory,
  type ClosureLedger,
  type WorkOrder,
} from '@cordel/core';
import type { MatchTarget } from '@cordel/core/machine';

/**
 * A closure's splices as a log is matched to them, in the order of work.
 * @param memory whose log it is
 * @param gearId the machine among the crews' gear; null: nobody said which
 */
export function targetsOf(
  ledger: ClosureLedger,
  order: WorkOrder,
  memory: string,
  gearId: string | null,
): MatchTarget[] {
  return inWorkOrder(ledger, order).map((state) => {
    const { splice, facts } = state;
    return {
      id: splice.id,
      tray: splice.tray,
      slot: splice.slot,
      leftFibers: splice.left.map(({ fiber }) => fiber),
      circuit: splice.circuit,
      open: needsSplicing(state),
      limit: lossLimit(splice.kind, ledger.limits),
      tries: spliceHistory(facts).attempts.map(({ fact, readings, proofTestFailed }) => {
        const { source, origin, gear } = fact.body;
        const own = origin?.memory === memory;
        const other = gearId !== null && gear?.machine !== undefined && gear.machine.id !== gearId;
        return {
          id: fact.id,
          at: Date.parse(fact.madeAt),
          losses: readings.map(({ loss }) => loss),
          proofTestFailed,
          source,
          origin: own
            ? { splice: origin.splice, at: origin.at === null ? null : Date.parse(origin.at) }
            : null,
          elsewhere: other || (origin !== undefined && !own),
        };
      }),
    };
  });
}
