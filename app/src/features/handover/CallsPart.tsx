import {
  fiberName,
  highestLoss,
  highestMeasured,
  markWords,
  reasonWords,
  runsOf,
  spliceHistory,
  type Fact,
  type OwnerAnswer,
  type SpliceState,
} from '@cordel/core';
import { router } from 'expo-router';
import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { lossTold } from '../../shell/words';
import { factStart } from '../../data/factStart';
import { cablesOf } from '../../data/ledger';
import { factWords } from '../../shell/factWords';
import { places } from '../../shell/places';
import { useRecordFact } from '../../sync/react';
import { Action } from '../../ui/Action';
import { TextBox } from '../../ui/Field';
import { Knot } from '../../ui/Knot';
import { Empty } from '../../ui/States';
import { useCordelTheme } from '../../ui/theme';
import { dayAndTime } from '../../ui/times';
import { gutter, space, stroke } from '../../ui/tokens';
import { Trouble } from '../../ui/Trouble';
import { Type } from '../../ui/Type';
import { PickScope } from './PickScope';
import type { ClosureBook, HandoverGiven } from './useBooks';

/** For the owner or an inspector: each splice that waits for a call, with its history; allowed with a name and a reason, or sent back. */
export function CallsPart({ definition, books, closureId }: HandoverGiven) {
  const shown = books.filter(({ closure }) => closureId === undefined || closure.id === closureId);
  const of = (mark: 'owner' | 'allowed') =>
    shown.flatMap((book) =>
      book.ledger.trays.flatMap(({ splices }) =>
        splices.filter(({ verdict }) => verdict.mark === mark).map((state) => ({ book, state })),
      ),
    );
  const open = of('owner');
  const allowed = of('allowed');
  const [name, setName] = useState('');
  return (
    <ScrollView contentContainerStyle={styles.list}>
      <PickScope definition={definition} books={books} closureId={closureId} />
      <TextBox
        bench
        label="Who answers for the owner"
        value={name}
        onChangeText={setName}
        hint="The name stands with each answer."
      />
      {open.length === 0 ? (
        <Empty
          title="No call is open"
          text="A splice over its limit comes here when its tries are used up, or when the crew leaves it to the owner."
        />
      ) : null}
      {open.map((one) => (
        <Call key={one.state.splice.id} definition={definition} {...one} name={name} />
      ))}
      {allowed.length > 0 ? (
        <Type look="heading" role="heading" aria-level={2}>
          Allowed
        </Type>
      ) : null}
      {allowed.map((one) => (
        <Call key={one.state.splice.id} definition={definition} {...one} name={name} />
      ))}
    </ScrollView>
  );
}

function Call({
  definition,
  book,
  state,
  name,
}: {
  definition: HandoverGiven['definition'];
  book: ClosureBook;
  state: SpliceState;
  name: string;
}) {
  const { palette } = useCordelTheme();
  const { project } = definition;
  const record = useRecordFact(project.id);
  const [reason, setReason] = useState('');
  const [trouble, setTrouble] = useState<string | null>(null);
  const { splice, verdict, facts } = state;
  const { attempts, last } = spliceHistory(facts);
  const tries = new Map(attempts.map((attempt, index) => [attempt.fact.id, index + 1]));
  const cables = cablesOf(definition);
  const end = (side: 'left' | 'right') => {
    const [first] = splice[side];
    const cable = cables.get(first!.cableId);
    if (!cable) return '';
    const { unitColor, fiberColor } = fiberName(cable, first!.fiber);
    return `${cable.label} ${first!.fiber} ${unitColor.code} ${fiberColor.code}`;
  };
  const answer = (value: OwnerAnswer['body']['answer']) => {
    if (name.trim() === '') return setTrouble('Say who answers for the owner, above.');
    if (reason.trim() === '') return setTrouble('Give the reason.');
    setTrouble(null);
    const fact: Fact = {
      ...factStart('owner-answer', facts),
      subject: {
        on: 'splice',
        closureId: book.closure.id,
        left: runsOf(splice.left),
        right: runsOf(splice.right),
      },
      body: {
        attemptId: last!.fact.id,
        answer: value,
        name: name.trim().slice(0, 80),
        note: reason.trim().slice(0, 500),
      },
    };
    void record(fact);
    setReason('');
  };
  const worst = last ? highestLoss(last.readings) : null;
  const place = `${book.site.name}, tray ${splice.tray}, slot ${splice.slot}`;
  return (
    <View
      role="group"
      aria-label={place}
      style={[styles.card, { borderColor: palette.ink, backgroundColor: palette.sheet }]}
    >
      <View style={styles.head}>
        <Knot mark={verdict.mark} size={22} />
        <Type look="heading" role="heading" aria-level={3} style={styles.grow}>
          {place}
        </Type>
        <Type look="reading">{lossTold(worst, highestMeasured(state.measured))}</Type>
      </View>
      <Type>
        {end('left')} – {end('right')}
        {splice.circuit ? ` · ${splice.circuit}` : ''}
      </Type>
      <Type look="strong">
        {[`${markWords[verdict.mark]}:`, ...verdict.reasons.map(reasonWords)].join(' ')}
      </Type>
      {facts.map((fact) => (
        <Type key={fact.id} look="small">
          {[
            dayAndTime(fact.madeAt, project.timeZone),
            factWords(fact, tries),
            fact.kind === 'owner-answer' ? (fact.body.name ?? fact.by) : fact.by,
            fact.kind === 'owner-answer' || fact.kind === 'attempt' ? fact.body.note : null,
          ]
            .filter(Boolean)
            .join(' · ')}
        </Type>
      ))}
      {verdict.mark === 'owner' ? (
        <>
          <TextBox bench label={`Reason: ${place}`} value={reason} onChangeText={setReason} />
          {trouble ? <Trouble text={trouble} /> : null}
          <View style={styles.keys}>
            <Action
              bench
              kind="now"
              label="Allow it"
              spoken={`Allow it: ${place}`}
              onPress={() => answer('allow')}
            />
            <Action
              bench
              label="Send it back"
              spoken={`Send it back: ${place}`}
              onPress={() => answer('redo')}
            />
          </View>
        </>
      ) : null}
      <Action
        label="To the bench"
        spoken={`To the bench: ${place}`}
        onPress={() => router.navigate(places.bench(project.id, book.closure.id, splice.tray, splice.slot))}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  list: { padding: space.large, paddingLeft: gutter.width, gap: space.large, maxWidth: 860 },
  card: { borderWidth: stroke.rule, padding: space.medium, gap: space.small },
  head: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: space.small },
  grow: { flex: 1, minWidth: 160 },
  keys: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
});
