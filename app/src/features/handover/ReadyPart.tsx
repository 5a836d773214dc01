import type { ReadyPlace } from '@cordel/core/ready';
import { router, type Href } from 'expo-router';
import { Pressable, ScrollView, StyleSheet, View } from 'react-native';
import { useEntries } from '../../sync/react';
import { places } from '../../shell/places';
import { progressWords } from '../../shell/words';
import { Action } from '../../ui/Action';
import { CordRow } from '../../ui/Cord';
import { Knot } from '../../ui/Knot';
import { gutter, space, touch } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import { PickScope } from './PickScope';
import { SignedLine } from './SignedLine';
import type { ClosureBook, HandoverGiven } from './useBooks';

/** One list of what stands against acceptance, each line leading to where it is mended; then what the owner should know of. */
export function ReadyPart({ definition, books, closureId }: HandoverGiven) {
  const { id } = definition.project;
  const shown = books.filter(({ closure }) => closureId === undefined || closure.id === closureId);
  const refused = useEntries().filter((entry) => entry.projectId === id && entry.refused !== null).length;
  const waiting = useEntries().filter((entry) => entry.projectId === id && entry.refused === null).length;
  const against =
    shown.reduce((sum, { ready }) => sum + ready.filter(({ stands }) => stands === 'against').length, 0) +
    Number(refused > 0);
  return (
    <ScrollView contentContainerStyle={styles.list}>
      <View style={styles.part}>
        <PickScope definition={definition} books={books} closureId={closureId} />
        <Type look="title" tone={against > 0 ? 'accent' : 'ink'} role="status">
          {shown.length === 0
            ? 'No closure yet'
            : against === 0
              ? 'Ready: nothing stands against acceptance'
              : against === 1
                ? 'Not ready: 1 thing stands against it'
                : `Not ready: ${against} things stand against it`}
        </Type>
        <View style={styles.ways}>
          <Action
            kind={against === 0 && shown.length > 0 ? 'now' : 'block'}
            label="Sign-off"
            onPress={() => router.navigate(places.handover(id, 'sign', closureId))}
          />
          <Action
            label="Documents"
            onPress={() => router.navigate(places.handover(id, 'documents', closureId))}
          />
          <Action
            label="Owner’s calls"
            onPress={() => router.navigate(places.handover(id, 'calls', closureId))}
          />
        </View>
        {refused > 0 ? (
          <Line
            words={`${refused === 1 ? '1 record was' : `${refused} records were`} refused by the server and count in no sum.`}
            against
            href={places.waiting}
          />
        ) : null}
        {waiting > 0 ? (
          <Line
            words={`${waiting} ${waiting === 1 ? 'record is' : 'records are'} only on this device yet.`}
            against={false}
            href={places.waiting}
          />
        ) : null}
      </View>
      {shown.map((book, index) => (
        <ClosureLines
          key={book.closure.id}
          projectId={id}
          book={book}
          first={index === 0}
          last={index === shown.length - 1}
          zone={definition.project.timeZone}
        />
      ))}
    </ScrollView>
  );
}

function ClosureLines({
  projectId,
  book: { closure, site, ledger, ready, facts },
  first,
  last,
  zone,
}: {
  projectId: string;
  book: ClosureBook;
  first: boolean;
  last: boolean;
  zone: string | null | undefined;
}) {
  const good = ready.every(({ stands }) => stands === 'told');
  return (
    <CordRow
      above={first ? 'none' : 'open'}
      below={last ? 'none' : good ? 'done' : 'open'}
      knot={<Knot mark={good ? 'holds' : ledger.rollUp.marks.redo > 0 ? 'redo' : 'open'} size={24} />}
      knotSize={24}
      knotAt={26}
    >
      <View role="group" aria-label={site.name} style={styles.closure}>
        <View style={styles.head}>
          <Type look="heading" role="heading" aria-level={2}>
            {site.name}
          </Type>
          <Type look="small" tone="soft">
            {good ? 'ready' : progressWords(ledger.rollUp)}
          </Type>
        </View>
        {ready.map(({ code, words, stands, place }, index) => (
          <Line
            key={`${code} ${index}`}
            words={words}
            against={stands === 'against'}
            href={placeOf(projectId, closure.id, place)}
          />
        ))}
        <SignedLine facts={facts} zone={zone} />
      </View>
    </CordRow>
  );
}

function placeOf(projectId: string, closureId: string, place: ReadyPlace): Href {
  switch (place.at) {
    case 'bench':
      return places.bench(projectId, closureId, place.tray, place.slot);
    case 'tray':
      return places.tray(projectId, closureId, place.tray);
    case 'gear':
      return places.gearItem(place.gearId);
    case 'plan':
      return places.plan(projectId, closureId);
    case 'seal':
      return places.seal(projectId, closureId);
    case 'calls':
      return places.handover(projectId, 'calls', closureId);
    case 'connectors':
      return places.connectors(projectId, closureId);
    case 'limits':
      return places.limits(projectId);
    case 'closure':
      return places.closure(projectId, closureId);
  }
}

function Line({ words, against, href }: { words: string; against: boolean; href: Href }) {
  return (
    <Pressable role="link" onPress={() => router.navigate(href)} style={styles.line}>
      <Type look={against ? 'strong' : 'body'} tone={against ? 'accent' : 'ink'}>
        {words}
      </Type>
    </Pressable>
  );
}

const styles = StyleSheet.create({
  list: { paddingBottom: space.large, maxWidth: 860 },
  part: { padding: space.large, paddingLeft: gutter.width, gap: space.medium },
  ways: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
  closure: { paddingVertical: space.small },
  head: {
    flexDirection: 'row',
    flexWrap: 'wrap',
    alignItems: 'baseline',
    justifyContent: 'space-between',
    minHeight: 36,
  },
  line: { minHeight: touch.normal, justifyContent: 'center', paddingVertical: space.tight },
});
