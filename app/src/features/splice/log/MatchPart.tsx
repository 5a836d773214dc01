import { matchWords, type MatchBy, type MatchWhat } from '@cordel/core/machine';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Action } from '../../../ui/Action';
import { Choice } from '../../../ui/Field';
import { Picker } from '../../../ui/Picker';
import { space } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import type { LogImport } from './useLogImport';

const byWords: Readonly<Record<MatchBy, string>> = { order: 'Order', time: 'Time', label: 'Label' };
/** In this order they ask for a look. */
const whats = ['differs', 'fills', 'extra', 'missing', 'agrees', 'known'] as const satisfies MatchWhat[];

/** How rows and splices come together, and how many of each kind there are. */
export function MatchPart({
  log: given,
  shown,
  onShow,
}: {
  log: LogImport;
  /** Only these are shown; null: all. */
  shown: MatchWhat | null;
  onShow: (what: MatchWhat | null) => void;
}) {
  const { by, from, matched, openSplices } = given;
  const [open, setOpen] = useState(false);
  if (!given.readable) return null;
  const matches = matched?.matching.matches ?? [];
  const count = (what: MatchWhat) => matches.filter((one) => one.what === what).length;
  return (
    <View style={styles.part}>
      {matched && !open ? (
        <Action
          label={`Matched by ${byWords[by].toLowerCase()}`}
          detail="Change how"
          onPress={() => setOpen(true)}
        />
      ) : (
        <>
          <Choice
            label="Matched by"
            options={(Object.keys(byWords) as MatchBy[]).map((value) => ({ value, label: byWords[value] }))}
            value={by}
            onChange={given.setBy}
          />
          {by === 'label' ? null : (
            <Picker
              label="What is on no record goes, in the order of work, to"
              most={1}
              options={[
                { value: '', label: 'the first open splice on' },
                ...openSplices.map(({ id, tray, slot }) => ({
                  value: id,
                  label: `tray ${tray}, slot ${slot} on`,
                })),
              ]}
              value={from ?? ''}
              onChange={(value) => given.setFrom(value === '' ? null : value)}
            />
          )}
        </>
      )}
      {!matched ? (
        <Action kind="now" label="Compare with what is on record" onPress={given.compare} />
      ) : (
        <>
          {by === 'time' ? (
            <Type look="small" tone="soft">
              {clockWords(matched.matching.clockOff)}
            </Type>
          ) : null}
          <View style={styles.keys}>
            <Action label={`All ${matches.length}`} pressed={shown === null} onPress={() => onShow(null)} />
            {whats
              .filter((what) => count(what) > 0)
              .map((what) => (
                <Action
                  key={what}
                  label={`${matchWords[what]} ${count(what)}`}
                  pressed={shown === what}
                  onPress={() => onShow(shown === what ? null : what)}
                />
              ))}
          </View>
          <View style={styles.keys}>
            {count('differs') > 0 ? (
              <Action label="Take all that differ from the log" onPress={given.takeAll} />
            ) : null}
            {given.fromLink ? null : (
              <Action
                label="No glass was involved: it is simulated"
                pressed={given.simulated}
                onPress={() => given.setSimulated(!given.simulated)}
              />
            )}
          </View>
        </>
      )}
    </View>
  );
}

function clockWords(off: number | null): string {
  if (off === null) return 'Too little agrees to tell how the machine’s clock is set; it is taken as right.';
  const minutes = Math.round(Math.abs(off) / 60_000);
  if (minutes === 0) return 'The machine’s clock and the record agree.';
  return `What was entered came ${minutes} min ${off > 0 ? 'after' : 'before'} the machine’s time; that is taken into account.`;
}

const styles = StyleSheet.create({
  part: { gap: space.medium, paddingTop: space.medium },
  keys: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
});
