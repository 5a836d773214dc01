import { shownNumber } from '@cordel/core';
import { router } from 'expo-router';
import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { answerOf, needsServer } from '../../data/api';
import { queryClient } from '../../data/client';
import { device } from '../../data/device';
import { useShelf } from '../../data/projects';
import { saveBlob } from '../../shell/download';
import { Screen } from '../../shell/frame/Screen';
import { places } from '../../shell/places';
import { Action } from '../../ui/Action';
import { FilePick } from '../../ui/FilePick';
import { gutter, space } from '../../ui/tokens';
import { Trouble } from '../../ui/Trouble';
import { Type } from '../../ui/Type';
import { writtenBackup } from './writtenBackup';

/** Everything of this server out as one file, and into an empty one. */
export function BackupScreen() {
  const shelf = useShelf();
  const [busy, setBusy] = useState<string | null>(null);
  const [said, setSaid] = useState<{ words: string; failed: boolean } | null>(null);
  const [restored, setRestored] = useState(false);
  const there = (shelf.data?.shelf.length ?? 0) + (shelf.data?.deleted.length ?? 0);

  const during = async (words: string, work: () => Promise<string>) => {
    setBusy(words);
    setSaid(null);
    try {
      setSaid({ words: await work(), failed: false });
    } catch (error) {
      setSaid({ words: (error as Error).message, failed: true });
    }
    setBusy(null);
  };
  const write = () =>
    during('Gathering everything …', async () => {
      const { blob, name } = await writtenBackup((share) =>
        setBusy(`Fetching it, ${Math.round(share * 100)} %`),
      );
      saveBlob(blob, name);
      return `Saved as ${name}, ${shownNumber(Math.max(0.1, blob.size / 1e6).toFixed(1))} MB. Keep it where it outlives this machine.`;
    });
  const read = (file: File) =>
    during('Reading it in …', async () => {
      const { rows, projects } = await needsServer(
        answerOf<{ rows: number; projects: number }>(
          fetch('/api/restore', {
            method: 'POST',
            headers: { 'Content-Type': 'application/octet-stream', 'Cordel-Device': device },
            body: file,
          }),
        ),
      );
      setRestored(true);
      await queryClient.invalidateQueries();
      return `${projects === 1 ? '1 project is' : `${projects} projects are`} here now, ${rows} rows, counted and whole.`;
    });
  return (
    <Screen
      title="Backup"
      subtitle="The whole shelf as one file"
      up={{ href: places.shelf, name: 'the shelf' }}
    >
      <ScrollView contentContainerStyle={styles.list}>
        <View role="group" aria-label="Write" style={styles.part}>
          <Type look="heading" role="heading" aria-level={2}>
            Write
          </Type>
          <Type>
            Everything that this server has, as of one moment: projects, records, photos, signed records,
            models and gear. Others work on meanwhile. What waits on this device and was not sent is not in
            it.
          </Type>
          <Action
            bench
            kind={restored || there === 0 ? 'block' : 'now'}
            icon="download"
            label="Write a backup"
            disabled={busy !== null}
            onPress={() => void write()}
          />
          <Type look="small" tone="soft">
            Whoever has the file can read all of it.
          </Type>
        </View>
        {busy ? (
          <Type look="strong" role="status">
            {busy}
          </Type>
        ) : null}
        {said?.failed ? <Trouble text={said.words} /> : null}
        {said && !said.failed ? (
          <Type look="strong" role="status">
            {said.words}
          </Type>
        ) : null}
        <View role="group" aria-label="Read" style={styles.part}>
          <Type look="heading" role="heading" aria-level={2}>
            Read
          </Type>
          {restored ? (
            <Action bench kind="now" label="To the shelf" onPress={() => router.navigate(places.shelf)} />
          ) : there > 0 ? (
            <Type>
              A backup is read over nothing, and there is something on this shelf
              {shelf.data?.shelf.length === 0 ? ' that was deleted' : ''}. Start an empty Cordel in another
              folder, and read it there.
            </Type>
          ) : (
            <>
              <Type>
                Into this empty Cordel, all or nothing. Phones that knew the old one go on by themselves.
              </Type>
              <FilePick
                bench
                label="Read a backup"
                what="Backup file"
                accept=".cordel-backup"
                busy={busy !== null}
                onFile={(file) => void read(file)}
              />
            </>
          )}
        </View>
      </ScrollView>
    </Screen>
  );
}

const styles = StyleSheet.create({
  list: { padding: space.large, paddingLeft: gutter.width, gap: space.large, maxWidth: 760 },
  part: { gap: space.medium },
});
