import { useState } from 'react';
import { View, StyleSheet } from 'react-native';
import { knownFact } from '@cordel/core';
import { useClockOff } from '../../data/clock';
import { outbox, useNotKept, useOutbox, type OutboxEntry } from '../../data/outbox';
import { Action } from '../../ui/Action';
import { Sheet } from '../../ui/Sheet';
import { space } from '../../ui/tokens';
import { dayAndTime } from '../../ui/times';
import { Type } from '../../ui/Type';

/**
 * "3 to send": what this device has and the server has not, in words and never as an error. Nothing when there is nothing. A
 * component of its own, so that a reading on its way redraws these words and not the bench.
 */
export function SendWords({ after }: { after: string | undefined }) {
  const waiting = useOutbox().filter((entry) => entry.refused === null).length;
  const words = [after, waiting > 0 ? `${waiting} to send` : null].filter(Boolean).join(' · ');
  return words ? (
    <Type look="small" tone="soft">
      {words}
    </Type>
  ) : null;
}

/** What is wrong with this device, where anything is: its clock, and readings that the server will not take. */
export function DeviceNotices() {
  return (
    <>
      <ClockNotice />
      <RefusedFacts />
    </>
  );
}

/** The last entry could not be kept. On every screen, since every one may record something. */
export function NotKeptNotice() {
  if (!useNotKept()) return null;
  return (
    <View style={styles.bar} role="alert">
      <Type look="strong" tone="accent">
        Not recorded: this device has no room left. Make room on it, then enter it again.
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

/** Readings that the server will not take, where there are any: told, and kept until the person decides. */
function RefusedFacts() {
  const [open, setOpen] = useState(false);
  const refused = useOutbox().filter((entry) => entry.refused !== null);
  if (refused.length === 0) return null;
  return (
    <View style={styles.bar}>
      <Action
        icon="alert"
        label={`${refused.length} not taken by the server`}
        onPress={() => setOpen(true)}
      />
      <Sheet title="Not taken by the server" open={open} onClose={() => setOpen(false)}>
        {refused.map((entry) => (
          <View key={entry.fact.id} style={styles.entry}>
            <Type look="strong">
              {nameOf(entry)}
              {` · ${dayAndTime(entry.fact.madeAt, null)}`}
            </Type>
            <Type look="small">{entry.refused}</Type>
          </View>
        ))}
        <Action
          label="Drop them from this device"
          onPress={() => {
            outbox.remove(new Set(refused.map((entry) => entry.fact.id)));
            setOpen(false);
          }}
        />
      </Sheet>
    </View>
  );
}

const styles = StyleSheet.create({
  bar: { padding: space.small },
  entry: { gap: space.hair },
});

function nameOf({ fact }: OutboxEntry): string {
  const known = knownFact(fact);
  return known?.kind === 'attempt'
    ? `Reading ${known.body.readings.map((reading) => reading.loss ?? 'none').join(', ')}`
    : fact.kind;
}
