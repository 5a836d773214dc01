import { shownNumber } from '@cordel/core';
import type { Conditions, GearFact } from '@cordel/core';
import { grouped, type Gear, type GearBook } from '@cordel/core/gear';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Action } from '../../ui/Action';
import { useCordelTheme } from '../../ui/theme';
import { space, stroke } from '../../ui/tokens';
import { dayAndTime } from '../../ui/times';
import { Type } from '../../ui/Type';

/** Rows shown before somebody asks for the rest. */
const first = 12;

/** What happened to a piece of gear, the newest first: calibrations with their conditions, what was renewed, what was passed over. */
export function GearRecord({ item, book }: { item: Gear; book: GearBook }) {
  const { palette } = useCordelTheme();
  const [all, setAll] = useState(false);
  const facts = book.facts.filter((fact) => fact.subject.gearId === item.id);
  const tries = triesOf(facts);
  const shown = [...facts].reverse().slice(0, all ? undefined : first);
  return (
    <View style={[styles.record, { borderTopColor: palette.ink }]}>
      <Type look="heading" role="heading" aria-level={2}>
        What happened to it
      </Type>
      {facts.length === 0 ? (
        <Type look="small" tone="soft">
          Nothing yet. Calibrations, new blades and what was passed over are noted at the bench, and stand
          here.
        </Type>
      ) : null}
      {shown.map((fact) => (
        <View key={fact.id} style={[styles.row, { borderBottomColor: palette.hairline }]}>
          <Type look="small" tone="soft">
            {[dayAndTime(fact.madeAt, null), fact.by].filter(Boolean).join(' · ')}
          </Type>
          <Type>{words(fact, tries)}</Type>
        </View>
      ))}
      {facts.length > shown.length ? (
        <Action label={`Show all ${grouped(facts.length)}`} onPress={() => setAll(true)} />
      ) : null}
    </View>
  );
}

/** Which try each calibration was: one more than the failed ones since the last that passed. */
function triesOf(facts: readonly GearFact[]): ReadonlyMap<string, number> {
  const tries = new Map<string, number>();
  let failed = 0;
  for (const fact of facts) {
    if (fact.kind !== 'calibration') continue;
    tries.set(fact.id, failed + 1);
    failed = fact.body.passed ? 0 : failed + 1;
  }
  return tries;
}

const eventWords = {
  'electrodes-cleaned': 'Electrodes cleaned',
  'electrodes-replaced': 'Electrodes replaced',
  'blade-turned': 'Blade turned to its next position',
  'blade-replaced': 'New blade',
  'arcs-read': 'Arcs read off the machine',
  'cleaves-read': 'Fibers cleaved on the position',
  'position-read': 'Blade position',
} as const;

const passedWords = {
  calibration: 'Spliced on without a calibration',
  electrodes: 'Spliced on without new electrodes',
  blade: 'Spliced on with the same blade position',
} as const;

function words(fact: GearFact, tries: ReadonlyMap<string, number>): string {
  switch (fact.kind) {
    case 'calibration':
      return [
        `Calibration ${fact.body.passed ? 'passed' : 'failed'}, try ${tries.get(fact.id) ?? 1}`,
        ...conditionWords(fact.body.conditions),
      ].join(' · ');
    case 'weather':
      return ['Weather', ...conditionWords(fact.body.conditions)].join(' · ');
    case 'gear-event':
      return `${eventWords[fact.body.event]}${fact.body.value === undefined ? '' : `: ${grouped(fact.body.value)}`}`;
    case 'recleave':
      return `Cleaved again before the arc: ${grouped(fact.body.ends)} ${fact.body.ends === 1 ? 'end' : 'ends'}`;
    case 'went-on':
      return passedWords[fact.body.about];
  }
}

function conditionWords({ temperature, humidity, pressure }: Conditions): string[] {
  return [
    temperature === null ? [] : `${shownNumber(temperature)} °C`,
    humidity === null ? [] : `${shownNumber(humidity)} %`,
    pressure === null ? [] : `${shownNumber(Math.round(pressure * 10) / 10)} kPa`,
  ].flat();
}

const styles = StyleSheet.create({
  record: { gap: space.small, borderTopWidth: stroke.rule, paddingTop: space.medium },
  row: { borderBottomWidth: stroke.hair, paddingBottom: space.tight },
});
