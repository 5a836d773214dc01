import { colorSchemes, shownNumber } from '@cordel/core';
import { drillLength, type DrillCables } from '@cordel/core/practice';
import { useCallback, useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { Screen } from '../../shell/frame/Screen';
import { places } from '../../shell/places';
import { Action } from '../../ui/Action';
import { Choice } from '../../ui/Field';
import { useCordelTheme } from '../../ui/theme';
import { dayAndTime } from '../../ui/times';
import { gutter, space, stroke } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import { NightList } from './nights/NightList';
import { DrillRound } from './DrillRound';
import { drillChoice, drillResults, type DrillResult } from './drillResults';

const cableOptions: readonly { value: DrillCables; label: string }[] = [
  { value: 'loose', label: 'Tubes of 12' },
  { value: 'groups', label: 'Tubes of 24 in groups' },
  { value: 'ribbons', label: 'Ribbons' },
  { value: 'all', label: 'All of them' },
];
const schemeOptions = colorSchemes.map(({ id, name }) => ({ value: id, label: name }));

/** Where somebody practises: color codes and positions by the clock, and nights at the simulated machine; on this device alone. */
export function PracticeScreen() {
  const [round, setRound] = useState<{ seed: number } | null>(null);
  const { cables, scheme } = drillChoice.use();
  const results = drillResults.use();
  const done = useCallback(() => setRound(null), []);
  return (
    <Screen
      title="Practice"
      subtitle={round ? 'colors and positions' : 'on this device'}
      up={{ href: places.shelf, name: 'the shelf' }}
      foot={
        round ? (
          <View style={styles.foot}>
            <Action bench label="End this round" onPress={done} style={styles.grow} />
          </View>
        ) : (
          <View style={styles.foot}>
            <Action
              bench
              kind="now"
              label={`Begin, ${drillLength} questions`}
              onPress={() => setRound({ seed: crypto.getRandomValues(new Uint32Array(1))[0]! })}
              style={styles.grow}
            />
          </View>
        )
      }
    >
      {round ? (
        <DrillRound seed={round.seed} cables={cables} scheme={scheme} onDone={done} />
      ) : (
        <ScrollView contentContainerStyle={styles.list}>
          <Type look="heading" role="heading" aria-level={2}>
            Colors and positions
          </Type>
          <Type>
            Which fiber is 157? A number is given and its place is asked, or the other way round; the time
            counts. The wrong answers are those that people give: the tube beside, the other group, counted
            from the other end.
          </Type>
          <Choice
            bench
            label="Cables"
            options={cableOptions}
            value={cables}
            onChange={(value) => drillChoice.set({ cables: value, scheme })}
          />
          <Choice
            bench
            label="Color code"
            options={schemeOptions}
            value={scheme}
            onChange={(value) => drillChoice.set({ cables, scheme: value })}
          />
          <Results results={results} />
          <NightList />
          <Type look="small" tone="soft">
            The simulated machine stands at every bench too, under Hands free, Machine.
          </Type>
        </ScrollView>
      )}
    </Screen>
  );
}

function Results({ results }: { results: readonly DrillResult[] }) {
  const { palette } = useCordelTheme();
  if (results.length === 0) return null;
  return (
    <View role="list" aria-label="Rounds so far">
      <Type look="heading" role="heading" aria-level={2}>
        Rounds so far
      </Type>
      {results.map((result) => (
        <View key={result.at} role="listitem" style={[styles.result, { borderColor: palette.hairline }]}>
          <Type look="strong">{`${result.right} of ${result.of} right`}</Type>
          <Type>{result.seconds === null ? '' : `${shownNumber(result.seconds.toFixed(1))} s each`}</Type>
          <Type look="small" tone="soft">
            {`${cableOptions.find(({ value }) => value === result.cables)!.label} · ${dayAndTime(new Date(result.at).toISOString(), undefined)}`}
          </Type>
        </View>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  list: { padding: space.large, paddingLeft: gutter.width, gap: space.large, maxWidth: 760 },
  foot: { flexDirection: 'row', padding: space.small, maxWidth: 760 },
  grow: { flexGrow: 1 },
  result: {
    flexDirection: 'row',
    flexWrap: 'wrap',
    alignItems: 'baseline',
    columnGap: space.large,
    paddingVertical: space.small,
    borderBottomWidth: stroke.hair,
  },
});
