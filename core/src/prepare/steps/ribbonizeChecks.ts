import type { Cable } from '../../line/cable';
import { fiberName } from '../../line/fiberNumber';
import type { PlacedSplice } from '../../plan/trays/trayLayout';
import type { SpliceSide } from '../../splice/bench/looseSides';
import type { StepCheck } from './step';

const swapped = 'Put the fibers in order again: after the adhesive a swap costs the whole ribbon.';

/**
 * What is asked of the fibers that lie ready, before the adhesive: how many there are, and which color lies at two places. The places change from
 * ribbon to ribbon, so that nobody answers out of habit.
 */
export function ribbonizeChecks(
  splice: Pick<PlacedSplice, 'left' | 'right' | 'slot'>,
  side: SpliceSide,
  cables: ReadonlyMap<string, Cable>,
): StepCheck[] {
  const ends = splice[side];
  const cable = cables.get(ends[0]!.cableId)!;
  // A ribbon is laid in the order of its cable's fibers, also where it is spliced reversed.
  const colors = [...ends]
    .sort((a, b) => a.fiber - b.fiber)
    .map((end) => fiberName(cable, end.fiber).fiberColor);
  const count = colors.length;
  const half = Math.ceil(count / 2);
  const first = (splice.slot * 5) % half;
  const places = count < 2 ? [0] : [first, half + ((splice.slot * 7) % (count - half))];
  return [
    {
      ask: `${cable.label}: count the fibers that lie ready, in color order.`,
      expects: 'count',
      answer: String(count),
      wrong: `This ribbon takes ${count}. ${swapped}`,
    },
    ...places.map((place): StepCheck => ({
      ask: `${cable.label}: which color lies at place ${place + 1}, counted from the first?`,
      expects: 'color',
      answer: colors[place]!.code,
      choices: [...new Set(colors)],
      wrong: `${colors[place]!.code} belongs at place ${place + 1}. ${swapped}`,
    })),
  ];
}
