import type { ProjectDefinition } from '@cordel/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import type { NightsAnswer, NightsReasons } from '../../data/nights/nightsService';
import { Action } from '../../ui/Action';
import { ScreenOnly } from '../../ui/Paper';
import { space } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import type { DropPlace } from './drag';
import { closureName, nightName } from './words';

interface LeftPartProps {
  definition: ProjectDefinition;
  answer: NightsAnswer;
  reasons: NightsReasons | null;
  /** Something else is being saved, or planned. */
  busy: boolean;
  onPin: (closureId: string, place: DropPlace) => void;
  onUnpin: (closureId: string) => void;
  /** So many nights more. */
  onMore: (count: number) => void;
}

/** Of more closures without a place only so many say what would help, until somebody wants all of them. */
const shownFirst = 4;

/** Closures that have no place: what is enough for all of them, and for each the least that would give it one. */
export function LeftPart(props: LeftPartProps) {
  const { definition, answer, reasons, busy, onMore } = props;
  const [all, setAll] = useState(false);
  const closures = [...new Set(answer.left.map(({ closureId }) => closureId))];
  if (closures.length === 0) return null;
  const shown = all || closures.length <= shownFirst + 1 ? closures : closures.slice(0, shownFirst);
  const others = closures.slice(shown.length);
  const enough = reasons?.enough ?? null;
  return (
    <View style={styles.left}>
      <Type look="heading" role="heading" aria-level={2}>
        {closures.length === 1 ? 'One closure has no place' : `${closures.length} closures have no place`}
      </Type>
      {enough === null ? null : (
        <View style={styles.one}>
          <Type>{`With ${nightsMore(enough)}, a day after each other, all that fit into a night have a place.`}</Type>
          <ScreenOnly>
            <Action
              label={`Add ${enough === 1 ? 'a night' : `${enough} nights`}`}
              disabled={busy}
              onPress={() => onMore(enough)}
            />
          </ScreenOnly>
        </View>
      )}
      {shown.map((closureId) => (
        <LeftClosure key={closureId} {...props} closureId={closureId} />
      ))}
      {others.length > 0 ? (
        <View style={styles.one}>
          <Type>{`And ${others.length} more: ${others.map((id) => closureName(definition, id)).join(', ')}.`}</Type>
          <ScreenOnly>
            <Action label="Show each of them" onPress={() => setAll(true)} />
          </ScreenOnly>
        </View>
      ) : null}
    </View>
  );
}

const nightsMore = (count: number) => (count === 1 ? 'one more night' : `${count} more nights`);

function LeftClosure({
  definition,
  answer,
  reasons,
  onPin,
  onUnpin,
  closureId,
}: LeftPartProps & { closureId: string }) {
  const { nights: setup, timeZone: zone } = definition.project;
  const [first] = answer.nights;
  const crew = setup?.crews[0];
  const isPinned = setup?.pins.some((pin) => pin.closureId === closureId) ?? false;
  const changes = reasons?.changes.find(([id]) => id === closureId)?.[1];
  return (
    <View role="group" aria-label={closureName(definition, closureId)} style={styles.one}>
      <Type look="strong">{closureName(definition, closureId)}</Type>
      {isPinned ? (
        <Type>
          It is pinned, and does not go there with what it waits for and what else is done that night.
        </Type>
      ) : !reasons ? (
        <Type tone="soft">Looking for the least change that would give it one …</Type>
      ) : !changes ? (
        <Type>Mend those above first: then it is tried what would help.</Type>
      ) : changes.length === 0 ? (
        <Type>
          No single change gives it a place beside what is planned. Take something else out of the nights, or
          change two things.
        </Type>
      ) : (
        changes.map(({ words }) => <Type key={words}>{words}</Type>)
      )}
      {isPinned ? (
        <Action label="Take the pin out" onPress={() => onUnpin(closureId)} />
      ) : first && crew ? (
        <Action
          label={`Put it on ${nightName(first, zone)} all the same`}
          onPress={() => onPin(closureId, { nightId: first.id, crewId: crew.id })}
        />
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  left: { gap: space.medium },
  one: { gap: space.tight, alignItems: 'flex-start' },
});
