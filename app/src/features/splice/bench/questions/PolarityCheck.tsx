import { hingeCheck, type StepCheck } from '@cordel/core/prepare';
import type { Cable, PlacedSplice, TickAnswer } from '@cordel/core';
import { ScrollView, StyleSheet } from 'react-native';
import { CheckPart } from '../../../../shell/steps/CheckPart';
import { space } from '../../../../ui/tokens';
import { Type } from '../../../../ui/Type';

/** Asked before each ribbon is fused: which colors lie at the hinge. A ribbon that lies flipped is caught before the arc. */
export function PolarityCheck({
  splice,
  cables,
  onDone,
}: {
  splice: PlacedSplice;
  cables: ReadonlyMap<string, Cable>;
  onDone: (answer: TickAnswer, note: string) => void;
}) {
  const check: StepCheck = hingeCheck(splice, cables);
  return (
    <ScrollView style={styles.check} contentContainerStyle={styles.body}>
      <Type look="small" tone="soft">
        Load both holders, lids open, and look.
      </Type>
      <CheckPart check={check} onAnswer={(answer, note = '') => onDone(answer, note)} />
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  check: { maxHeight: 420 },
  body: { gap: space.small, padding: space.tight },
});
