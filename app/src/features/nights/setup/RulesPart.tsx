import { cordOrder, ruleOf, type ClosureRule } from '@cordel/core';
import { useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { Picker } from '../../../ui/Picker';
import { useCordelTheme } from '../../../ui/theme';
import { TickRow } from '../../../ui/TickRow';
import { space, stroke, touch } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import { closureName, nightName } from '../words';
import type { SetupPart } from './NightsSetupScreen';
import { DayTimeBox, dayTime } from './DayTimeBox';

/** What holds for each closure beyond its plan. */
export function RulesPart({ definition, draft, onChange }: SetupPart) {
  const { palette } = useCordelTheme();
  const [open, setOpen] = useState<string | null>(null);
  const closures = cordOrder(definition.sites).flatMap((site) =>
    definition.closures.filter((closure) => closure.siteId === site.id),
  );
  const set = (rule: ClosureRule, next: Partial<ClosureRule>) =>
    onChange({
      rules: [...draft.rules.filter(({ closureId }) => closureId !== rule.closureId), { ...rule, ...next }],
    });
  return (
    <View style={styles.part}>
      <Type look="title" role="heading" aria-level={2}>
        Closures
      </Type>
      <Type look="small" tone="soft">
        A closure that is opened is sealed and tested before the crew leaves, unless it may stay open.
      </Type>
      {closures.map(({ id }) => {
        const rule = ruleOf(draft, id);
        const name = closureName(definition, id);
        return (
          <View
            key={id}
            role="group"
            aria-label={name}
            style={[styles.closure, { borderBottomColor: palette.hairline }]}
          >
            <Pressable
              role="button"
              aria-expanded={open === id}
              onPress={() => setOpen(open === id ? null : id)}
              style={styles.head}
            >
              <Type look="strong">{name}</Type>
              <Type look="small" tone="soft">
                {ruleWords(rule, definition, draft)}
              </Type>
            </Pressable>
            {open === id ? (
              <RuleFields
                rule={rule}
                name={name}
                others={closures.flatMap((one) => (one.id === id ? [] : [one.id]))}
                definition={definition}
                draft={draft}
                onChange={(next) => set(rule, next)}
              />
            ) : null}
          </View>
        );
      })}
    </View>
  );
}

function ruleWords(
  rule: ClosureRule,
  definition: SetupPart['definition'],
  { nights }: SetupPart['draft'],
): string {
  if (rule.leftOut) return 'Not in these nights';
  const only = nights.find(({ id }) => id === rule.onlyNightId);
  return (
    [
      rule.mayStayOpen ? 'may stay open under cover' : null,
      rule.backBy === null ? null : `circuits back by ${dayTime(rule.backBy)}`,
      only ? `only on ${nightName(only, definition.project.timeZone)}` : null,
      rule.afterIds.length > 0
        ? `after ${rule.afterIds.map((id) => closureName(definition, id)).join(', ')}`
        : null,
    ]
      .filter(Boolean)
      .join(' · ') || 'Nothing special'
  );
}

function RuleFields({
  rule,
  name,
  others,
  definition,
  draft,
  onChange,
}: {
  rule: ClosureRule;
  name: string;
  others: readonly string[];
  definition: SetupPart['definition'];
  draft: SetupPart['draft'];
  onChange: (next: Partial<ClosureRule>) => void;
}) {
  const zone = definition.project.timeZone;
  return (
    <View style={styles.fields}>
      <TickRow ticked={rule.leftOut} onPress={() => onChange({ leftOut: !rule.leftOut })}>
        <Type>Leave it out of these nights</Type>
      </TickRow>
      <TickRow ticked={rule.mayStayOpen} onPress={() => onChange({ mayStayOpen: !rule.mayStayOpen })}>
        <Type>It may stay open under cover over a day, where the owner allows it</Type>
      </TickRow>
      <DayTimeBox
        label={`Circuits of ${name} back by`}
        hint="A time of night, like 04:30; empty: by the end of the night."
        value={rule.backBy}
        optional
        onChange={(backBy) => onChange({ backBy })}
      />
      <Picker
        label="May be cut"
        options={[
          { value: '', label: 'On any night' },
          ...draft.nights.map((night) => ({ value: night.id, label: `Only on ${nightName(night, zone)}` })),
        ]}
        value={rule.onlyNightId ?? ''}
        onChange={(id) => onChange({ onlyNightId: id === '' ? null : id })}
      />
      {others.length > 0 ? (
        <View role="group" aria-label={`Sealed before ${name} is begun`}>
          <Type look="smallStrong">Sealed before it is begun</Type>
          {others.map((id) => {
            const waits = rule.afterIds.includes(id);
            return (
              <TickRow
                key={id}
                ticked={waits}
                onPress={() =>
                  onChange({
                    afterIds: waits ? rule.afterIds.filter((one) => one !== id) : [...rule.afterIds, id],
                  })
                }
              >
                <Type>{closureName(definition, id)}</Type>
              </TickRow>
            );
          })}
        </View>
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  part: { gap: space.medium },
  closure: { borderBottomWidth: stroke.hair },
  head: { minHeight: touch.bench, justifyContent: 'center', paddingVertical: space.small },
  fields: { gap: space.medium, paddingBottom: space.large },
});
