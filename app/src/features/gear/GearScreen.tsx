import { shownNumber } from '@cordel/core';
import {
  cleaverStanding,
  counted,
  dueWords,
  gearWords,
  machineStanding,
  type Gear,
  type GearBook,
  type GearKind,
} from '@cordel/core/gear';
import { router } from 'expo-router';
import { Pressable, ScrollView, StyleSheet, View } from 'react-native';
import { correctedNow } from '../../data/clock';
import { useGear, useServerBook } from '../../data/gear';
import { Action } from '../../ui/Action';
import { Screen } from '../../shell/frame/Screen';
import { Empty, Failed, Loading } from '../../ui/States';
import { useCordelTheme } from '../../ui/theme';
import { gutter, space, stroke, touch } from '../../ui/tokens';
import { dayOf } from '../../ui/times';
import { Type } from '../../ui/Type';
import { places } from '../../shell/places';

/** All gear of the crews with its counts and what is due; one list for every project. */
export function GearScreen() {
  const { palette } = useCordelTheme();
  const gear = useGear();
  const book = useServerBook(true);
  const now = new Date(correctedNow()).toISOString();
  return (
    <Screen
      title="Gear"
      subtitle="Yours, under your own labels"
      up={{ href: places.shelf, name: 'the shelf' }}
      foot={
        <View style={styles.foot}>
          {(Object.keys(gearWords) as GearKind[]).map((kind) => (
            <Action
              key={kind}
              bench
              icon="add"
              label={gearWords[kind].one}
              spoken={`Add a ${gearWords[kind].one}`}
              onPress={() => router.navigate(places.newGear(kind))}
              style={styles.add}
            />
          ))}
        </View>
      }
    >
      <ScrollView contentContainerStyle={styles.list}>
        {gear.error && !gear.data ? (
          <Failed error={gear.error} onRetry={() => void gear.refetch()} />
        ) : !gear.data ? (
          <Loading what="the gear" />
        ) : gear.data.length === 0 ? (
          <Empty
            title="No gear yet"
            text="Put your splicing machine and your cleaver on the list: splices then carry what they were made with, and you are told when the arc or the blade is due."
          />
        ) : null}
        {(Object.keys(gearWords) as GearKind[]).map((kind) => {
          const own = gear.data?.filter((item) => item.kind === kind) ?? [];
          if (own.length === 0) return null;
          return (
            <View key={kind} style={styles.kind}>
              <Type look="heading" role="heading" aria-level={2}>
                {gearWords[kind].many}
              </Type>
              {own.map((item) => (
                <Pressable
                  key={item.id}
                  role="link"
                  onPress={() => router.navigate(places.gearItem(item.id))}
                  style={[styles.item, { borderColor: palette.ink, backgroundColor: palette.sheet }]}
                >
                  <Type look="heading">{item.label}</Type>
                  <Counts item={item} book={book.data?.book ?? null} now={now} />
                </Pressable>
              ))}
            </View>
          );
        })}
      </ScrollView>
    </Screen>
  );
}

/** What is counted of a piece of gear, and what is due. */
function Counts({ item, book, now }: { item: Gear; book: GearBook | null; now: string }) {
  const lines = countWords(item, book, now);
  return (
    <>
      <Type look="small" tone="soft">
        {lines.counts}
      </Type>
      {lines.due.map((due) => (
        <Type key={due} look="small" tone="accent">
          {due}
        </Type>
      ))}
    </>
  );
}

function countWords(
  item: Gear,
  book: GearBook | null,
  now: string,
): { counts: string; due: readonly string[] } {
  switch (item.kind) {
    case 'machine': {
      if (!book) return { counts: 'Counting …', due: [] };
      const { calibrated, splices, arcs, due } = machineStanding(item, book, now);
      return {
        counts: [
          calibrated
            ? `calibrated ${dayOf(calibrated.madeAt, null)}, ${counted(splices, 'splice')} ago`
            : 'no calibration on record',
          `${counted(arcs, 'arc')} on the electrodes`,
        ].join(' · '),
        due: due.map(
          (one) =>
            `${one.about === 'electrodes' ? 'New electrodes due' : 'Calibration due'}: ${dueWords(one)}`,
        ),
      };
    }
    case 'cleaver': {
      if (!book) return { counts: 'Counting …', due: [] };
      const { position, cleaves, due } = cleaverStanding(item, book, now);
      return {
        counts: `position ${position} of ${item.positions} · ${counted(cleaves, 'fiber')} cleaved on it · ${shownNumber(item.cleaveLength)} mm`,
        due: due.map((one) => `Blade due: ${dueWords(one)}`),
      };
    }
    case 'stripper':
      return {
        counts: item.temperature === null ? 'not heated' : `${shownNumber(item.temperature)} °C`,
        due: [],
      };
    case 'light-source':
      return {
        counts: item.wavelength === null ? 'wavelength not given' : `${shownNumber(item.wavelength)} nm`,
        due: [],
      };
  }
}

const styles = StyleSheet.create({
  list: { padding: space.large, paddingLeft: gutter.width, gap: space.wide, maxWidth: 860 },
  kind: { gap: space.small },
  item: { borderWidth: stroke.rule, padding: space.medium, gap: space.hair, minHeight: touch.bench },
  foot: { padding: space.small, flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
  add: { flexGrow: 1, flexBasis: 150 },
});
