import { ribbonPolarity, type Cable, type PlacedSplice, type TickAnswer } from '@cordel/core';
import type { StepCheck } from '@cordel/core/prepare';
import { useState } from 'react';
import { ScrollView, StyleSheet } from 'react-native';
import { space } from '../../../../ui/tokens';
import { Type } from '../../../../ui/Type';
import { CheckPart } from '../../../../shell/steps/CheckPart';

/**
 * Asked before each ribbon is fused: which color lies at the hinge, left and right. A ribbon that lies flipped is caught before the arc.
 */
export function PolarityCheck({
  splice,
  cables,
  onDone,
}: {
  splice: PlacedSplice;
  cables: ReadonlyMap<string, Cable>;
  onDone: (answer: TickAnswer, note: string) => void;
}) {
  const [left, setLeft] = useState<{ answer: TickAnswer; note: string } | null>(null);
  const { hinge, pairs, polarity } = ribbonPolarity(splice, cables);
  const side = left ? 'right' : 'left';
  const colors = [...pairs].sort((a, b) => a[side].fiber - b[side].fiber).map((pair) => pair[side].color);
  const right = hinge[side].color;
  const check: StepCheck = {
    ask: `Ribbon at slot ${splice.slot}: which color lies at the hinge, ${side}?`,
    expects: 'color',
    answer: right.code,
    choices: colors,
    wrong: `${right.code} belongs there: ${polarity === 'reversed' ? 'this ribbon is planned reversed, so the right side begins with its last fiber' : 'both sides begin with their first fiber'}. Take the ribbon out and turn it over before the arc.`,
  };
  return (
    <ScrollView style={styles.check} contentContainerStyle={styles.body}>
      <Type look="small" tone="soft">
        Load both holders, lids open, and look.
      </Type>
      <CheckPart
        key={side}
        check={check}
        onAnswer={(answer, note = '') => {
          if (!left) setLeft({ answer, note });
          else
            onDone(
              { colors: [...(left.answer.colors ?? []), ...(answer.colors ?? [])] },
              [left.note, note].filter(Boolean).join('; '),
            );
        }}
      />
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  check: { maxHeight: 420 },
  body: { gap: space.small, padding: space.tight },
});
