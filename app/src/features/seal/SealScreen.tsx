import { places, sealParts, type SealPart } from '../../shell/places';
import { Screen } from '../../shell/frame/Screen';
import { AtClosure, type AtHand } from '../../shell/steps/AtClosure';
import { Empty } from '../../ui/States';
import { Action } from '../../ui/Action';
import { router } from 'expo-router';
import { HoldPart } from './HoldPart';
import { PointsPart } from './PointsPart';
import { StagesPart } from './StagesPart';
import { TestPart } from './TestPart';
import { TightenPart } from './TightenPart';
import { useSeal } from './useSeal';

/** Sealing a closure: an overview of its stages, and a page for each. */
export function SealScreen({
  projectId,
  closureId,
  part,
}: {
  projectId: string;
  closureId: string;
  part: string;
}) {
  return (
    <AtClosure projectId={projectId} closureId={closureId} title="Seal">
      {(atHand) => <SealAt atHand={atHand} part={part} />}
    </AtClosure>
  );
}

function SealAt({ atHand, part }: { atHand: AtHand; part: string }) {
  const seal = useSeal(atHand);
  const given = { atHand, seal };
  switch (sealParts.find((one): one is SealPart => one === part)) {
    case 'stages':
      return <StagesPart {...given} />;
    case 'look':
    case 'close':
    case 'after':
      return <PointsPart key={part} {...given} chapter={part as 'look' | 'close' | 'after'} />;
    case 'tighten':
      return <TightenPart {...given} />;
    case 'test':
      return <TestPart {...given} />;
    case 'hold':
      return <HoldPart {...given} />;
    case undefined:
      return (
        <Screen
          title="Seal"
          up={{ href: places.closure(atHand.projectId, atHand.closure.id), name: 'the closure' }}
        >
          <Empty title="There is no such page" text="Sealing has its stages on one page.">
            <Action
              label="To the stages"
              onPress={() => router.navigate(places.seal(atHand.projectId, atHand.closure.id))}
            />
          </Empty>
        </Screen>
      );
  }
}
