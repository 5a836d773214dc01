import { fiberOf, fiberTypeIds, sleeveWords, type SleeveKind } from '@cordel/core';
import {
  gearSchema,
  gearWords,
  newGear,
  ruleWords,
  usualRules,
  type Cleaver,
  type Gear,
  type GearKind,
  type HeaterProgram,
  type LightSource,
  type Machine,
  type Program,
  type RuleCode,
  type Stripper,
} from '@cordel/core/gear';
import { router } from 'expo-router';
import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { v7 } from 'uuid';
import { afterwards } from '../../data/afterwards';
import { useDeleteGear, useGear, useSaveGear, useServerBook } from '../../data/gear';
import { Action } from '../../ui/Action';
import { Choice, TextBox } from '../../ui/Field';
import { NumberBox } from '../../ui/NumberBox';
import { SaveFoot } from '../../ui/SaveFoot';
import { Screen } from '../../ui/Screen';
import { Empty, Failed, Loading } from '../../ui/States';
import { useCordelTheme } from '../../ui/theme';
import { gutter, space, stroke } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import { places } from '../line/places';
import { GearRecord } from './GearRecord';

const up = { href: places.gear, name: 'the gear' };
const toTheList = () => router.navigate(places.gear);
const isKind = (kind: string | undefined): kind is GearKind => kind !== undefined && kind in gearWords;

/** One piece of gear, known or new: its label, programs and lengths, and the rules by which something falls due. */
export function GearFormScreen({ gearId, kind }: { gearId: string; kind?: string }) {
  const gear = useGear();
  const [fresh] = useState(() => (gearId === 'new' && isKind(kind) ? newGear(kind, v7(), '') : null));
  const item = fresh ?? gear.data?.find((one) => one.id === gearId);
  if (!item)
    return (
      <Screen title="Gear" up={up}>
        {gear.error && !gear.data ? (
          <Failed error={gear.error} onRetry={() => void gear.refetch()} />
        ) : gear.data ? (
          <Empty
            title="Not on the list"
            text="This piece of gear was deleted, or the link is of another crew."
          />
        ) : (
          <Loading what="the gear" />
        )}
      </Screen>
    );
  return (
    <GearForm
      // A newer copy starts the form anew.
      key={`${item.id}.${item.version}`}
      item={item}
      fresh={fresh !== null}
      onNewer={() => void gear.refetch()}
    />
  );
}

/** What is wrong, by the path of the field: "rules.splices125". */
type Troubles = ReadonlyMap<string, string>;

interface PartProps<G extends Gear> {
  item: G;
  troubles: Troubles;
  onChange: (item: G) => void;
}

function GearForm({ item, fresh, onNewer }: { item: Gear; fresh: boolean; onNewer: () => void }) {
  const [draft, setDraft] = useState<Gear>(item);
  const [asked, setAsked] = useState(false);
  const save = useSaveGear();
  const book = useServerBook(!fresh).data?.book;
  const result = gearSchema.safeParse(draft);
  const troubles: Troubles = new Map(
    result.error?.issues.map((issue) => [issue.path.join('.'), issue.message]).reverse() as [
      string,
      string,
    ][],
  );
  const shown = asked ? troubles : withoutUntouched(troubles);
  return (
    <Screen
      title={fresh ? `New ${gearWords[item.kind].one}` : item.label}
      up={up}
      foot={
        <SaveFoot
          label={fresh ? 'Put it on the list' : 'Save it'}
          saving={save.isPending}
          error={save.error}
          trouble={asked ? result.error?.issues[0]?.message : undefined}
          onNewer={onNewer}
          onSave={() => {
            setAsked(true);
            if (result.success) afterwards(save.mutateAsync(result.data), toTheList);
          }}
        />
      }
    >
      <ScrollView contentContainerStyle={styles.form}>
        <TextBox
          label="Label"
          value={draft.label}
          onChangeText={(label) => setDraft({ ...draft, label })}
          hint="What your crew calls it."
          trouble={shown.get('label')}
        />
        {draft.kind === 'machine' ? (
          <MachineParts item={draft} troubles={shown} onChange={setDraft} />
        ) : draft.kind === 'cleaver' ? (
          <CleaverParts item={draft} troubles={shown} onChange={setDraft} />
        ) : (
          <OneNumber item={draft} troubles={shown} onChange={setDraft} />
        )}
        {fresh || !book ? null : <GearRecord item={item} book={book} />}
        {fresh ? null : <Delete item={item} />}
      </ScrollView>
    </Screen>
  );
}

/** A label that nobody could write yet is not wrong. */
const withoutUntouched = (troubles: Troubles): Troubles =>
  new Map([...troubles].filter(([path]) => path !== 'label' && !path.endsWith('.name')));

function MachineParts({ item, troubles, onChange }: PartProps<Machine>) {
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
      </Part>
    </>
  );
}

function CleaverParts({ item, troubles, onChange }: PartProps<Cleaver>) {
  return (
    <>
      <NumberBox
        label="Cleave length"
        unit="mm"
        hint="From the coating to the end: 10, 16, 18 and 20 mm are in use (common practice). It follows coating, holder and machine."
        value={item.cleaveLength}
        onChange={(cleaveLength) => onChange({ ...item, cleaveLength })}
        trouble={troubles.get('cleaveLength')}
      />
      <NumberBox
        label="Positions on the blade"
        value={item.positions}
        onChange={(positions) => onChange({ ...item, positions })}
        trouble={troubles.get('positions')}
      />
      <NumberBox
        optional
        label="A position is due after"
        unit="fibers"
        hint="Usual: 3000 (from memory; makers print their own). Empty: never."
        value={item.rules.cleaves}
        onChange={(cleaves) => onChange({ ...item, rules: { cleaves } })}
        trouble={troubles.get('rules.cleaves')}
      />
    </>
  );
}

function OneNumber({ item, troubles, onChange }: PartProps<Stripper | LightSource>) {
  return item.kind === 'stripper' ? (
    <NumberBox
      optional
      label="Temperature of its jaws"
      unit="°C"
      hint="Cold jaws shrink the coating and break fiber (common practice). Empty: not heated."
      value={item.temperature}
      onChange={(temperature) => onChange({ ...item, temperature })}
      trouble={troubles.get('temperature')}
    />
  ) : (
    <NumberBox
      optional
      label="Wavelength"
      unit="nm"
      value={item.wavelength}
      onChange={(wavelength) => onChange({ ...item, wavelength })}
      trouble={troubles.get('wavelength')}
    />
  );
}

function Delete({ item }: { item: Gear }) {
  const [asking, setAsking] = useState(false);
  const remove = useDeleteGear();
  if (!asking) return <Action label="Take it off the list" onPress={() => setAsking(true)} />;
  return (
    <View style={styles.row} role="group" aria-label="Take it off the list">
      <Type>
        Its label stays on the splices that were made with it. Its counts and rules are gone from the list.
      </Type>
      {remove.error ? (
        <Type tone="accent" role="alert">
          {remove.error.message}
        </Type>
      ) : null}
      <View style={styles.keys}>
        <Action label="Keep it" onPress={() => setAsking(false)} style={styles.flex} />
        <Action
          kind="now"
          label={`Take ${item.label} off`}
          disabled={remove.isPending}
          onPress={() => afterwards(remove.mutateAsync(item), toTheList)}
          style={styles.flex}
        />
      </View>
    </View>
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

function Trouble({ text }: { text: string | undefined }) {
  return text ? (
    <Type look="small" tone="accent" role="alert">
      {text}
    </Type>
  ) : null;
}

const styles = StyleSheet.create({
  form: { padding: space.large, paddingLeft: gutter.width, gap: space.large, maxWidth: 760 },
  part: { gap: space.medium, borderTopWidth: stroke.rule, paddingTop: space.medium },
  row: { gap: space.medium, borderWidth: stroke.hair, padding: space.medium },
  keys: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
  flex: { flexGrow: 1, flexBasis: 140 },
});
