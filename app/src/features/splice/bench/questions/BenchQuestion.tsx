import { jointOf, type Fact, type SpliceState } from '@cordel/core';
import { cablesOf, type ClosureAtHand } from '../../../../data/ledger';
import { DueQuestion } from '../../gear/DueQuestion';
import { PickQuestion } from '../../gear/PickQuestion';
import type { BenchGear } from '../../gear/useGearAtBench';
import { PolarityCheck } from './PolarityCheck';
import { RibbonizeCheck } from './RibbonizeCheck';
import type { Question } from './questionAt';
import type { Asked } from './useTicksAsked';

interface BenchQuestionProps {
  question: Question;
  atHand: ClosureAtHand;
  here: SpliceState;
  gear: BenchGear;
  asked: Asked;
  onFact: (fact: Fact) => void;
}

/** A question in the pad's place: nothing is entered until it is answered. */
export function BenchQuestion({ question, atHand, here, gear, asked, onFact }: BenchQuestionProps) {
  const { definition, closure } = atHand;
  const { splice } = here;
  const { units } = definition.project;
  const all = cablesOf(definition);
  const cables = [splice.left[0]!, splice.right[0]!].map(({ cableId }) => all.get(cableId)!);
  if (question === 'pick')
    return <PickQuestion gear={gear.list} joint={jointOf(closure, splice, all)} cables={cables} />;
  if (question === 'due' && gear.atBench?.ask)
    return (
      <DueQuestion
        // Another try, or another thing, begins with empty fields.
        key={`${gear.atBench.ask.about}.${gear.atBench.machine?.standing.failed ?? 0}`}
        ask={gear.atBench.ask}
        atBench={gear.atBench}
        closureId={closure.id}
        cables={cables}
        units={units}
        onFact={onFact}
      />
    );
  if (question === 'ribbonize' && asked.ribbonize)
    return (
      <RibbonizeCheck
        key={splice.id + asked.ribbonize.side}
        splice={splice}
        side={asked.ribbonize.side}
        cables={all}
        units={units}
        onDone={asked.ribbonize.onDone}
      />
    );
  if (question === 'polarity' && asked.polarity)
    return <PolarityCheck splice={splice} cables={all} onDone={asked.polarity} />;
  return null;
}
