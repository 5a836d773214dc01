import type { ProjectDefinition } from '@cordel/core';
import { router } from 'expo-router';
import { memo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { places } from '../../shell/places';
import type { StoredEdit } from '../../sync/editList';
import { engine } from '../../sync/here';
import { Action } from '../../ui/Action';
import { useCordelTheme } from '../../ui/theme';
import { dayAndTime } from '../../ui/times';
import { space, stroke } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import { editWords } from './editWords';

/** An edit of a document that is not on the server: what it is of, and what can be done about it. */
export const EditRow = memo(function EditRow({
  edit,
  definition,
}: {
  edit: StoredEdit;
  definition: ProjectDefinition | undefined;
}) {
  const { palette } = useCordelTheme();
  const [asking, setAsking] = useState(false);
  const words = editWords(edit, definition);
  const overtaken = edit.theirs !== null;
  const undecided = overtaken || edit.refused !== null;
  return (
    <View style={[styles.edit, { borderColor: palette.hairline }]}>
      <Type look="strong">{words}</Type>
      <Type look="small" tone="soft">
        {[edit.scope === '' ? 'For all projects' : definition?.project.name, dayAndTime(edit.at, null)]
          .filter(Boolean)
          .join(' · ')}
      </Type>
      {edit.refused !== null ? <Type tone="accent">{edit.refused}</Type> : null}
      {overtaken ? <Type tone="accent">Somebody else changed it too. Neither is lost: decide.</Type> : null}
      <View style={styles.actions}>
        {overtaken ? (
          <Action
            kind="now"
            label="Decide"
            spoken={`Decide: ${words}`}
            onPress={() => router.navigate(places.decide(edit.id))}
          />
        ) : null}
        {edit.refused !== null && edit.mine !== undefined ? (
          <Action
            label="Send again"
            spoken={`Send again: ${words}`}
            onPress={() => void engine().sendAgain([edit.id])}
          />
        ) : null}
        {undecided ? (
          <Action
            label="Drop"
            spoken={`Drop: ${words}`}
            pressed={asking}
            onPress={() => setAsking(!asking)}
          />
        ) : null}
      </View>
      {asking ? (
        <View role="alert" style={styles.actions}>
          <Type>
            {edit.kind === 'project'
              ? 'The project is on no other device and not on the server. Dropped, it is gone for good, and what was recorded in it cannot be sent.'
              : 'What you changed is on no other device and not on the server. Dropped, it is again as the server has it.'}{' '}
            Export it first if in doubt.
          </Type>
          <Action
            kind="now"
            label="Drop it for good"
            spoken={`Drop it for good: ${words}`}
            onPress={() => void engine().edits.drop(edit.id)}
          />
          <Action label="Keep it" onPress={() => setAsking(false)} />
        </View>
      ) : null}
    </View>
  );
});

const styles = StyleSheet.create({
  edit: { borderTopWidth: stroke.hair, paddingVertical: space.medium, gap: space.tight },
  actions: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: space.small },
});
