import type { Fact, SpliceState, TrayState } from '@cordel/core';
import type { Said, SpliceAdvice } from '@cordel/core/advice';
import type { HandWork } from '@cordel/core/prepare';
import { router } from 'expo-router';
import { places } from '../../../shell/places';
import { cablesOf, type ClosureAtHand } from '../../../data/ledger';
import { GearSheet } from '../gear/GearSheet';
import type { BenchGear } from '../gear/useGearAtBench';
import { AdviceSheet } from '../judge/AdviceSheet';
import { SeriesSheet } from '../judge/SeriesSheet';
import { HistorySheet } from '../record/HistorySheet';
import { JointStepsSheet } from './JointStepsSheet';
import { KeysSheet } from './KeysSheet';
import { OrderSheet } from './OrderSheet';
import { PasteSheet } from './panels/PasteSheet';
import type { Bench } from './types';

export type BenchSheet = 'history' | 'keys' | 'paste' | 'gear' | 'order' | 'steps' | 'why' | 'series';

interface BenchSheetsProps {
  sheet: BenchSheet;
  projectId: string;
  atHand: ClosureAtHand;
  here: SpliceState;
  bench: Bench;
  gear: BenchGear;
  hands: HandWork;
  tray: TrayState;
  said: Said | null;
  advised: SpliceAdvice | null;
  taken: ReadonlySet<string>;
  onFact: (fact: Fact, shown?: () => void) => void;
  onGo: (state: SpliceState) => void;
  onFollow: () => void;
  onClose: () => void;
}

/** What is laid over the bench. */
export function BenchSheets(props: BenchSheetsProps) {
  const { sheet, projectId, atHand, here, bench, gear, hands, taken, onFact, onGo, onFollow, onClose } =
    props;
  const { definition, closure, ledger } = atHand;
  const all = cablesOf(definition);
  switch (sheet) {
    case 'history':
      return (
        <HistorySheet
          state={here}
          facts={atHand.facts}
          zone={definition.project.timeZone}
          open
          onClose={onClose}
          onCorrect={bench.correct}
          onFollow={onFollow}
          onMeasure={() =>
            router.navigate(
              places.measure(projectId, closure.id, here.splice.tray, { slot: here.splice.slot, fiber: 1 }),
            )
          }
        />
      );
    case 'keys':
      return <KeysSheet open onClose={onClose} />;
    case 'paste':
      return <PasteSheet fibers={bench.fibers} open onClose={onClose} onLosses={bench.recordAll} />;
    case 'gear':
      return (
        <GearSheet
          gear={gear.list}
          atBench={gear.atBench}
          closureId={closure.id}
          joint={hands.joint}
          cables={[here.splice.left[0]!, here.splice.right[0]!].map(({ cableId }) => all.get(cableId)!)}
          units={definition.project.units}
          zone={definition.project.timeZone}
          onFact={onFact}
          onClose={onClose}
        />
      );
    case 'order':
      return (
        <OrderSheet
          closureId={closure.id}
          ledger={ledger}
          hereId={here.splice.id}
          taken={taken}
          onGo={onGo}
          onClose={onClose}
        />
      );
    case 'why':
      return props.advised ? (
        <AdviceSheet told={props.advised} ledger={ledger} tray={props.tray} state={here} onClose={onClose} />
      ) : null;
    case 'series':
      return props.said ? (
        <SeriesSheet
          said={props.said}
          closureId={closure.id}
          cables={all}
          onFact={onFact}
          onClose={onClose}
        />
      ) : null;
    case 'steps':
      return (
        <JointStepsSheet projectId={projectId} atHand={atHand} here={here} hands={hands} onClose={onClose} />
      );
  }
}
