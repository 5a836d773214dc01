import { isSmall, type Cable } from '../../line/cable';
import type { Closure } from '../../plan/closure';
import type { PlannedSplice } from '../../plan/order/order';

/** What protects a splice. Each kind needs its own heater program. */
export type SleeveKind = 'single-40' | 'single-60' | 'ribbon' | 'connector';

export const sleeveWords: Readonly<Record<SleeveKind, string>> = {
  'single-40': 'single sleeve, 40 mm',
  'single-60': 'single sleeve, 60 mm',
  ribbon: 'ribbon sleeve, 40 mm',
  /** Inside a splice-on connector, about 27 mm (common practice). */
  connector: 'connector sleeve, 27 mm',
};

/** How the fibers of a splice are joined. */
export type JointKind = 'fusion' | 'fusion-connector' | 'mechanical';

export interface Joint {
  readonly kind: JointKind;
  /** null: a mechanical connector wears none. */
  readonly sleeve: SleeveKind | null;
  /** The drop or pigtail on one of its sides: those have steps of their own. */
  readonly small: Cable | null;
}

/** How a splice of this closure is made: fused, unless the plan ends a drop or a pigtail on one side of it in a connector. */
export function jointOf(
  closure: Pick<Closure, 'sleeveLength' | 'entries'>,
  splice: Pick<PlannedSplice, 'kind' | 'left' | 'right'>,
  cables: ReadonlyMap<string, Cable>,
): Joint {
  let small: Cable | null = null;
  for (const [end] of [splice.right, splice.left]) {
    const cable = cables.get(end!.cableId);
    if (!cable || !isSmall(cable)) continue;
    small = cable;
    const ending = closure.entries.find((entry) => entry.cableId === cable.id)?.ending;
    if (ending && splice.kind === 'single')
      return { kind: ending, sleeve: ending === 'mechanical' ? null : 'connector', small };
  }
  const single = closure.sleeveLength === 40 ? 'single-40' : 'single-60';
  return { kind: 'fusion', sleeve: splice.kind === 'ribbon' ? 'ribbon' : single, small };
}
