import {
  isDone,
  prepareState,
  tickOf,
  tickTargets,
  type Joint,
  type SpliceState,
  type TickAnswer,
} from '@cordel/core';
import { stepsFor, type Step } from '@cordel/core/prepare';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { cablesOf, type ClosureAtHand } from '../../../data/ledger';
import { Action } from '../../../ui/Action';
import { Sheet } from '../../../ui/Sheet';
import { Type } from '../../../ui/Type';
import { StepCard } from '../../../shell/steps/StepCard';
import { towardOf, usePrepare, useSchools } from '../../../shell/steps/usePrepare';

interface JointStepsSheetProps {
  projectId: string;
  atHand: ClosureAtHand;
  here: SpliceState;
  joint: Joint;
  onClose: () => void;
}

/** The steps of a drop, a pigtail or a splice-on connector, for the one fiber at hand, with their questions and clocks. */
export function JointStepsSheet({ projectId, atHand, here, joint, onClose }: JointStepsSheetProps) {
  const { definition, closure, ledger, facts } = atHand;
  const { tick } = usePrepare(projectId, closure.id, facts);
  const state = useMemo(() => prepareState(facts), [facts]);
  const schools = useSchools();
  const [chosen, setChosen] = useState<string | null>(null);
  const cable = joint.small;
  const end = [...here.splice.right, ...here.splice.left].find(({ cableId }) => cableId === cable?.id);
  const { units } = definition.project;
  const steps = useMemo((): readonly Step[] => {
    if (!cable) return [];
    const own = stepsFor(closure, ledger.plan, cablesOf(definition).get(cable.id)!, {
      units,
      schools,
      ending: joint.kind === 'fusion' ? 'splice' : joint.kind,
      toward: towardOf(definition, closure, cable),
    });
    // A drop is opened once for all its fibers, on its own page; here is what every fiber needs.
    return own.flatMap(({ id, steps: all }) => (id === 'drop' ? all.slice(-1) : all));
  }, [closure, ledger.plan, definition, cable, units, schools, joint.kind]);
  if (!cable || !end) return null;
  const about = (step: Step) => tickTargets.stepAt(end, step.id);
  const done = (step: Step) => isDone(state, about(step));
  const next = steps.find((step) => !done(step));
  const open = chosen ?? next?.id;
  const finish = (step: Step, answer: TickAnswer | null = null, note = '') => {
    tick(about(step), 'done', { answer, note });
    setChosen(null);
  };
  return (
    <Sheet title={`${cable.label}, fiber ${end.fiber}`} open onClose={onClose}>
      {steps.length === 0 ? <Type>No steps of its own: splice it like any other.</Type> : null}
      <View>
        {steps.map((step, index) => (
          <StepCard
            key={step.id}
            step={step}
            first={index === 0}
            last={index === steps.length - 1}
            beforeDone={index > 0 && done(steps[index - 1]!)}
            tick={tickOf(state, about(step))}
            marks={[]}
            open={open === step.id}
            folded
            zone={definition.project.timeZone}
            timerId={about(step).key}
            onOpen={() => setChosen(open === step.id ? '' : step.id)}
            onDone={(answer, note) => finish(step, answer, note)}
            onUndo={() => tick(about(step), 'open')}
          />
        ))}
      </View>
      {next && open === next.id && !next.check ? (
        <Action bench kind="now" label={`Done: ${next.title}`} onPress={() => finish(next)} />
      ) : null}
    </Sheet>
  );
}
