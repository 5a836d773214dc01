import type { Machine } from '@cordel/core/gear';
import { StyleSheet, View } from 'react-native';
import { pickGear } from '../../../data/gearTonight';
import { linkTo, settingsOf, getPractice, type Linked } from '../../../data/machine/linked';
import type { MachineFound, Machines } from '../../../data/machine/machines';
import { Action } from '../../../ui/Action';
import { Choice } from '../../../ui/Field';
import { Sheet } from '../../../ui/Sheet';
import { Failed, Loading } from '../../../ui/States';
import { space } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import type { BenchGear } from '../gear/useGearAtBench';
import { PracticePart } from './PracticePart';
import { SaidPart } from './SaidPart';

interface MachineSheetProps {
  machines: Machines;
  linked: Linked | null;
  found: readonly MachineFound[] | null;
  error: Error | null;
  onLook: () => void;
  gear: BenchGear;
  onClose: () => void;
}

const none = 'none';

/** Which machine is listened to, whose it is, how one practises at one that is simulated, and how it is said. */
export function MachineSheet({ machines, linked, found, error, onLook, gear, onClose }: MachineSheetProps) {
  const own = gear.list.filter((one): one is Machine => one.kind === 'machine');
  const link = async ({ where, id, name, simulated }: MachineFound) => {
    if (linked?.id === id) return;
    // One that is simulated begins as it is set here.
    const machineId = simulated ? await machines.renew(id, settingsOf(getPractice())) : id;
    linkTo({ where, id: machineId, name, simulated, gearId: linked?.gearId ?? null });
    onLook();
  };
  return (
    <Sheet title="Machine" open onClose={onClose}>
      {error ? <Failed error={error} onRetry={onLook} /> : !found ? <Loading what="the machines" /> : null}
      <View style={styles.list}>
        {(found ?? []).map((one) => (
          <Action
            key={one.id}
            bench
            label={one.name}
            detail={one.where === 'page' ? 'in this page, works with no network' : 'reached by the server'}
            pressed={linked?.id === one.id}
            onPress={() => void link(one)}
          />
        ))}
        <View style={styles.row}>
          <Action label="Look again" onPress={onLook} />
          {linked ? <Action label="Unlink" onPress={() => linkTo(null)} /> : null}
        </View>
      </View>
      {linked ? (
        <>
          {own.length > 0 ? (
            <Choice
              label="Which of your machines it is"
              options={[
                ...own.map(({ id, label }) => ({ value: id, label })),
                { value: none, label: 'None of them' },
              ]}
              value={linked.gearId ?? none}
              onChange={(value) => {
                const item = own.find(({ id }) => id === value);
                linkTo({ ...linked, gearId: item?.id ?? null });
                pickGear({ machine: item ? { id: item.id, label: item.label } : null });
              }}
            />
          ) : null}
          <Type look="small" tone="soft">
            {linked.gearId
              ? 'Its splices, its program and its calibrations are counted for this machine.'
              : linked.simulated
                ? 'What it reads is recorded as simulated, and counted for no gear.'
                : 'What it reads is recorded; nothing is counted for a machine.'}
          </Type>
          {linked.simulated ? <PracticePart machines={machines} linked={linked} onChanged={onLook} /> : null}
        </>
      ) : null}
      <SaidPart />
    </Sheet>
  );
}

const styles = StyleSheet.create({
  list: { gap: space.small },
  row: { flexDirection: 'row', gap: space.small },
});
