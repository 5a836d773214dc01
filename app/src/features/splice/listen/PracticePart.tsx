import { faultWords, type FaultName } from '@cordel/core/machine';
import { useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import {
  getLinked,
  getPractice,
  linkTo,
  setPractice,
  settingsOf,
  usePractice,
  type Linked,
  type Practice,
} from '../../../data/machine/linked';
import type { Machines } from '../../../data/machine/machines';
import { Action } from '../../../ui/Action';
import { Choice } from '../../../ui/Field';
import { NumberBox } from '../../../ui/NumberBox';
import { space } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';

const speeds = [
  { value: '1', label: 'As a real one' },
  { value: '10', label: '× 10' },
  { value: '200', label: 'As fast as it goes' },
] as const;

/** How one practises: how fast, with what wrong, and with whose hands. A changed machine is a new one. */
export function PracticePart({
  machines,
  linked,
  onChanged,
}: {
  machines: Machines;
  linked: Linked;
  onChanged: () => void;
}) {
  const practice = usePractice();
  const [trouble, setTrouble] = useState<string | null>(null);
  const turn = useRef(Promise.resolve());
  const change = (next: Partial<Practice>) => {
    setPractice(next);
    // One after the other: what is renewed has another id, by which the next is asked for.
    turn.current = turn.current.then(async () => {
      const now = getLinked();
      if (now?.name !== linked.name || now.where !== linked.where) return;
      try {
        linkTo({ ...linked, id: await machines.renew(now.id, settingsOf(getPractice())) });
        setTrouble(null);
        onChanged();
      } catch (error) {
        setTrouble((error as Error).message);
      }
    });
  };
  const toggle = (name: FaultName) =>
    change({
      faults: practice.faults.includes(name)
        ? practice.faults.filter((one) => one !== name)
        : [...practice.faults, name],
    });
  return (
    <View style={styles.part}>
      <Type look="heading">Practice</Type>
      <Choice
        label="How fast"
        options={speeds}
        value={String(practice.speed) as (typeof speeds)[number]['value']}
        onChange={(speed) => change({ speed: Number(speed) })}
      />
      <Choice
        label="The hands"
        options={[
          { value: 'itself', label: 'Do what the bench says' },
          { value: 'mine', label: 'Are mine: one key for each step' },
        ]}
        value={practice.byItself ? 'itself' : 'mine'}
        onChange={(value) => setPractice({ byItself: value === 'itself' })}
      />
      <Type look="smallStrong">What is wrong tonight</Type>
      <View style={styles.faults}>
        {(Object.keys(faultWords) as FaultName[]).map((name) => (
          <Action
            key={name}
            label={faultWords[name]}
            pressed={practice.faults.includes(name)}
            onPress={() => toggle(name)}
          />
        ))}
      </View>
      <NumberBox
        optional
        label="Number of the night"
        hint="The same number gives the same night. Empty: another one each time."
        value={practice.night}
        trouble={
          practice.night === null || Number.isSafeInteger(practice.night) ? undefined : 'Give a whole number.'
        }
        onChange={(night) => {
          if (night === null || (Number.isSafeInteger(night) && night >= 0)) change({ night });
        }}
      />
      {trouble ? (
        <Type look="strong" tone="accent" role="alert">
          {trouble}
        </Type>
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  part: { gap: space.medium },
  faults: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
});
