import {
  formatTape,
  type Cable,
  type PlacedSplice,
  type SpliceSide,
  type TickAnswer,
  type Units,
} from '@cordel/core';
import { ribbonizeChecks, ribbonizingChapter } from '@cordel/core/prepare';
import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { usePreferences } from '../../../../data/preferences';
import { clockWords, startTimer, useTimers } from '../../../../data/timers';
import { Action } from '../../../../ui/Action';
import { Caution } from '../../../../ui/Caution';
import { space } from '../../../../ui/tokens';
import { Type } from '../../../../ui/Type';
import { CheckPart } from '../../../../shell/steps/CheckPart';

interface RibbonizeCheckProps {
  splice: PlacedSplice;
  side: SpliceSide;
  cables: ReadonlyMap<string, Cable>;
  units: Units;
  onDone: (answer: TickAnswer, note: string) => void;
}

/** Loose fibers become a ribbon: counted and looked at before the adhesive, glued by the school of the person, and then spliced as a ribbon. */
export function RibbonizeCheck({ splice, side, cables, units, onDone }: RibbonizeCheckProps) {
  const { ribbonizingSchool } = usePreferences();
  const [given, setGiven] = useState<readonly { answer: TickAnswer; note: string }[]>([]);
  const checks = ribbonizeChecks(splice, side, cables);
  const check = checks[given.length];
  const label = cables.get(splice[side][0]!.cableId)!.label;
  const steps = ribbonizingChapter({ tape: (length) => formatTape(length, units) }, ribbonizingSchool, [
    splice[side].length,
  ]).steps.filter((step) => !step.check);
  const timer = steps.find((step) => step.timer)?.timer;
  const timerId = `ribbonize.${splice.id}.${side}`;
  const clock = useTimers().find((one) => one.id === timerId);
  return (
    <ScrollView style={styles.check} contentContainerStyle={styles.body}>
      {check ? (
        <>
          <Type look="small" tone="soft">
            Loose fibers become a ribbon on the {side}: {given.length + 1} of {checks.length} before the
            adhesive.
          </Type>
          <CheckPart
            key={given.length}
            check={check}
            onAnswer={(answer, note = '') => setGiven([...given, { answer, note }])}
          />
        </>
      ) : (
        <>
          <Type look="heading">Glue {label} into a ribbon</Type>
          {steps.map((step) => (
            <View key={step.id}>
              <Type look="small">
                <Type look="smallStrong">{step.title}. </Type>
                {step.what}
              </Type>
              {step.caution ? <Caution text={step.caution} /> : null}
            </View>
          ))}
          <View style={styles.row}>
            {timer ? (
              <Action
                bench
                kind={clock ? 'block' : 'now'}
                label={clock ? 'Start the clock again' : `Adhesive on: clock ${clockWords(timer.seconds)}`}
                onPress={() => startTimer(timerId, `${timer.label}, ${label}`, timer.seconds)}
                style={styles.key}
              />
            ) : null}
            <Action
              bench
              kind={clock ? 'now' : 'block'}
              label="It is a ribbon now"
              onPress={() =>
                onDone(
                  {
                    count: given.find(({ answer }) => answer.count !== undefined)?.answer.count,
                    colors: given.flatMap(({ answer }) => answer.colors ?? []),
                  },
                  given
                    .map(({ note }) => note)
                    .filter(Boolean)
                    .join('; '),
                )
              }
              style={styles.key}
            />
          </View>
        </>
      )}
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  check: { maxHeight: 440 },
  body: { gap: space.small, padding: space.tight },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
  key: { flexGrow: 1, flexBasis: 150 },
});
