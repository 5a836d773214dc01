import { isOver, type Said } from '@cordel/core/advice';
import type { JudgedNow } from '../../../data/judge/useJudged';

/**
 * What is to be said of the series at hand: of the machine of the night, or where none was picked of the one with which splices like this one are made. null: nothing.
 */
export function seriesAt(
  judged: JudgedNow | null,
  machine: string | null,
  kind: 'single' | 'ribbon',
): Said | null {
  const night = judged?.nights.find((one) =>
    machine === null ? one.kind === kind : one.machine === machine,
  );
  return night && !isOver(night.last, judged!.at) ? night.said : null;
}
