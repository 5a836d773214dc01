import { spliceHistory, type MeasuredLoss, type TrayState, type SpliceState } from '@cordel/core';

/** A fiber of a joint that can be measured: it was made, and the machine estimated a loss. */
export interface ToMeasure {
  readonly state: SpliceState;
  readonly attemptId: string;
  /** In the splice, from 1. */
  readonly position: number;
  /** dB */
  readonly estimate: number;
  /** dB; null: not measured, or from one end only. */
  readonly measured: number | null;
  readonly fact: MeasuredLoss | null;
}

/** Of a tray, slot by slot. */
export function toMeasure(tray: TrayState): ToMeasure[] {
  return tray.splices.flatMap((state) => {
    if (state.readings.length === 0) return [];
    const { last, measured } = spliceHistory(state.facts);
    if (!last) return [];
    return state.readings.flatMap(({ loss }, index): ToMeasure[] =>
      loss === null
        ? []
        : [
            {
              state,
              attemptId: last.fact.id,
              position: index + 1,
              estimate: loss,
              measured: state.measured[index] ?? null,
              fact: measured[index] ?? null,
            },
          ],
    );
  });
}

export const keyOf = ({ state, position }: Pick<ToMeasure, 'state' | 'position'>) =>
  `${state.splice.id} ${position}`;
