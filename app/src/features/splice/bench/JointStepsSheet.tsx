import { isDone, prepareState, tickTargets, type SpliceState } from '@cordel/core';
import { handSteps, stepsFor, type HandWork, type Step } from '@cordel/core/prepare';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { cablesOf, type ClosureAtHand } from '../../../data/ledger';
import { Action } from '../../../ui/Action';
import { Sheet } from '../../../ui/Sheet';
import { HandSteps } from './HandSteps';
import { StepList } from '../../../shell/steps/StepList';
import { towardOf, usePrepare, useSchools } from '../../../shell/steps/usePrepare';

/** Of a fused connector: what the hand steps say with this splice's own numbers stands in its place. */
const whereHandsWork = 'fusion-splice';

interface JointStepsSheetProps {
  projectId: string;
  atHand: ClosureAtHand;
  here: SpliceState;
  /** What the hands do at it. */
  hands: HandWork;
  onClose: () => void;
}

/**
 * What is done at the splice at hand, with its numbers. A drop, a pigtail or a splice-on connector has steps of its own for each fiber, with their questions and clocks.
 */
export function JointStepsSheet({ projectId, atHand, here, hands, onClose }: JointStepsSheetProps) {
  const { joint } = hands;
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
      seat: null,
      ending: joint.kind === 'fusion' ? 'splice' : joint.kind,
      toward: towardOf(definition, closure, cable),
    });
    // A drop is opened once for all its fibers, on its own page; here is what every fiber needs.
    return own
      .flatMap(({ id, steps: all }) => (id === 'drop' ? all.slice(-1) : id === 'fit' ? [] : all))
      .filter(({ id }) => id !== 'pigtail-strip');
  }, [closure, ledger.plan, definition, cable, units, schools, joint.kind]);
  const about = (step: Step) => tickTargets.stepAt(end ?? here.splice.left[0]!, step.id);
  const done = (step: Step) => isDone(state, about(step));
  const next = steps.find((step) => step.id !== whereHandsWork && !done(step));
  const open = chosen ?? next?.id;
  const turn = steps.findIndex(({ id }) => id === whereHandsWork);
  const before = turn < 0 ? steps : steps.slice(0, turn);
  const after = turn < 0 ? [] : steps.slice(turn + 1);
  const part = (list: readonly Step[]) => (
    <View>
      <StepList
        steps={list}
        about={about}
        state={state}
        tick={tick}
        zone={definition.project.timeZone}
        open={open}
        onOpen={setChosen}
      />
    </View>
  );
  return (
    <Sheet
      title={cable && end ? `${cable.label}, fiber ${end.fiber}` : `Hand steps, slot ${here.splice.slot}`}
      open
      onClose={onClose}
    >
      {before.length > 0 ? part(before) : null}
      <HandSteps steps={handSteps(hands)} spliceId={here.splice.id} />
      {after.length > 0 ? part(after) : null}
      {next && open === next.id && !next.check ? (
        <Action
          bench
          kind="now"
          label={`Done: ${next.title}`}
          onPress={() => {
            tick(about(next), 'done');
            setChosen(null);
          }}
        />
      ) : null}
    </Sheet>
  );
}
