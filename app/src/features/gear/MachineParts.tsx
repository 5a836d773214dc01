import { fiberOf, fiberTypeIds, sleeveWords, type SleeveKind } from '@cordel/core';
import {
  ruleWords,
  usualCalibrationArcs,
  usualRules,
  type Gear,
  type HeaterProgram,
  type Machine,
  type Program,
  type RuleCode,
} from '@cordel/core/gear';
import { StyleSheet, View } from 'react-native';
import { Action } from '../../ui/Action';
import { Choice, TextBox } from '../../ui/Field';
import { NumberBox } from '../../ui/NumberBox';
import { useCordelTheme } from '../../ui/theme';
import { space, stroke } from '../../ui/tokens';
import { Trouble } from '../../ui/Trouble';
import { Type } from '../../ui/Type';

/** What is wrong, by the path of the field: "rules.splices125". */
export type Troubles = ReadonlyMap<string, string>;

export interface PartProps<G extends Gear> {
  item: G;
  troubles: Troubles;
  onChange: (item: G) => void;
}

/** A machine's programs, what it takes before the arc, and the rules by which something falls due. */
export function MachineParts({ item, troubles, onChange }: PartProps<Machine>) {
  const setProgram = (index: number, change: Partial<Program>) =>
    onChange({
      ...item,
      programs: item.programs.map((one, at) => (at === index ? { ...one, ...change } : one)),
    });
  const setHeater = (index: number, change: Partial<HeaterProgram>) =>
    onChange({
      ...item,
      heaterPrograms: item.heaterPrograms.map((one, at) => (at === index ? { ...one, ...change } : one)),
    });
  return (
    <>
      <Part title="Splice programs" about="Each for its fiber types. The bench warns when another one is on.">
        {item.programs.map((program, index) => (
          <Row key={index} name={`Splice program ${index + 1}`}>
            <TextBox
              label={`Name of program ${index + 1}`}
              value={program.name}
              onChangeText={(name) => setProgram(index, { name })}
              trouble={troubles.get(`programs.${index}.name`)}
            />
            <View role="group" aria-label={`Fiber types of program ${index + 1}`} style={styles.keys}>
              {fiberTypeIds.map((fiberType) => {
                const on = program.fiberTypes.includes(fiberType);
                return (
                  <Action
                    key={fiberType}
                    label={fiberOf({ fiberType }).type.name}
                    pressed={on}
                    onPress={() =>
                      setProgram(index, {
                        fiberTypes: on
                          ? program.fiberTypes.filter((one) => one !== fiberType)
                          : [...program.fiberTypes, fiberType],
                      })
                    }
                  />
                );
              })}
            </View>
            <Trouble text={troubles.get(`programs.${index}.fiberTypes`)} />
            <Choice
              label={`Cladding of program ${index + 1}`}
              value={String(program.cladding)}
              options={[
                { value: '125', label: '125 μm' },
                { value: '400', label: '400 μm' },
              ]}
              onChange={(value) => setProgram(index, { cladding: value === '400' ? 400 : 125 })}
            />
            <Action
              label={`Remove program ${index + 1}`}
              onPress={() => onChange({ ...item, programs: item.programs.filter((_, at) => at !== index) })}
            />
          </Row>
        ))}
        <Trouble text={troubles.get('programs')} />
        <Action
          label="Add a splice program"
          icon="add"
          onPress={() =>
            onChange({ ...item, programs: [...item.programs, { name: '', fiberTypes: [], cladding: 125 }] })
          }
        />
      </Part>
      <Part title="Heater programs" about="Each for its sleeve. The bench warns when another one is on.">
        {item.heaterPrograms.map((heater, index) => (
          <Row key={index} name={`Heater program ${index + 1}`}>
            <TextBox
              label={`Name of heater program ${index + 1}`}
              value={heater.name}
              onChangeText={(name) => setHeater(index, { name })}
              trouble={troubles.get(`heaterPrograms.${index}.name`)}
            />
            <Choice
              label={`Sleeve of heater program ${index + 1}`}
              value={heater.sleeve}
              options={(Object.keys(sleeveWords) as SleeveKind[]).map((value) => ({
                value,
                label: sleeveWords[value],
              }))}
              onChange={(sleeve) => setHeater(index, { sleeve })}
            />
            <NumberBox
              label={`Heats for, heater program ${index + 1}`}
              unit="s"
              value={heater.seconds}
              onChange={(seconds) => setHeater(index, { seconds })}
              trouble={troubles.get(`heaterPrograms.${index}.seconds`)}
            />
            <Action
              label={`Remove heater program ${index + 1}`}
              onPress={() =>
                onChange({ ...item, heaterPrograms: item.heaterPrograms.filter((_, at) => at !== index) })
              }
            />
          </Row>
        ))}
        <Trouble text={troubles.get('heaterPrograms')} />
        <Action
          label="Add a heater program"
          icon="add"
          onPress={() =>
            onChange({
              ...item,
              heaterPrograms: [...item.heaterPrograms, { name: '', sleeve: 'single-60', seconds: 35 }],
            })
          }
        />
        <NumberBox
          label="Sleeves that the heater takes at once"
          value={item.heaters}
          onChange={(heaters) => onChange({ ...item, heaters })}
          trouble={troubles.get('heaters')}
        />
        <NumberBox
          label="On the cooling tray, until a sleeve may be touched"
          unit="s"
          value={item.coolSeconds}
          onChange={(coolSeconds) => onChange({ ...item, coolSeconds })}
          trouble={troubles.get('coolSeconds')}
        />
      </Part>
      <Part title="What it takes before the arc" about="The tighter of these and the project’s limits binds.">
        {(
          [
            ['cleaveAngle', 'Cleave angle, at most', '°'],
            ['offset', 'Axis offset, at most', 'μm'],
            ['gap', 'Gap, at most', 'μm'],
          ] as const
        ).map(([name, label, unit]) => (
          <NumberBox
            key={name}
            optional
            label={label}
            unit={unit}
            hint="Empty: no limit of its own."
            value={item.limits[name]}
            onChange={(value) => onChange({ ...item, limits: { ...item.limits, [name]: value } })}
            trouble={troubles.get(`limits.${name}`)}
          />
        ))}
      </Part>
      <Part
        title="When something is due"
        about="Calibration by each of these rows, and new electrodes by the last. An empty row never asks."
      >
        {(Object.keys(ruleWords) as RuleCode[]).map((code) => (
          <NumberBox
            key={code}
            optional
            label={ruleWords[code].what}
            unit={ruleWords[code].unit}
            hint={[
              item.rules[code] === null ? 'Off.' : null,
              `Usual: ${usualRules[code]} (${ruleWords[code].from}).`,
              // Near the ground: 1 kPa less is about 85 m higher.
              code === 'pressure' ? 'About 85 m of altitude for each kPa.' : null,
            ]
              .filter(Boolean)
              .join(' ')}
            value={item.rules[code]}
            onChange={(value) => onChange({ ...item, rules: { ...item.rules, [code]: value } })}
            trouble={troubles.get(`rules.${code}`)}
          />
        ))}
        <NumberBox
          optional
          label="Arcs of one try at a calibration"
          hint={`They wear the electrodes. Empty: ${usualCalibrationArcs} (from memory).`}
          value={item.calibrationArcs ?? null}
          onChange={(arcs) => {
            const { calibrationArcs: _, ...rest } = item;
            onChange(arcs === null ? rest : { ...rest, calibrationArcs: arcs });
          }}
          trouble={troubles.get('calibrationArcs')}
        />
      </Part>
    </>
  );
}
function Part({ title, about, children }: { title: string; about: string; children: React.ReactNode }) {
  const { palette } = useCordelTheme();
  return (
    <View style={[styles.part, { borderTopColor: palette.ink }]}>
      <View>
        <Type look="heading" role="heading" aria-level={2}>
          {title}
        </Type>
        <Type look="small" tone="soft">
          {about}
        </Type>
      </View>
      {children}
    </View>
  );
}

function Row({ name, children }: { name: string; children: React.ReactNode }) {
  const { palette } = useCordelTheme();
  return (
    <View role="group" aria-label={name} style={[styles.row, { borderColor: palette.hairline }]}>
      {children}
    </View>
  );
}

const styles = StyleSheet.create({
  part: { gap: space.medium, borderTopWidth: stroke.rule, paddingTop: space.medium },
  row: { gap: space.medium, borderWidth: stroke.hair, padding: space.medium },
  keys: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
});
