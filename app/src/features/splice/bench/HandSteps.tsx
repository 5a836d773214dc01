import type { HandStep } from '@cordel/core/prepare';
import { useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { StepText } from '../../../shell/steps/StepCard';
import { useCordelTheme } from '../../../ui/theme';
import { space, stroke, touch } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';

/** What the hands do at this splice: a line each for those who know, the rest with a tap. Nothing is ticked: that would be a tick for every fiber. */
export function HandSteps({ steps, spliceId }: { steps: readonly HandStep[]; spliceId: string }) {
  const { palette } = useCordelTheme();
  const [opened, setOpened] = useState<string | null>(null);
  return (
    <View>
      {steps.map((step, index) => {
        const open = step.id === opened;
        return (
          <View key={step.id} style={[styles.step, { borderBottomColor: palette.hairline }]}>
            <Pressable
              role="button"
              aria-expanded={open}
              onPress={() => setOpened(open ? null : step.id)}
              style={styles.head}
            >
              <Type look="reading" tone="soft" style={styles.number}>
                {index + 1}
              </Type>
              <View style={styles.words}>
                <Type look="strong">{step.title}</Type>
                <Type look="small">{step.short}</Type>
              </View>
            </Pressable>
            {open ? (
              <View style={styles.body}>
                <StepText step={step} timerId={`${spliceId} ${step.id}`} />
              </View>
            ) : null}
          </View>
        );
      })}
    </View>
  );
}

const styles = StyleSheet.create({
  step: { borderBottomWidth: stroke.hair },
  head: { minHeight: touch.bench, flexDirection: 'row', alignItems: 'center', gap: space.small },
  number: { width: 28, textAlign: 'right' },
  words: {
    flex: 1,
    flexDirection: 'row',
    flexWrap: 'wrap',
    alignItems: 'baseline',
    justifyContent: 'space-between',
    columnGap: space.medium,
  },
  body: { gap: space.small, paddingLeft: 28 + space.small, paddingBottom: space.medium },
});
