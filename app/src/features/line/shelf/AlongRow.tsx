import { shownNumber } from '@cordel/core';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { askToKeep, removeFromDevice, takeAlong } from '../../../data/along';
import { onItsWay } from '../../../sync/editList';
import { useEdits, useEntries, useReaches } from '../../../sync/react';
import { Action } from '../../../ui/Action';
import { dayAndTime } from '../../../ui/times';
import { space } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';

/** Whether a project is on this device, how fresh, and what of it waits; to take it along, and to remove it. */
export function AlongRow({ projectId, name }: { projectId: string; name: string }) {
  const client = useQueryClient();
  const reach = useReaches().get(projectId);
  const entries = useEntries().filter((entry) => entry.projectId === projectId);
  const [state, setState] = useState<'rest' | 'taking' | 'asking'>('rest');
  const [said, setSaid] = useState<string | null>(null);
  const edits = useEdits(projectId);
  const records = entries.filter((entry) => entry.refused === null).length;
  const waiting = records + edits.filter(onItsWay).length;
  const refused = entries.length + edits.length - waiting;
  const along = reach?.whole === true && reach.along !== null;

  const take = async () => {
    setState('taking');
    setSaid(null);
    try {
      const [{ facts, bytes, ms }] = await Promise.all([
        takeAlong(client, projectId, { photos: true }),
        askToKeep(),
      ]);
      setSaid(`Along: ${facts} records, ${megabytes(bytes)}, in ${shownNumber((ms / 1000).toFixed(1))} s.`);
    } catch (error) {
      setSaid((error as Error).message);
    }
    setState('rest');
  };
  const remove = async () => {
    setState('rest');
    setSaid(
      (await removeFromDevice(client, projectId))
        ? null
        : 'Not removed: something of it is not on the server yet.',
    );
  };
  return (
    <View role="group" aria-label={`${name} on this device`} style={styles.row}>
      <Type look="small" tone="soft" style={styles.words}>
        {[
          along ? `On this device, as of ${dayAndTime(reach.at, null)}` : 'Not on this device as a whole',
          waiting > 0 ? `${waiting} to send` : null,
          refused > 0 ? `${refused} to decide` : null,
        ]
          .filter(Boolean)
          .join(' · ')}
      </Type>
      <View style={styles.actions}>
        <Action
          label={state === 'taking' ? 'Taking it along …' : along ? 'Refresh' : 'Take along'}
          spoken={`${along ? 'Refresh' : 'Take along'} ${name}`}
          disabled={state === 'taking'}
          onPress={() => void take()}
        />
        {reach ? (
          <Action
            label="Remove"
            spoken={`Remove ${name} from this device`}
            pressed={state === 'asking'}
            onPress={() => setState(state === 'asking' ? 'rest' : 'asking')}
          />
        ) : null}
      </View>
      {state === 'asking' ? (
        <View role="alert" style={styles.actions}>
          <Type style={styles.words}>
            It stays on the server. With no network it cannot be opened here until it is taken along again.
          </Type>
          <Action kind="now" label="Remove it" spoken={`Remove it: ${name}`} onPress={() => void remove()} />
          <Action label="Keep it" onPress={() => setState('rest')} />
        </View>
      ) : null}
      {said ? (
        <Type look="small" role="status">
          {said}
        </Type>
      ) : null}
    </View>
  );
}

function megabytes(bytes: number): string {
  return bytes < 100_000 ? `${Math.ceil(bytes / 1000)} kB` : `${shownNumber((bytes / 1e6).toFixed(1))} MB`;
}

const styles = StyleSheet.create({
  row: { gap: space.tight, paddingBottom: space.small },
  words: { flexShrink: 1 },
  actions: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small, alignItems: 'center' },
});
