import {
  entryKey,
  holdersOf,
  isSmall,
  usualManner,
  type Cable,
  type Closure,
  type Entry,
  type ProjectDefinition,
  shownNumber,
} from '@cordel/core';
import { memo, useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { Action } from '../../../ui/Action';
import { Choice, TextBox } from '../../../ui/Field';
import { Sheet } from '../../../ui/Sheet';
import { useCordelTheme } from '../../../ui/theme';
import { space, stroke, touch } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import { constructionWords } from '../../../shell/cableWords';
import { endings } from '../../../shell/steps/ending';

const manners = [
  { value: 'cut', label: 'Cut' },
  { value: 'express', label: 'Express' },
  { value: 'window', label: 'Window' },
  { value: 'branch', label: 'Branch' },
  { value: 'drop', label: 'Drop' },
] as const;

const mannerWords: Record<Entry['manner'], string> = {
  cut: 'ends here, cut',
  express: 'goes through, opened by ring cuts',
  window: 'goes through, opened by a window',
  branch: 'a branch ends here',
  drop: 'a drop ends here',
};

/** How the cables meet the closure: the letter the order calls them by, the manner, the port. */
export const EntriesPart = memo(function EntriesPart({
  definition,
  closure,
  onChange,
}: {
  definition: ProjectDefinition;
  closure: Closure;
  onChange: (entries: Entry[]) => void;
}) {
  const { palette } = useCordelTheme();
  const [open, setOpen] = useState<number | 'new' | null>(null);
  const cables = new Map(definition.cables.map((cable) => [cable.id, cable]));
  const absent = definition.cables.filter(
    (cable) =>
      cable.siteIds.includes(closure.siteId) && !closure.entries.some((entry) => entry.cableId === cable.id),
  );
  const entry = typeof open === 'number' ? closure.entries[open] : undefined;
  const edit = (change: Partial<Entry>) =>
    onChange(closure.entries.map((one, index) => (index === open ? { ...one, ...change } : one)));
  return (
    <View style={styles.part}>
      <Type look="heading" role="heading" aria-level={2}>
        Cables that meet here
      </Type>
      {closure.entries.map((one, index) => {
        const cable = cables.get(one.cableId);
        return (
          <Pressable
            key={one.cableId + index}
            role="button"
            onPress={() => setOpen(index)}
            style={[styles.entry, { borderColor: palette.hairline }]}
          >
            <Type look="key" style={styles.key}>
              {entryKey(one, index)}
            </Type>
            <View style={styles.flex}>
              <Type look="strong">{cable?.label ?? 'A cable that is not in the project'}</Type>
              <Type look="small" tone="soft">
                {[
                  cable ? constructionWords(cable.construction) : null,
                  mannerWords[one.manner],
                  one.port ? `port ${one.port}` : null,
                  one.through?.length ? `${one.through.join(', ')} stay whole` : null,
                ]
                  .filter(Boolean)
                  .join(' · ')}
              </Type>
            </View>
          </Pressable>
        );
      })}
      {closure.entries.length === 0 ? (
        <Type>No cable comes in yet. Let in the cables that run to this site.</Type>
      ) : null}
      {absent.length > 0 ? (
        <Action label="Let a cable in" icon="add" onPress={() => setOpen('new')} style={styles.start} />
      ) : null}
      <Sheet title="Let a cable in" open={open === 'new'} onClose={() => setOpen(null)}>
        {absent.map((cable) => (
          <Action
            key={cable.id}
            label={cable.label}
            detail={constructionWords(cable.construction)}
            onPress={() => {
              onChange([
                ...closure.entries,
                { cableId: cable.id, manner: usualManner(cable, closure.siteId) },
              ]);
              setOpen(null);
            }}
          />
        ))}
      </Sheet>
      <Sheet
        title={entry ? (cables.get(entry.cableId)?.label ?? 'Cable') : ''}
        open={entry !== undefined}
        onClose={() => setOpen(null)}
      >
        {entry ? (
          <>
            <Choice
              label="How it meets the closure"
              options={manners}
              value={entry.manner}
              onChange={(manner) => edit({ manner })}
            />
            <TextBox
              label="The order calls it"
              hint="One to three letters"
              value={entry.key ?? entryKey(entry, open as number)}
              onChangeText={(text) => {
                const key = text
                  .toUpperCase()
                  .replace(/[^A-Z]/g, '')
                  .slice(0, 3);
                edit({ key: key === '' ? undefined : key });
              }}
            />
            {closure.ports && closure.ports.length > 0 ? (
              <Choice
                label="Port"
                options={[
                  { value: '', label: 'Any that fits' },
                  ...closure.ports.map((port) => ({
                    value: port.name,
                    label: `${port.name}, ${shownNumber(port.from)} to ${shownNumber(port.to)} mm`,
                  })),
                ]}
                value={entry.port ?? ''}
                onChange={(port) => edit({ port: port === '' ? undefined : port })}
              />
            ) : null}
            {cables.get(entry.cableId) && isSmall(cables.get(entry.cableId)!) ? (
              <Choice
                label="Each of its fibers ends with"
                options={endings}
                value={entry.ending ?? 'splice'}
                onChange={(ending) => edit({ ending: ending === 'splice' ? undefined : ending })}
              />
            ) : null}
            <Through
              cable={cables.get(entry.cableId)}
              entry={entry}
              onChange={(through) => edit({ through })}
            />
            <Action
              label="Take it out of the closure"
              onPress={() => {
                onChange(closure.entries.filter((_, index) => index !== open));
                setOpen(null);
              }}
            />
          </>
        ) : null}
      </Sheet>
    </View>
  );
});

/** What has to stay whole: tubes, also those with ribbons in them, or ribbons of a central tube. The plan warns when a line cuts one. */
function Through({
  cable,
  entry,
  onChange,
}: {
  cable: Cable | undefined;
  entry: Entry;
  onChange: (through: number[] | undefined) => void;
}) {
  const [text, setText] = useState((entry.through ?? []).join(', '));
  const holders = cable ? holdersOf(cable) : [];
  if (holders.length < 2) return null;
  const count = holders.length;
  const numbers = text
    .split(/[,;\s]+/)
    .filter(Boolean)
    .map(Number);
  const wrong = numbers.find((number) => !Number.isInteger(number) || number < 1 || number > count);
  return (
    <TextBox
      label={`${holders[0]!.kind === 'ribbon' ? 'Ribbons' : 'Tubes'} of ${cable!.label} that stay whole`}
      hint="Like 1, 2, 5. A line that cuts one of them is told."
      value={text}
      onChangeText={(next) => {
        setText(next);
        const list = next
          .split(/[,;\s]+/)
          .filter(Boolean)
          .map(Number);
        if (list.every((number) => Number.isInteger(number) && number >= 1 && number <= count))
          onChange(list.length > 0 ? list : undefined);
      }}
      trouble={wrong === undefined ? undefined : `The cable has 1 to ${count}. Mend the number.`}
    />
  );
}

const styles = StyleSheet.create({
  part: { gap: space.small },
  entry: {
    flexDirection: 'row',
    alignItems: 'center',
    gap: space.medium,
    minHeight: touch.bench,
    borderBottomWidth: stroke.hair,
    paddingVertical: space.small,
  },
  key: { minWidth: 34 },
  flex: { flex: 1 },
  start: { alignSelf: 'flex-start' },
});
