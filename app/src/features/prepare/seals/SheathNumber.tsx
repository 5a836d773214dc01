import {
  formatChainage,
  measured,
  metersFromShown,
  shownFromMeters,
  tickTargets,
  type Cable,
} from '@cordel/core';
import { prepareFindingWords, sheathSpans } from '@cordel/core/prepare';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Action } from '../../../ui/Action';
import { TextBox } from '../../../ui/Field';
import { Findings } from '../../../ui/Findings';
import { toNumber } from '../../../ui/numberField';
import { space } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import type { AtHand } from '../../../shell/steps/AtClosure';

/** The number printed on the sheath here, and with the numbers of other sites the lengths between. */
export function SheathNumber({
  atHand,
  cable,
  named,
  marks,
}: {
  atHand: AtHand;
  cable: Cable;
  /** The letter by which the order calls it. */
  named: string;
  /** m, by site. */
  marks: ReadonlyMap<string, number>;
}) {
  const { definition, closure } = atHand;
  const { units } = definition.project;
  const { state, measure } = atHand.preparing;
  const [text, setText] = useState('');
  const [trouble, setTrouble] = useState<string>();
  const about = tickTargets.sheathNumber(cable.id);
  const here = measured(state, about);
  const spans = sheathSpans(cable, definition.sites, marks).filter(
    ({ from, to }) => from.id === closure.siteId || to.id === closure.siteId,
  );
  if (cable.construction.kind === 'pigtails') return null;
  const unit = units === 'mm' ? 'm' : 'ft';
  const far = (meters: number) => formatChainage(meters, units);
  const store = () => {
    const value = toNumber(text);
    if (!Number.isFinite(value) || value < 0) {
      setTrouble(`“${text}” is not a number of ${unit}. Enter the figures alone, like 1288.`);
      return;
    }
    measure(about, metersFromShown(value, units));
    setText('');
  };
  return (
    <View style={styles.part}>
      <Type look="strong">Number on the sheath</Type>
      {here === null ? null : (
        <Type>
          {shownFromMeters(here, units)} {unit} here
        </Type>
      )}
      {spans.map(({ from, to, sheath, fiber, route, findings }) => (
        <View key={from.id}>
          <Type look="small">
            {from.name} to {to.name}: {far(sheath)} of cable, {far(fiber)} of fiber; the plan has {far(route)}{' '}
            of route.
          </Type>
          <Findings findings={findings} words={(one) => prepareFindingWords(one, units)} />
        </View>
      ))}
      <View style={styles.row}>
        <View style={styles.field}>
          <TextBox
            label={`${named}, printed at the cut`}
            unit={unit}
            keyboard="decimal"
            value={text}
            onChangeText={(next) => {
              setText(next);
              setTrouble(undefined);
            }}
            trouble={trouble}
            onSubmit={() => text.trim() !== '' && store()}
          />
        </View>
        <Action
          bench
          label="Read"
          spoken={`Read: the number on ${cable.label}`}
          disabled={text.trim() === ''}
          onPress={store}
        />
        {here === null ? null : (
          <Action
            bench
            label="Take back"
            spoken={`Take back: the number on ${cable.label}`}
            onPress={() => measure(about, null)}
          />
        )}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  part: { gap: space.tight },
  row: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'flex-end', gap: space.small },
  field: { flexGrow: 1, flexBasis: 150 },
});
