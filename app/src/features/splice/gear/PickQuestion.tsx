import type { Cable, Joint } from '@cordel/core';
import type { Gear } from '@cordel/core/gear';
import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { pickGear, useTonight } from '../../../data/gearTonight';
import { Action } from '../../../ui/Action';
import { space } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import { GearChoices, programsFor, usualPick } from './GearChoices';

/** Asked once a night: what stands on every attempt from now on. */
export function PickQuestion({
  gear,
  joint,
  cables,
}: {
  gear: readonly Gear[];
  joint: Joint;
  cables: readonly Cable[];
}) {
  const tonight = useTonight();
  const [picked, setPicked] = useState(() => usualPick(gear, tonight, joint.sleeve));
  const programs = programsFor(gear, picked.machine, joint, cables);
  const setTo = [
    programs.program ? `program “${programs.program}”` : null,
    programs.heater ? `heater “${programs.heater}”` : null,
  ].filter(Boolean);
  return (
    <ScrollView style={styles.question} contentContainerStyle={styles.body}>
      <Type look="heading">Which gear tonight?</Type>
      <GearChoices
        gear={gear}
        picked={picked}
        onChange={(change) => setPicked((before) => ({ ...before, ...change }))}
      />
      {setTo.length > 0 ? (
        <Type look="small">Set the machine for this splice: {setTo.join(', ')}.</Type>
      ) : null}
      <View style={styles.keys}>
        <Action
          bench
          kind="now"
          label="These tonight"
          onPress={() => pickGear({ ...picked, ...programs })}
          style={styles.key}
        />
        <Action
          bench
          label="None on record"
          onPress={() =>
            pickGear({
              machine: null,
              cleaver: null,
              stripper: null,
              program: null,
              heater: null,
              cladding: 125,
            })
          }
          style={styles.key}
        />
      </View>
      <Type look="small" tone="soft">
        Stands on every splice of the night. Change it under Details, Gear tonight.
      </Type>
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  question: { maxHeight: 440 },
  body: { gap: space.small, padding: space.tight },
  keys: { flexDirection: 'row', gap: space.small },
  key: { flex: 1 },
});
