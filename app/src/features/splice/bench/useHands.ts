import type { Joint, SpliceState } from '@cordel/core';
import { arcLimits, type Stripper } from '@cordel/core/gear';
import type { HandWork } from '@cordel/core/prepare';
import { useMemo } from 'react';
import { useTonight } from '../../../data/gearTonight';
import { cablesOf, type ClosureAtHand } from '../../../data/ledger';
import { usePreferences } from '../../../data/preferences';
import type { BenchGear } from '../gear/useGearAtBench';

/** What the hands do at a splice: with tonight's gear, in the person's own way. */
export function useHands(
  { definition, ledger }: ClosureAtHand,
  { splice }: SpliceState,
  joint: Joint,
  { list, atBench }: BenchGear,
): HandWork {
  const { stripper, heater } = useTonight();
  const { wipeSchool: wipe } = usePreferences();
  const machine = atBench?.machine?.item ?? null;
  const cleaver = atBench?.cleaver?.item ?? null;
  const { units } = definition.project;
  const { limits } = ledger;
  return useMemo(
    () => ({
      splice,
      cables: cablesOf(definition),
      joint,
      machine,
      cleaver,
      stripper:
        list.find((one): one is Stripper => one.kind === 'stripper' && one.id === stripper?.id) ?? null,
      heater,
      cleaveAngle: arcLimits(limits, machine?.limits ?? null).cleaveAngle.value,
      wipe,
      units,
    }),
    [splice, definition, joint, machine, cleaver, list, stripper, heater, limits, wipe, units],
  );
}
