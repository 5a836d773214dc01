import { formatMillimeters, measuredDiameters, parseTape, tickTargets } from '@cordel/core';
import {
  cableBendRadius,
  diameterOfCircumference,
  prepareFindingWords,
  sealPlan,
  type CableSeal,
} from '@cordel/core/prepare';
import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { setPreferences, usePreferences } from '../../../data/preferences';
import { Action } from '../../../ui/Action';
import { Choice, TextBox } from '../../../ui/Field';
import { Findings } from '../../../ui/Findings';
import { Screen } from '../../../shell/frame/Screen';
import { useCordelTheme } from '../../../ui/theme';
import { gutter, space, stroke } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import { places } from '../../../shell/places';
import { AtClosure, PreparePanes, type AtHand } from '../../../shell/steps/AtClosure';
import { SheathNumber } from './SheathNumber';
import { useSheathMarks } from './useSheathMarks';

/** Each cable measured, its seal parts, and the number on its sheath. */
export function SealsScreen({ projectId, closureId }: { projectId: string; closureId: string }) {
  return (
    <AtClosure projectId={projectId} closureId={closureId} title="Seals and measures">
      {(atHand) => <SealsAt atHand={atHand} />}
    </AtClosure>
  );
}

function SealsAt({ atHand }: { atHand: AtHand }) {
  const { projectId, closure, definition, cables, siteName } = atHand;
  const { state } = atHand.preparing;
  const { thicknessBy } = usePreferences();
  const sheathMarks = useSheathMarks(definition);
  const seals = sealPlan(closure, cables, measuredDiameters(closure, state));
  return (
    <PreparePanes atHand={atHand}>
      <Screen
        title="Seals and measures"
        subtitle={`${siteName} · ${seals.cables.filter(({ measured }) => measured).length} of ${seals.cables.length} cables measured`}
        up={{ href: places.prepare(projectId, closure.id), name: 'preparing' }}
      >
        <ScrollView contentContainerStyle={styles.list}>
          <Choice
            label="Thickness is measured with"
            options={[
              { value: 'caliper', label: 'A caliper, across' },
              { value: 'tape', label: 'A tape, around' },
            ]}
            value={thicknessBy}
            onChange={(value) => setPreferences({ thicknessBy: value })}
          />
          {seals.cables.map((seal) => (
            <CableCard
              key={seal.cable.id}
              atHand={atHand}
              seal={seal}
              around={thicknessBy === 'tape'}
              marks={sheathMarks.get(seal.cable.id) ?? noMarks}
            />
          ))}
          <View style={styles.part}>
            <Type look="heading" role="heading" aria-level={2}>
              Plugs
            </Type>
            {seals.plugs.map(({ port, count }) => (
              <Type key={port}>
                {count} × port {port}: one plug or pin each
              </Type>
            ))}
            {seals.plugs.length === 0 ? (
              <Type tone="soft">
                {closure.ports ? 'Every port is used.' : 'The closure’s ports are not known.'}
              </Type>
            ) : null}
            <Type look="small" tone="soft">
              The parts come from the closure’s own table. Compression screws home, seat clean, no power
              tools; the maker’s instruction comes first.
            </Type>
          </View>
        </ScrollView>
      </Screen>
    </PreparePanes>
  );
}

const noMarks: ReadonlyMap<string, number> = new Map();

function CableCard({
  atHand,
  seal,
  around,
  marks,
}: {
  atHand: AtHand;
  seal: CableSeal;
  around: boolean;
  /** m, by site. */
  marks: ReadonlyMap<string, number>;
}) {
  const { definition } = atHand;
  const { units } = definition.project;
  const { palette } = useCordelTheme();
  const { cable, key } = seal;
  return (
    <View
      role="group"
      aria-label={`${key}, ${cable.label}`}
      style={[styles.card, { borderColor: palette.ink, backgroundColor: palette.sheet }]}
    >
      <Type look="heading" role="heading" aria-level={2}>
        {key} · {cable.label}
      </Type>
      <Thickness atHand={atHand} seal={seal} around={around} />
      {seal.port ? (
        <View>
          <Type look="strong">
            Port {seal.port.name}
            {seal.openings === 2 ? ', one opening in and one out' : ''}
          </Type>
          {seal.parts.map((part) => (
            <Type key={part.part}>
              {part.count * seal.openings} × {part.part}
              {part.peel ? `, ${part.peel} ${part.peel === 1 ? 'layer' : 'layers'} peeled out` : ''}
              {part.slit ? ', slit' : ''}
            </Type>
          ))}
          {seal.parts.length === 0 ? (
            <Type look="small" tone="soft">
              The parts of this port are not in the closure’s table.
            </Type>
          ) : null}
        </View>
      ) : null}
      <Findings findings={seal.findings} words={(one) => prepareFindingWords(one, units)} />
      {seal.diameter !== null && seal.diameter > 0 ? (
        <Type look="small" tone="soft">
          Bend it to a radius of {formatMillimeters(cableBendRadius(seal.diameter).underLoad, units)} while it
          is pulled, {formatMillimeters(cableBendRadius(seal.diameter).atRest, units)} at rest, no tighter.
        </Type>
      ) : null}
      <SheathNumber atHand={atHand} cable={cable} named={key} marks={marks} />
    </View>
  );
}

function Thickness({ atHand, seal, around }: { atHand: AtHand; seal: CableSeal; around: boolean }) {
  const { units } = atHand.definition.project;
  const { measure } = atHand.preparing;
  const [text, setText] = useState('');
  const [trouble, setTrouble] = useState<string>();
  const { cable } = seal;
  const about = tickTargets.diameter(cable.id);
  const typed = parseTape(text, units);
  const across = typed === null ? null : around ? diameterOfCircumference(typed) : typed;
  const store = () => {
    if (across === null || across <= 0) {
      setTrouble(
        `“${text}” is not a thickness. Give ${around ? 'the way around' : 'the width across'} in ${units}, above 0.`,
      );
      return;
    }
    measure(about, across);
    setText('');
  };
  return (
    <View style={styles.part}>
      <Type>
        {seal.diameter === null
          ? 'Not measured, and not known from the cable'
          : `${formatMillimeters(seal.diameter, units)} across, ${seal.measured ? 'measured' : 'by the cable’s data'}`}
      </Type>
      <View style={styles.row}>
        <View style={styles.field}>
          <TextBox
            label={`${seal.key}, ${around ? 'around' : 'across'}`}
            unit={units}
            keyboard="text"
            value={text}
            onChangeText={(next) => {
              setText(next);
              setTrouble(undefined);
            }}
            hint={around && across !== null ? `${formatMillimeters(across, units)} across` : undefined}
            trouble={trouble}
            onSubmit={() => text.trim() !== '' && store()}
          />
        </View>
        <Action
          bench
          label="Measured"
          spoken={`Measured: ${seal.key}, ${cable.label}`}
          disabled={text.trim() === ''}
          onPress={store}
        />
        {seal.measured ? (
          <Action
            bench
            label="Take back"
            spoken={`Take back: the thickness of ${cable.label}`}
            onPress={() => measure(about, null)}
          />
        ) : null}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  list: { padding: space.large, paddingLeft: gutter.width, gap: space.large, maxWidth: 820 },
  card: { borderWidth: stroke.rule, padding: space.medium, gap: space.medium },
  part: { gap: space.tight },
  row: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'flex-end', gap: space.small },
  field: { flexGrow: 1, flexBasis: 150 },
});
