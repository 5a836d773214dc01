import { formatMean } from '@cordel/core';
import { nightIds, nightNames } from '@cordel/core/nightNames';
import { router } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { places } from '../../../shell/places';
import { Action } from '../../../ui/Action';
import { useCordelTheme } from '../../../ui/theme';
import { dayAndTime } from '../../../ui/times';
import { space, stroke } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import { nightResults, useRunning } from './nightResults';

/** The nights that can be worked, what came of each at best, and those that were worked. */
export function NightList() {
  const { palette } = useCordelTheme();
  const running = useRunning();
  const results = nightResults.use();
  return (
    <View style={styles.list}>
      <Type look="heading" role="heading" aria-level={2}>
        Nights at the simulated machine
      </Type>
      <Type>
        Something is wrong in each, and nobody says what. Splice, look, put right what you think it is, and
        name it. It counts what the splices really lose, sleeves, minutes, slack, and whether you named it.
      </Type>
      {nightIds.map((id) => {
        const { title, tells } = nightNames[id];
        const best = Math.max(...results.filter(({ night }) => night === id).map(({ points }) => points));
        return (
          <Action
            key={id}
            bench
            label={title}
            detail={[tells, running[id] ? 'begun' : null, best > -Infinity ? `best ${best} of 100` : null]
              .filter(Boolean)
              .join(' · ')}
            onPress={() => router.navigate(places.practiceNight(id))}
          />
        );
      })}
      {results.length > 0 ? (
        <View role="list" aria-label="Nights so far">
          <Type look="heading" role="heading" aria-level={2}>
            Nights so far
          </Type>
          {results.map(({ at, night, points, named, mean, sleeves, minutes }) => (
            <View key={at} role="listitem" style={[styles.result, { borderColor: palette.hairline }]}>
              <Type look="strong">{`${nightNames[night].title}: ${points} of 100`}</Type>
              <Type>
                {`${named ? 'named' : 'not named'}, ${formatMean(mean)} dB, ${sleeves} in the bin, ${Math.round(minutes)} min`}
              </Type>
              <Type look="small" tone="soft">
                {dayAndTime(new Date(at).toISOString(), undefined)}
              </Type>
            </View>
          ))}
        </View>
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  list: { gap: space.medium },
  result: {
    flexDirection: 'row',
    flexWrap: 'wrap',
    alignItems: 'baseline',
    columnGap: space.large,
    paddingVertical: space.small,
    borderBottomWidth: stroke.hair,
  },
});
