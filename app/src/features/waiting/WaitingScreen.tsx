import { closureOf, type ProjectDefinition } from '@cordel/core';
import { useQueries } from '@tanstack/react-query';
import { router } from 'expo-router';
import { memo, useState } from 'react';
import { FlatList, StyleSheet, View } from 'react-native';
import { projectQuery, shownProject } from '../../data/projects';
import { saveText } from '../../shell/download';
import { Screen } from '../../shell/frame/Screen';
import { places } from '../../shell/places';
import { engine } from '../../sync/here';
import type { Entry } from '../../sync/read';
import { onItsWay, type StoredEdit } from '../../sync/editList';
import { useAllEdits, useEntries, useSending, useWaitingKnown } from '../../sync/react';
import { Action } from '../../ui/Action';
import { Empty, Loading } from '../../ui/States';
import { useCordelTheme } from '../../ui/theme';
import { dayAndTime } from '../../ui/times';
import { gutter, space, stroke } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import { EditRow } from './EditRow';
import { placeWords, recordWords } from './recordWords';
import { RoomWords } from './RoomWords';

/** Everything that was recorded or edited on this device and is not on the server: what is on its way, and before it what the person has to decide. */
export function WaitingScreen() {
  const entries = useEntries();
  const edits = useAllEdits();
  const known = useWaitingKnown();
  const sending = useSending();
  const items: readonly Item[] = [
    ...edits.map((edit) => ({ edit, refused: !onItsWay(edit) })),
    ...entries.map((entry) => ({ entry, refused: entry.refused !== null })),
  ];
  const refused = items.filter((item) => item.refused);
  const waiting = items.filter((item) => !item.refused);
  const projectIds = [
    ...new Set([...entries.map((entry) => entry.projectId), ...edits.map((edit) => edit.scope)]),
  ].filter((id) => id !== '');
  const stored = useQueries({
    queries: projectIds.map((id) => ({ ...projectQuery(id), enabled: !engine().edits.unborn(id) })),
  });
  const definitionOf = (projectId: string) =>
    projectId === ''
      ? undefined
      : shownProject(stored[projectIds.indexOf(projectId)]?.data, engine().edits.of(projectId));
  return (
    <Screen
      title="On this device"
      subtitle="Entered here, not on the server yet"
      up={{ href: places.shelf, name: 'the shelf' }}
      foot={
        items.length === 0 ? undefined : (
          <View style={styles.foot}>
            <Action
              bench
              label="Export"
              spoken="Export everything listed here as a file"
              onPress={() => saveText(exported(entries, edits), 'cordel records.json', 'application/json')}
              style={styles.grow}
            />
            {waiting.length > 0 ? (
              <Action
                bench
                kind="now"
                label={sending === 'sending' ? 'Sending …' : 'Send now'}
                disabled={sending === 'sending'}
                onPress={() => void engine().push.tryNow()}
                style={styles.grow}
              />
            ) : null}
          </View>
        )
      }
    >
      {!known ? (
        <Loading what="what waits here" />
      ) : items.length === 0 ? (
        <View>
          <Empty
            title="Everything is on the server"
            text="What is entered with no network is kept here until the server has it."
          />
          <View style={styles.room}>
            <RoomWords />
          </View>
        </View>
      ) : (
        <FlatList
          data={[...refused, ...waiting]}
          keyExtractor={(item) => ('edit' in item ? item.edit : item.entry).id}
          contentContainerStyle={styles.list}
          initialNumToRender={20}
          ListHeaderComponent={
            <View role="status" style={styles.head}>
              {refused.length > 0 ? (
                <Type look="strong" tone="accent">
                  {refused.length} to decide. What the server will not take counts in no sum, and is kept here
                  until you do.
                </Type>
              ) : null}
              {waiting.length > 0 ? (
                <Type look="strong">
                  {waiting.length} to send, the oldest first.{' '}
                  {sending === 'away'
                    ? 'The server does not answer; it is tried again by itself.'
                    : sending === 'sending'
                      ? 'They are being sent.'
                      : ''}
                </Type>
              ) : null}
            </View>
          }
          ListFooterComponent={
            <View style={styles.head}>
              <RoomWords />
            </View>
          }
          renderItem={({ item }) =>
            'edit' in item ? (
              <EditRow edit={item.edit} definition={definitionOf(item.edit.scope)} />
            ) : (
              <Record entry={item.entry} definition={definitionOf(item.entry.projectId)} />
            )
          }
        />
      )}
    </Screen>
  );
}

const Record = memo(function Record({
  entry,
  definition,
}: {
  entry: Entry;
  definition: ProjectDefinition | undefined;
}) {
  const { palette } = useCordelTheme();
  const [asking, setAsking] = useState(false);
  const words = recordWords(entry);
  const closureId = entry.fact ? closureOf(entry.fact) : null;
  const when = entry.fact ? dayAndTime(entry.fact.madeAt, definition?.project.timeZone) : '';
  const where = placeWords(entry, definition);
  return (
    <View style={[styles.record, { borderColor: palette.hairline }]}>
      <Type look="strong">{words}</Type>
      <Type look="small" tone="soft">
        {[where, when, entry.fact?.by].filter(Boolean).join(' · ')}
      </Type>
      {entry.refused !== null ? (
        <>
          <Type tone="accent">{entry.refused}</Type>
          <View style={styles.actions}>
            {definition?.closures.some((one) => one.id === closureId) ? (
              <Action
                label="Go there"
                spoken={`Go there: ${words}`}
                onPress={() => router.navigate(places.closure(entry.projectId, closureId!))}
              />
            ) : null}
            {entry.fact ? (
              <Action
                label="Send again"
                spoken={`Send again: ${words}`}
                onPress={() => void engine().sendAgain([entry.id])}
              />
            ) : null}
            <Action
              label="Drop"
              spoken={`Drop: ${words}`}
              pressed={asking}
              onPress={() => setAsking(!asking)}
            />
          </View>
          {asking ? (
            <View role="alert" style={styles.actions}>
              <Type>
                It is on no other device and not on the server. Dropped, it is gone for good. Export it first
                if in doubt.
              </Type>
              <Action
                kind="now"
                label="Drop it for good"
                spoken={`Drop it for good: ${words}`}
                onPress={() => void engine().log.drop([entry.id])}
              />
              <Action label="Keep it" onPress={() => setAsking(false)} />
            </View>
          ) : null}
        </>
      ) : null}
    </View>
  );
});

type Item = { readonly refused: boolean } & ({ readonly edit: StoredEdit } | { readonly entry: Entry });

/** As a file that says by itself what it is. */
function exported(entries: readonly Entry[], edits: readonly StoredEdit[]): string {
  return JSON.stringify(
    {
      format: 'cordel-records',
      formatVersion: 1,
      exportedAt: new Date().toISOString(),
      records: entries.map(({ projectId, refused, raw }) => ({ projectId, refused, fact: raw })),
      edits: edits.map(({ scope, kind, documentId, refused, base, mine, theirs }) => ({
        projectId: scope,
        ...{ kind, documentId, refused, base, mine, theirs },
      })),
    },
    null,
    2,
  );
}

const styles = StyleSheet.create({
  list: { paddingLeft: gutter.width, paddingRight: space.medium, paddingBottom: space.large, maxWidth: 760 },
  room: { paddingLeft: gutter.width, paddingRight: space.medium, maxWidth: 760 },
  head: { paddingVertical: space.medium, gap: space.small },
  record: { borderTopWidth: stroke.hair, paddingVertical: space.medium, gap: space.tight },
  actions: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: space.small },
  foot: {
    flexDirection: 'row',
    flexWrap: 'wrap',
    gap: space.small,
    padding: space.small,
    paddingLeft: gutter.width,
    maxWidth: 760,
  },
  grow: { flexGrow: 1 },
});
