import { isDone, tickOf, type PrepareState, type TickAnswer, type TickTarget } from '@cordel/core';
import type { Step } from '@cordel/core/prepare';
import type { ShownZone } from '../../ui/times';
import { StepCard } from './StepCard';
import type { Preparing } from './usePrepare';

interface StepListProps {
  steps: readonly Step[];
  /** What a step is ticked as. */
  about: (step: Step) => TickTarget;
  state: PrepareState;
  tick: Preparing['tick'];
  zone: ShownZone;
  /** The one that is open; '' where none is. */
  open: string | undefined;
  /** null: the next one that is to be done. */
  onOpen: (id: string | null) => void;
  /** Whether the cord goes on above the first and below the last. */
  within?: boolean;
}

/** Steps of one fiber, folded but for one. */
export function StepList({ steps, about, state, tick, zone, open, onOpen, within = false }: StepListProps) {
  const done = (step: Step) => isDone(state, about(step));
  const finish = (step: Step, answer: TickAnswer | null = null, note = '') => {
    tick(about(step), 'done', { answer, note });
    onOpen(null);
  };
  return steps.map((step, index) => (
    <StepCard
      key={step.id}
      step={step}
      first={!within && index === 0}
      last={!within && index === steps.length - 1}
      beforeDone={index > 0 && done(steps[index - 1]!)}
      tick={tickOf(state, about(step))}
      marks={[]}
      open={open === step.id}
      folded
      zone={zone}
      timerId={about(step).key}
      onOpen={() => onOpen(open === step.id ? '' : step.id)}
      onDone={(answer, note) => finish(step, answer, note)}
      onUndo={() => tick(about(step), 'open')}
    />
  ));
}
