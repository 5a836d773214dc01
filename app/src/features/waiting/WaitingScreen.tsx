import { closureOf, type ProjectDefinition } from '@cordel/core';
import { useQueries } from '@tanstack/react-query';
import { router } from 'expo-router';
import { memo, useState } from 'react';
import { FlatList, StyleSheet, View } from 'react-native';
import { projectQuery } from '../../data/projects';
import { saveText } from '../../shell/download';
import { Screen } from '../../shell/frame/Screen';
import { places } from '../../shell/places';
import { engine } from '../../sync/here';
import type { Entry } from '../../sync/read';
import { useEntries, useSending } from '../../sync/react';
import { Action } from '../../ui/Action';
import { Empty } from '../../ui/States';
import { useCordelTheme } from '../../ui/theme';
import { dayAndTime } from '../../ui/times';
import { gutter, space, stroke } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import { placeWords, recordWords } from './recordWords';

/** Everything that was recorded on this device and is not on the server: what is on its way, and before it what the server will not take. */
export function WaitingScreen() {
  const entries = useEntries();
  const sending = useSending();
  const refused = entries.filter((entry) => entry.refused !== null);
  const waiting = entries.filter((entry) => entry.refused === null);
  const projectIds = [...new Set(entries.map((entry) => entry.projectId))].filter((id) => id !== '');
  const projects = useQueries({ queries: projectIds.map((id) => projectQuery(id)) });
  const definitionOf = (projectId: string) => projects[projectIds.indexOf(projectId)]?.data;
  return (
    <Screen
      title="On this device"
      subtitle="Recorded here, not on the server yet"
      up={{ href: places.shelf, name: 'the shelf' }}
      foot={
        entries.length === 0 ? undefined : (
          <View style={styles.foot}>
            <Action
              bench
              label="Export"
              spoken="Export everything listed here as a file"
              onPress={() => saveText(exported(entries), 'cordel records.json', 'application/json')}
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
      {entries.length === 0 ? (
        <Empty
          title="Everything is on the server"
          text="What is recorded with no network is kept here until the server has it."
        />
      ) : (
        <FlatList
          data={[...refused, ...waiting]}
          keyExtractor={(entry) => entry.id}
          contentContainerStyle={styles.list}
          initialNumToRender={20}
          ListHeaderComponent={
            <View role="status" style={styles.head}>
              {refused.length > 0 ? (
                <Type look="strong" tone="accent">
                  {refused.length} not taken by the server: counted in no sum, and kept here until you decide.
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
          renderItem={({ item }) => <Record entry={item} definition={definitionOf(item.projectId)} />}
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

/** As a file that says by itself what it is. */
function exported(entries: readonly Entry[]): string {
  return JSON.stringify(
    {
      format: 'cordel-records',
      formatVersion: 1,
      exportedAt: new Date().toISOString(),
      records: entries.map(({ projectId, refused, raw }) => ({ projectId, refused, fact: raw })),
    },
    null,
    2,
  );
}

const styles = StyleSheet.create({
  list: { paddingLeft: gutter.width, paddingRight: space.medium, paddingBottom: space.large, maxWidth: 760 },
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
