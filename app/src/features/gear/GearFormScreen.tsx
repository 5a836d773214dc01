import {
  gearSchema,
  gearWords,
  newGear,
  type Cleaver,
  type Gear,
  type GearKind,
  type LightSource,
  type Stripper,
} from '@cordel/core/gear';
import { router } from 'expo-router';
import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { v7 } from 'uuid';
import { afterwards } from '../../data/afterwards';
import { useDeleteGear, useGear, useSaveGear, useServerBook } from '../../data/gear';
import { useVersionedEdit, type VersionedEdit } from '../../data/versionedEdit';
import { Action } from '../../ui/Action';
import { TextBox } from '../../ui/Field';
import { NumberBox } from '../../ui/NumberBox';
import { SaveFoot } from '../../shell/forms/SaveFoot';
import { Screen } from '../../shell/frame/Screen';
import { Empty, Failed, Loading } from '../../ui/States';
import { gutter, space, stroke } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import { places } from '../../shell/places';
import { GearRecord } from './GearRecord';
import { MachineParts, type PartProps, type Troubles } from './MachineParts';

const up = { href: places.gear, name: 'the gear' };
const toTheList = () => router.navigate(places.gear);
const isKind = (kind: string | undefined): kind is GearKind => kind !== undefined && kind in gearWords;

/** One piece of gear, known or new: its label, programs and lengths, and the rules by which something falls due. */
export function GearFormScreen({ gearId, kind }: { gearId: string; kind?: string }) {
  const gear = useGear();
  const [fresh] = useState(() => (gearId === 'new' && isKind(kind) ? newGear(kind, v7(), '') : null));
  const stored = gear.data?.find((one) => one.id === gearId);
  const edit = useVersionedEdit(stored, gear.refetch);
  const item = fresh ?? edit.base;
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
  return <GearForm key={`${item.id}.${edit.round}`} item={item} fresh={fresh !== null} edit={edit} />;
}

function GearForm({ item, fresh, edit }: { item: Gear; fresh: boolean; edit: VersionedEdit<Gear> }) {
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
          newer={edit.newer}
          onNewer={edit.showNewer}
          onSave={() => {
            setAsked(true);
            if (result.success)
              afterwards(save.mutateAsync({ base: fresh ? null : item, item: result.data }), toTheList);
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

const otherLengths = [
  {
    name: 'tightLength',
    label: 'Cleave length for 900 μm buffer',
    hint: 'Each coating has its own groove. Often 18 mm (common practice). Empty: not known.',
  },
  { name: 'ribbonLength', label: 'Cleave length for ribbons', hint: 'Empty: as for 250 μm coating.' },
] as const;

function CleaverParts({ item, troubles, onChange }: PartProps<Cleaver>) {
  return (
    <>
      <NumberBox
        label="Cleave length for 250 μm coating"
        unit="mm"
        hint="From the coating to the end: 10, 16, 18 and 20 mm are in use (common practice). It follows coating, holder and machine."
        value={item.cleaveLength}
        onChange={(cleaveLength) => onChange({ ...item, cleaveLength })}
        trouble={troubles.get('cleaveLength')}
      />
      {otherLengths.map(({ name, label, hint }) => (
        <NumberBox
          key={name}
          optional
          label={label}
          unit="mm"
          hint={hint}
          value={item[name] ?? null}
          onChange={(length) => {
            const { [name]: _, ...rest } = item;
            onChange(length === null ? rest : { ...rest, [name]: length });
          }}
          trouble={troubles.get(name)}
        />
      ))}
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

const styles = StyleSheet.create({
  form: { padding: space.large, paddingLeft: gutter.width, gap: space.large, maxWidth: 760 },
  row: { gap: space.medium, borderWidth: stroke.hair, padding: space.medium },
  keys: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
  flex: { flexGrow: 1, flexBasis: 140 },
});
