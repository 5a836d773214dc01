import type { LightCheck } from '../../facts';
import type { Cleaver } from '../../gear/gear';
import type { Units } from '../../line/project';
import type { Connector } from '../../plan/closure';
import { fiberEndKey, type FiberEnd } from '../../plan/fiberEnd';
import type { PlannedEnd } from '../../plan/order/order';
import type { ClosurePlan } from '../../plan/trays/closurePlan';
import { shownNumber } from '../../units/decimals';
import { formatTape } from '../../units/tapeLength';
import { connectorChapter } from './chaptersMore';
import { bareLength, cleaveLengthFor, type Coating } from './handSteps';
import type { Step } from './step';
import { isDone, tickTargets, type PrepareState } from './tickTargets';

/**
 * What is done at a fiber end until its connector is on; nothing where it came with one. The light check after it is a fact of its own: see `lightOf`.
 * @param hands the fiber's coating and the cleaver of the night, for the lengths; they are left out where they are not given
 */
export function connectorSteps(
  connector: Connector,
  units: Units,
  hands?: { readonly coating: Coating; readonly cleaver: Cleaver | null },
): readonly Step[] {
  if (connector === 'own') return [];
  const tape = (length: number) => formatTape(length, units);
  const { steps } = connectorChapter({ tape }, connector);
  return steps
    .filter(({ id }) => id !== 'mechanical-light')
    .map((step) => (hands && step.id === 'fusion-splice' ? { ...step, what: fusing(tape, hands) } : step));
}

function fusing(
  tape: (length: number) => string,
  { coating, cleaver }: { readonly coating: Coating; readonly cleaver: Cleaver | null },
): string {
  const length = cleaver ? cleaveLengthFor(cleaver, coating) : null;
  const cleave =
    length === null
      ? 'cleave as the connector asks'
      : `cleave to ${shownNumber(length)} mm, or as the connector asks`;
  return `Program of this fiber type; holder for the stub. Strip ${tape(bareLength)}, clean, ${cleave}, fuse.`;
}

/** The light check of an end that counts; null where there is none, or it was taken back. */
export function lightOf(state: PrepareState, end: FiberEnd): LightCheck | null {
  const check = state.lights.get(fiberEndKey(end));
  return check && check.body.seen !== 'open' ? check : null;
}

/** How far an end is: nothing done, begun, its connector on, light out at the far end, or not. */
export type EndState = 'open' | 'begun' | 'on' | 'passes' | 'fails';

export function endState(end: PlannedEnd, state: PrepareState): EndState {
  const light = lightOf(state, end);
  if (light) return light.body.seen === 'far-end' ? 'passes' : 'fails';
  // The steps are the same in every unit.
  const steps = connectorSteps(end.connector, 'mm');
  const done = steps.filter(({ id }) => isDone(state, tickTargets.stepAt(end, id))).length;
  if (steps.length > 0 && done === steps.length) return 'on';
  return done > 0 ? 'begun' : 'open';
}

/** Ends of a plan that still need their connector: parts and time. One that light does not get through may need another. */
export function connectorsToPutOn(
  { ends }: Pick<ClosurePlan, 'ends'>,
  state: PrepareState,
): readonly PlannedEnd[] {
  return ends.filter((end) => end.connector !== 'own' && !['on', 'passes'].includes(endState(end, state)));
}

/** What a light check saw, as a list has it. */
export const lightSeenWords: Readonly<Record<LightCheck['body']['seen'], string>> = {
  'far-end': 'light at the far end',
  glows: 'glows at the joint',
  nothing: 'no light at the far end',
  open: 'not checked',
};

/** What to do where light does not get through, by what was seen and by the connector (common practice). */
export function lightAdvice(seen: 'glows' | 'nothing', connector: Connector): string {
  if (seen === 'glows')
    return connector === 'mechanical'
      ? 'Open the lock, push the fiber in until it bows a little, and close it again. Where it still glows, cleave anew.'
      : 'The splice in the connector leaks: cut it off behind the connector and put a new one on.';
  return 'Follow the fiber toward the far end: another fiber was taken, it is broken, or a splice on its way is not made yet.';
}
