import type { Cable } from '../line/cable';
import type { Closure } from '../plan/closure';
import type { PlannedSplice } from '../plan/order';

/** What protects a splice. Each kind needs its own heater program. */
export type SleeveKind = 'single-40' | 'single-60' | 'ribbon' | 'connector';

export const sleeveWords: Readonly<Record<SleeveKind, string>> = {
  'single-40': 'single sleeve, 40 mm',
  'single-60': 'single sleeve, 60 mm',
  ribbon: 'ribbon sleeve, 40 mm',
  /** Inside a splice-on connector, about 27 mm (common practice). */
  connector: 'connector sleeve, 27 mm',
};

/** The sleeve that a splice of this closure wears. */
export function sleeveOf(
  closure: Pick<Closure, 'sleeveLength'>,
  splice: Pick<PlannedSplice, 'kind'>,
): Exclude<SleeveKind, 'connector'> {
  if (splice.kind === 'ribbon') return 'ribbon';
  return closure.sleeveLength === 40 ? 'single-40' : 'single-60';
}

/** Whether one side of a splice is a drop or a pigtail: those have steps of their own. */
export function smallSide(
  splice: Pick<PlannedSplice, 'left' | 'right'>,
  cables: ReadonlyMap<string, Cable>,
): Cable | null {
  for (const [end] of [splice.left, splice.right]) {
    const cable = cables.get(end!.cableId);
    if (cable && (cable.construction.kind === 'drop' || cable.construction.kind === 'pigtails')) return cable;
  }
  return null;
}
