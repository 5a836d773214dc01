import type { ProjectDefinition } from '@cordel/core';
import type { FieldConflict, Side } from '@cordel/core/edits';
import { router } from 'expo-router';
import { useMemo, useState } from 'react';
import { Pressable, ScrollView, StyleSheet, View } from 'react-native';
import { useProject } from '../../data/projects';
import { Screen } from '../../shell/frame/Screen';
import { places } from '../../shell/places';
import { conflictsOf, type StoredEdit } from '../../sync/editList';
import { engine } from '../../sync/here';
import { useAllEdits, useEditsKnown } from '../../sync/react';
import { Action } from '../../ui/Action';
import { Empty, Loading } from '../../ui/States';
import { useCordelTheme } from '../../ui/theme';
import { gutter, space, stroke, touch } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import { documentWords, fieldWords, valueWords } from './editWords';

const up = { href: places.waiting, name: 'what waits' };

/** Two people changed the same thing: field by field, whose value it gets. What only one of them changed is as they changed it. */
export function DecideScreen({ editId }: { editId: string }) {
  const edit = useAllEdits().find((one) => one.id === editId);
  const known = useEditsKnown();
  if (!known)
    return (
      <Screen title="Decide" up={up}>
        <Loading what="what there is to decide" />
      </Screen>
    );
  if (!edit || edit.theirs === null)
    return (
      <Screen title="Decide" up={up}>
        <Empty title="Nothing to decide" text="It was decided, or dropped, already." />
      </Screen>
    );
  return edit.scope === '' ? (
    <Decide key={edit.rev} edit={edit} definition={undefined} />
  ) : (
    <DecideInProject key={edit.rev} edit={edit} />
  );
}

function DecideInProject({ edit }: { edit: StoredEdit }) {
  return <Decide edit={edit} definition={useProject(edit.scope).data} />;
}

const keyOf = ({ path }: FieldConflict) => path.join('/');

function Decide({ edit, definition }: { edit: StoredEdit; definition: ProjectDefinition | undefined }) {
  const conflicts = useMemo(() => conflictsOf(edit), [edit]);
  const [chosen, setChosen] = useState<ReadonlyMap<string, Side>>(new Map());
  const [trouble, setTrouble] = useState<string | null>(null);
  const open = conflicts.filter((conflict) => !chosen.has(keyOf(conflict))).length;
  const all = (side: Side) => setChosen(new Map(conflicts.map((conflict) => [keyOf(conflict), side])));
  const store = async () => {
    try {
      await engine().edits.decide(edit.id, (conflict) => chosen.get(keyOf(conflict)) ?? 'theirs');
    } catch {
      setTrouble('Not kept: this device has no room left. Make room on it, then decide again.');
      return;
    }
    void engine().push.run();
    router.navigate(places.waiting);
  };
  return (
    <Screen
      title={documentWords(edit, definition)}
      subtitle={definition?.project.name ?? 'For all projects'}
      up={up}
      foot={
        <View style={styles.foot}>
          {trouble ? (
            <Type tone="accent" role="alert">
              {trouble}
            </Type>
          ) : null}
          <Action
            bench
            kind="now"
            label={open > 0 ? `${open} to decide` : 'Save what is chosen'}
            disabled={open > 0}
            onPress={() => void store()}
          />
        </View>
      }
    >
      <ScrollView contentContainerStyle={styles.list}>
        <Type>
          Somebody else saved this while your change waited here. Where only one of you changed something,
          both changes stand. Choose for the rest.
        </Type>
        <View style={styles.row}>
          <Action label="All yours" onPress={() => all('mine')} />
          <Action label="All theirs" onPress={() => all('theirs')} />
        </View>
        {conflicts.map((conflict) => (
          <Field
            key={keyOf(conflict)}
            edit={edit}
            conflict={conflict}
            definition={definition}
            side={chosen.get(keyOf(conflict)) ?? null}
            onChoose={(side) => setChosen(new Map([...chosen, [keyOf(conflict), side]]))}
          />
        ))}
      </ScrollView>
    </Screen>
  );
}

function Field({
  edit,
  conflict,
  definition,
  side,
  onChoose,
}: {
  edit: StoredEdit;
  conflict: FieldConflict;
  definition: ProjectDefinition | undefined;
  side: Side | null;
  onChoose: (side: Side) => void;
}) {
  const label = fieldWords(edit.kind, conflict, definition);
  const words = (value: unknown) => valueWords(edit.kind, conflict, value, definition);
  return (
    <View role="radiogroup" aria-label={label} style={styles.field}>
      <Type look="heading" aria-hidden>
        {label}
      </Type>
      {edit.base === null ? null : (
        <Type look="small" tone="soft">
          Before: {words(conflict.base)}
        </Type>
      )}
      <View style={styles.row}>
        <Value
          whose="Yours"
          words={words(conflict.mine)}
          chosen={side === 'mine'}
          onPress={() => onChoose('mine')}
        />
        <Value
          whose="Theirs"
          words={words(conflict.theirs)}
          chosen={side === 'theirs'}
          onPress={() => onChoose('theirs')}
        />
      </View>
    </View>
  );
}

function Value({
  whose,
  words,
  chosen,
  onPress,
}: {
  whose: string;
  words: string;
  chosen: boolean;
  onPress: () => void;
}) {
  const { palette } = useCordelTheme();
  const tone = chosen ? 'ground' : 'ink';
  return (
    <Pressable
      role="radio"
      aria-checked={chosen}
      aria-label={`${whose}: ${words}`}
      onPress={onPress}
      style={[
        styles.value,
        { borderColor: palette.ink, backgroundColor: chosen ? palette.ink : palette.sheet },
      ]}
    >
      <Type look="small" tone={tone}>
        {chosen ? `${whose}, chosen` : whose}
      </Type>
      <Type look="strong" tone={tone}>
        {words}
      </Type>
    </Pressable>
  );
}

const styles = StyleSheet.create({
  list: { padding: space.large, paddingLeft: gutter.width, gap: space.large, maxWidth: 860 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
  field: { gap: space.small },
  value: {
    flexGrow: 1,
    flexBasis: 220,
    minHeight: touch.bench,
    borderWidth: stroke.rule,
    padding: space.medium,
    gap: space.tight,
  },
  foot: { padding: space.small, gap: space.small, paddingLeft: gutter.width, maxWidth: 860 },
});
