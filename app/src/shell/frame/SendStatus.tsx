import { memo } from 'react';
import { router } from 'expo-router';
import { Pressable, StyleSheet, View } from 'react-native';
import { useClockOff } from '../../data/clock';
import { useLittleRoom } from '../../data/room';
import { onItsWay } from '../../sync/editList';
import { useAllEdits, useEntries, useNotKept } from '../../sync/react';
import { Action } from '../../ui/Action';
import { space } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import { places } from '../places';
import { useNewerVersion } from '../version/newerVersion';

/**
 * "3 to send": what this device has and the server has not, in words and never as an error. Nothing when there is nothing. A
 * component of its own, so that a reading on its way redraws these words and not the bench.
 * @param linked the words lead to the page of what waits: not at the bench, where nothing is that small for a glove
 */
export function SendWords({ after, linked }: { after: string | undefined; linked: boolean }) {
  const records = useEntries().filter((entry) => entry.refused === null).length;
  const waiting = records + useAllEdits().filter(onItsWay).length;
  return (
    <View style={styles.words}>
      {after ? (
        <Type look="small" tone="soft">
          {after}
          {waiting > 0 ? ' ·' : ''}
        </Type>
      ) : null}
      {waiting > 0 && !linked ? (
        <Type look="small" tone="soft">
          {waiting} to send
        </Type>
      ) : null}
      {waiting > 0 && linked ? (
        <Pressable role="link" hitSlop={space.medium} onPress={() => router.navigate(places.waiting)}>
          <Type look="small" tone="soft" style={styles.link}>
            {waiting} to send
          </Type>
        </Pressable>
      ) : null}
    </View>
  );
}

/** What is wrong with this device, where anything is: its clock, its room, and readings that the server will not take. */
export const DeviceNotices = memo(function DeviceNotices() {
  return (
    <>
      <VersionNotice />
      <ClockNotice />
      <RoomNotice />
      <Undecided />
    </>
  );
});

const notKeptWords = {
  full: 'Not recorded: this device has no room left. Make room on it, then enter it again.',
  none: 'This browser keeps nothing on the device, so nothing can be recorded in it. Leave the private window, or allow storage for this address.',
  newer: 'Not recorded: a newer Cordel is open in another tab. Load this page again, then enter it again.',
  failed:
    'Not recorded: this device could not keep it. Enter it again; if that does not help, load the page again.',
  cleared:
    'The browser cleared what Cordel kept on this device. What this page still knew is kept again: look whether anything is missing, and allow storage for this address.',
} as const;

/** The last entry could not be kept. On every screen, since every one may record something. */
export const NotKeptNotice = memo(function NotKeptNotice() {
  const why = useNotKept();
  if (why === null) return null;
  return (
    <View style={styles.bar} role="alert">
      <Type look="strong" tone="accent">
        {notKeptWords[why]}
      </Type>
    </View>
  );
});

function VersionNotice() {
  const version = useNewerVersion();
  if (version === 'none') return null;
  return (
    <View style={styles.bar} role="status">
      <Type look="small">
        {version === 'ready'
          ? 'A newer Cordel is here. It is taken when nothing is being entered.'
          : 'This is a newer Cordel now. Nothing that waits was lost.'}
      </Type>
    </View>
  );
}

function ClockNotice() {
  const off = useClockOff();
  if (off === 0) return null;
  const minutes = Math.round(Math.abs(off) / 60_000);
  const long = minutes < 120 ? `${minutes} minutes` : `${Math.round(minutes / 60)} hours`;
  return (
    <View style={styles.bar} role="status">
      <Type look="small">
        This device’s clock is {long} {off > 0 ? 'behind' : 'ahead of'} the server’s. What is recorded gets
        the server’s time; set the clock when there is a moment.
      </Type>
    </View>
  );
}

function RoomNotice() {
  const left = useLittleRoom();
  if (left === null) return null;
  return (
    <View style={styles.bar} role="status">
      <Type look="small">
        This device has {(left / 1e6).toFixed(0)} MB left for Cordel. Make room on it: with none left, nothing
        more can be recorded.
      </Type>
    </View>
  );
}

/** What the server will not take, and what somebody else changed too, where there is any: told, and kept until the person decides. */
function Undecided() {
  const entries = useEntries().filter((entry) => entry.refused !== null).length;
  const edits = useAllEdits().filter((edit) => !onItsWay(edit));
  const overtaken = edits.filter((edit) => edit.theirs !== null).length;
  const refused = entries + edits.length - overtaken;
  if (refused + overtaken === 0) return null;
  return (
    <View style={styles.bar}>
      {refused > 0 ? (
        <Action
          icon="alert"
          label={`${refused} not taken by the server`}
          onPress={() => router.navigate(places.waiting)}
        />
      ) : null}
      {overtaken > 0 ? (
        <Action
          icon="alert"
          label={`${overtaken} changed by somebody else too: decide`}
          onPress={() => router.navigate(places.waiting)}
        />
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  bar: { padding: space.small },
  words: { flexDirection: 'row', flexWrap: 'wrap', columnGap: space.tight },
  link: { textDecorationLine: 'underline' },
});
