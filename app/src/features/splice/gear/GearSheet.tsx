import { shownNumber } from '@cordel/core';
import type { Cable, Fact, GearEvent, GearRef, Joint } from '@cordel/core';
import { counted, dueWords, grouped, type Gear } from '@cordel/core/gear';
import { router } from 'expo-router';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { pickGear, useTonight } from '../../../data/gearTonight';
import { usePreferences } from '../../../data/preferences';
import { Action } from '../../../ui/Action';
import { Caution } from '../../../ui/Caution';
import { TextBox } from '../../../ui/Field';
import { Sheet } from '../../../ui/Sheet';
import { useCordelTheme } from '../../../ui/theme';
import { space, stroke } from '../../../ui/tokens';
import { dayAndTime, type ShownZone } from '../../../ui/times';
import { Type } from '../../../ui/Type';
import { places } from '../../../shell/places';
import { CalibrationForm, CalibrationWords } from './DueQuestion';
import type { GearAtBench } from './gearAtBench';
import { GearChoices, programsFor, ProgramChoices } from './GearChoices';
import { newCalibration, newGearEvent, newWeather } from './newGearFact';
import { readWeather, WeatherFields, weatherText } from './WeatherFields';

interface GearSheetProps {
  gear: readonly Gear[];
  atBench: GearAtBench | null;
  closureId: string;
  joint: Joint;
  cables: readonly Cable[];
  units: 'mm' | 'in';
  zone: ShownZone;
  onFact: (fact: Fact, shown?: () => void) => void;
  onClose: () => void;
}

/** The gear of the night: what is in use, its counts, and everything that is done to it. */
export function GearSheet(props: GearSheetProps) {
  const { gear, atBench, closureId, joint, cables, units, zone, onFact, onClose } = props;
  const tonight = useTonight();
  const [calibrating, setCalibrating] = useState(false);
  const [said, setSaid] = useState<string | null>(null);
  const record = (fact: Fact, words: string) => {
    setSaid(null);
    onFact(fact, () => setSaid(words));
  };
  const { machine, cleaver } = atBench ?? { machine: null, cleaver: null };
  const event = (item: GearRef, name: GearEvent['body']['event'], words: string, value?: number) =>
    record(newGearEvent(closureId, item, name, value), words);
  return (
    <Sheet title="Gear tonight" open onClose={onClose}>
      {gear.length === 0 ? (
        <Type>
          No gear is on the list yet. With a machine and a cleaver on it, splices carry what they were made
          with, and you are told when the arc or the blade is due.
        </Type>
      ) : (
        <GearChoices
          gear={gear}
          picked={tonight}
          onChange={(change) =>
            pickGear({
              ...change,
              ...(change.machine ? programsFor(gear, change.machine, joint, cables) : {}),
            })
          }
        />
      )}
      <ProgramChoices gear={gear} />
      {said ? (
        <Type look="strong" role="status">
          {said}
        </Type>
      ) : null}
      {machine ? (
        <Part title={machine.item.label}>
          <Type>
            {[
              machine.standing.calibrated
                ? `Calibrated ${dayAndTime(machine.standing.calibrated.madeAt, zone)}, ${counted(machine.standing.splices, 'splice')} ago`
                : 'No calibration on record',
              `${counted(machine.standing.arcs, 'arc')} on the electrodes`,
            ].join(' · ')}
          </Type>
          {machine.standing.due.map((due) => (
            <Type key={due.about + due.rule} look="small" tone="accent">
              {due.about === 'electrodes' ? 'New electrodes due' : 'Calibration due'}: {dueWords(due)}
            </Type>
          ))}
          {calibrating ? (
            <CalibrationForm
              words={<CalibrationWords cables={cables} failed={machine.standing.failed} />}
              weather={machine.standing.weather}
              units={units}
              onResult={(passed, conditions) => {
                if (passed) {
                  setCalibrating(false);
                }
                record(
                  newCalibration(closureId, machine.item, passed, conditions),
                  passed ? 'Calibration passed.' : 'It failed: new ends on both sides, and another try.',
                );
              }}
            />
          ) : (
            <View style={styles.keys}>
              <Key label="Calibrate the arc" onPress={() => setCalibrating(true)} />
              <Key
                label="Electrodes cleaned"
                onPress={() =>
                  event(machine.item, 'electrodes-cleaned', 'Electrodes cleaned: calibrate next.')
                }
              />
              <Key
                label="Electrodes replaced"
                onPress={() => {
                  event(machine.item, 'electrodes-replaced', 'Electrodes replaced: calibrate next.');
                }}
              />
            </View>
          )}
          <Caution text="Electrodes: machine off and unplugged first, as its maker says." />
          <CountForm
            label="Arcs, as the machine’s own counter shows"
            onCount={(value) => event(machine.item, 'arcs-read', `${grouped(value)} arcs noted.`, value)}
          />
          <WeatherNow {...props} machine={machine} onWeather={(fact) => record(fact, 'Weather noted.')} />
        </Part>
      ) : null}
      {cleaver ? (
        <Part title={cleaver.item.label}>
          <Type>
            Position {cleaver.standing.position} of {cleaver.item.positions} ·{' '}
            {grouped(cleaver.standing.cleaves)} fibers cleaved on it · cleave length{' '}
            {shownNumber(cleaver.item.cleaveLength)} mm
          </Type>
          {cleaver.standing.due.map((due) => (
            <Type key={due.rule} look="small" tone="accent">
              Blade due: {dueWords(due)}
            </Type>
          ))}
          <View style={styles.keys}>
            {cleaver.standing.position < cleaver.item.positions ? (
              <Key
                label={`Turned to position ${cleaver.standing.position + 1}`}
                onPress={() => {
                  event(cleaver.item, 'blade-turned', 'Blade turned.');
                }}
              />
            ) : null}
            <Key
              label="New blade"
              onPress={() => {
                event(cleaver.item, 'blade-replaced', 'New blade, position 1.');
              }}
            />
          </View>
          <CountForm
            label="Blade position that is on"
            most={cleaver.item.positions}
            onCount={(value) => event(cleaver.item, 'position-read', `Position ${value} noted.`, value)}
          />
          <CountForm
            label="Fibers cleaved on this position"
            onCount={(value) =>
              event(cleaver.item, 'cleaves-read', `${grouped(value)} cleaves noted.`, value)
            }
          />
        </Part>
      ) : null}
      <Action
        bench
        label="All gear, rules and programs"
        onPress={() => {
          onClose();
          router.navigate(places.gear);
        }}
      />
    </Sheet>
  );
}

function Part({ title, children }: { title: string; children: React.ReactNode }) {
  const { palette } = useCordelTheme();
  return (
    <View style={[styles.part, { borderTopColor: palette.ink }]}>
      <Type look="heading" role="heading" aria-level={3}>
        {title}
      </Type>
      {children}
    </View>
  );
}

function Key({ label, onPress }: { label: string; onPress: () => void }) {
  return <Action bench label={label} onPress={onPress} style={styles.key} />;
}

/** A count that is read off somewhere. */
function CountForm({
  label,
  most = 10_000_000,
  onCount,
}: {
  label: string;
  most?: number;
  onCount: (count: number) => void;
}) {
  const [text, setText] = useState('');
  const good = /^\d+$/.test(text.trim()) && Number(text) <= most;
  return (
    <View style={styles.keys}>
      <View style={styles.field}>
        <TextBox
          bench
          label={label}
          keyboard="numeric"
          value={text}
          onChangeText={setText}
          trouble={text === '' || good ? undefined : `A whole number from 0 to ${grouped(most)}.`}
        />
      </View>
      <Action
        bench
        label="Note it"
        spoken={`Note it: ${label}`}
        disabled={!good}
        onPress={() => {
          onCount(Number(text));
          setText('');
        }}
        style={styles.note}
      />
    </View>
  );
}

/** The weather as it is now, without calibrating: a marked change makes a calibration due. */
function WeatherNow({
  machine,
  closureId,
  units,
  onWeather,
}: GearSheetProps & {
  machine: NonNullable<GearAtBench['machine']>;
  onWeather: (fact: Fact) => void;
}) {
  const { pressureBy } = usePreferences();
  const [text, setText] = useState(() => weatherText(machine.standing.weather, units, pressureBy));
  const { conditions } = readWeather(text, units, pressureBy);
  return (
    <>
      <WeatherFields text={text} units={units} onChange={setText} />
      <Action
        bench
        label="Note the weather as it is now"
        disabled={!conditions}
        onPress={() => onWeather(newWeather(closureId, machine.item, conditions!))}
      />
    </>
  );
}

const styles = StyleSheet.create({
  part: { gap: space.medium, borderTopWidth: stroke.rule, paddingTop: space.medium },
  keys: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'flex-end', gap: space.small },
  key: { flexGrow: 1, flexBasis: 130 },
  field: { flexGrow: 1, flexBasis: 180 },
  note: { flexBasis: 110 },
});
