import {
  spliceHistory,
  type DueAbout,
  type Fact,
  type SpliceFact,
  type SpliceState,
  type UsedGear,
} from '@cordel/core';
import { passedOver, passedOverBook } from '@cordel/core/gear';
import { Suspense, useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useServerBook } from '../../../data/gear';
import { gearWordsOf } from '../../../data/gearTonight';
import { Action } from '../../../ui/Action';
import { Sheet } from '../../../ui/Sheet';
import { useCordelTheme } from '../../../ui/theme';
import { space, stroke } from '../../../ui/tokens';
import { dayAndTime, type ShownZone } from '../../../ui/times';
import { Type } from '../../../ui/Type';
import { factWords } from '../../../shell/factWords';
import { CorrectionForm } from '../../../forms';
import type { Result, Why } from './newFact';

interface HistorySheetProps {
  state: SpliceState;
  /** Of the whole closure. */
  facts: readonly Fact[];
  zone: ShownZone;
  open: boolean;
  onClose: () => void;
  onCorrect: (attemptId: string, result: Result | null, why: Why) => void;
  /** Goes to the fiber's way through the other closures. */
  onFollow: () => void;
  /** Goes to where measured losses are entered. */
  onMeasure: () => void;
}

/** Everything that happened at a splice, in order, and the place to correct what was written down wrongly. */
export function HistorySheet({
  state,
  facts,
  zone,
  open,
  onClose,
  onCorrect,
  onFollow,
  onMeasure,
}: HistorySheetProps) {
  const { palette } = useCordelTheme();
  const [correcting, setCorrecting] = useState<string | null>(null);
  const known = useServerBook(true).data;
  const book = useMemo(
    () =>
      passedOverBook(
        new Map([...(known?.book.facts ?? []), ...facts].map((fact) => [fact.id, fact])).values(),
      ),
    [known, facts],
  );
  const { attempts, withdrawn } = spliceHistory(state.facts);
  const standing = new Map([...attempts, ...withdrawn].map((attempt) => [attempt.fact.id, attempt]));
  const tries = new Map(attempts.map((attempt, index) => [attempt.fact.id, index + 1]));
  const close = () => {
    setCorrecting(null);
    onClose();
  };
  return (
    <Sheet title={`Tray ${state.splice.tray}, slot ${state.splice.slot}`} open={open} onClose={close}>
      {state.facts.map((fact) => (
        <View key={fact.id} style={[styles.fact, { borderBottomColor: palette.hairline }]}>
          <Type look="small" tone="soft">
            {[dayAndTime(fact.madeAt, zone), fact.by].filter(Boolean).join(' · ')}
          </Type>
          <Type look="strong">{factWords(fact, tries)}</Type>
          {fact.kind === 'attempt' && fact.body.gear ? (
            <Type look="small">{usedWords(fact.body.gear, passedOver(fact, book))}</Type>
          ) : null}
          {noteOf(fact) ? <Type look="small">{noteOf(fact)}</Type> : null}
          {fact.kind === 'attempt' && tries.has(fact.id) && correcting !== fact.id ? (
            <Action
              bench
              label="Correct this reading"
              onPress={() => setCorrecting(fact.id)}
              style={styles.correct}
            />
          ) : null}
          {correcting === fact.id ? (
            <Suspense>
              <CorrectionForm
                attempt={standing.get(fact.id)!}
                onCancel={() => setCorrecting(null)}
                onCorrect={(result, why) => {
                  onCorrect(fact.id, result, why);
                  close();
                }}
              />
            </Suspense>
          ) : null}
        </View>
      ))}
      {state.readings.some(({ loss }) => loss !== null) ? (
        <Action bench label="Enter a measured loss" onPress={onMeasure} style={styles.correct} />
      ) : null}
      <Action bench label="Follow this fiber" onPress={onFollow} style={styles.correct} />
    </Sheet>
  );
}

const passedWords = {
  calibration: 'without the calibration that was due',
  electrodes: 'without the new electrodes that were due',
  blade: 'on a blade that was due',
} as const;

/** What it was made with, and what was due and passed over. */
function usedWords(gear: UsedGear, over: readonly DueAbout[]): string {
  return [
    gearWordsOf(gear),
    gear.program ? `program “${gear.program}”` : null,
    gear.heater ? `heater “${gear.heater}”` : null,
    ...over.map((about) => passedWords[about]),
  ]
    .filter(Boolean)
    .join(' · ');
}

const becauseWords = {
  'taken-back': 'Taken back at the bench',
  'never-happened': 'It never happened',
  'sleeve-forgotten': 'Sleeve forgotten',
} as const;

function noteOf(fact: SpliceFact): string {
  if (fact.kind !== 'correction') return fact.body.note;
  const { because, reason } = fact.body;
  return [because && becauseWords[because], reason].filter(Boolean).join(': ');
}

const styles = StyleSheet.create({
  fact: { gap: space.tight, paddingBottom: space.medium, borderBottomWidth: stroke.hair },
  correct: { alignSelf: 'flex-start' },
});
