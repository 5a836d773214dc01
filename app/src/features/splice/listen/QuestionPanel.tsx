import { findSplice, type ClosureLedger, type SpliceState } from '@cordel/core';
import { mayTake, questionWords, resultWords, type ListenQuestion } from '@cordel/core/listen';
import { StyleSheet, View } from 'react-native';
import { Action } from '../../../ui/Action';
import { space } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';

const placeOf = ({ splice }: SpliceState) => `tray ${splice.tray}, slot ${splice.slot}`;

/** A reading of which only a person can say where it belongs. */
export function QuestionPanel({
  question,
  ledger,
  here,
  more,
  onAnswer,
}: {
  question: ListenQuestion;
  ledger: ClosureLedger;
  here: SpliceState;
  /** How many are asked after it. */
  more: number;
  /** null: it is left out. */
  onAnswer: (spliceId: string | null) => void;
}) {
  const may = question.spliceId ? findSplice(ledger, question.spliceId) : undefined;
  const choices = [...new Set([...(may ? [may] : []), here])].filter((state) =>
    mayTake(question, state.splice.left.length),
  );
  return (
    <View role="alertdialog" aria-label="Which splice is it?" style={styles.panel}>
      <Type look="strong">{questionWords(question, may ? placeOf(may) : null, placeOf(here))}</Type>
      <Type look="heading">{resultWords(question.result)}</Type>
      {choices.map((state) => (
        <Action
          key={state.splice.id}
          bench
          kind={state === here ? 'now' : 'block'}
          label={`It is ${placeOf(state)}`}
          detail={
            state.verdict.tries > 0
              ? `as try ${state.verdict.tries + 1} there`
              : state === here
                ? 'where you stand'
                : undefined
          }
          onPress={() => onAnswer(state.splice.id)}
        />
      ))}
      <Action
        bench
        label="Leave it out"
        detail={more > 0 ? `${more} more to say something to` : 'It stays in the machine’s memory'}
        onPress={() => onAnswer(null)}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  panel: { gap: space.small, padding: space.tight },
});
