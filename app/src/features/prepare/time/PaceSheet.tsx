import { shownNumber } from '@cordel/core';
import { usualPace, type Pace } from '@cordel/core/prepare';
import { useState } from 'react';
import { setPreferences } from '../../../data/preferences';
import { Action } from '../../../ui/Action';
import { TextBox } from '../../../ui/Field';
import { toNumber } from '../../../ui/numberField';
import { Sheet } from '../../../ui/Sheet';
import { Type } from '../../../ui/Type';

const named: readonly [keyof Pace, string][] = [
  ['setUp', 'Set up at a closure'],
  ['openEnd', 'Open a cable that ends here'],
  ['openThrough', 'Open a cable that goes through'],
  ['openDrop', 'Open a drop or pigtail'],
  ['tube', 'One tube off, fibers clean'],
  ['ribbonPair', 'A pair of ribbons in its mesh'],
  ['single', 'One single splice, by hand'],
  ['singleHeater', 'Heater for its sleeve'],
  ['ribbon', 'One ribbon, by hand'],
  ['ribbonHeater', 'Heater for a ribbon sleeve'],
  ['ribbonize', 'Loose fibers into one ribbon'],
  ['fanOut', 'Fan-out tubing on 12 fibers'],
  ['connector', 'A connector on a fanned-out fiber'],
  ['seal', 'Seal the closure'],
  ['test', 'Flash test'],
];

/** The times that the estimate reckons with, in minutes; kept on this device. */
export function PaceSheet({ open, onClose, pace }: { open: boolean; onClose: () => void; pace: Pace }) {
  return (
    <Sheet title="Times to reckon with" open={open} onClose={onClose}>
      {open ? <PaceForm pace={pace} onDone={onClose} /> : null}
    </Sheet>
  );
}

function PaceForm({ pace, onDone }: { pace: Pace; onDone: () => void }) {
  const [texts, setTexts] = useState<Partial<Record<keyof Pace, string>>>({});
  const valueOf = (key: keyof Pace) => {
    const text = texts[key];
    return text === undefined ? pace[key] : toNumber(text) * 60;
  };
  const bad = (key: keyof Pace) => {
    const value = valueOf(key);
    return Number.isFinite(value) && value >= 0 && value <= 36_000 ? undefined : 'Minutes from 0 to 600.';
  };
  return (
    <>
      <Type look="small" tone="soft">
        In minutes. A pace that was measured at the splices goes before these.
      </Type>
      {named.map(([key, label]) => (
        <TextBox
          key={key}
          label={label}
          unit="min"
          keyboard="decimal"
          value={texts[key] ?? shownNumber(Math.round((pace[key] / 60) * 100) / 100)}
          onChangeText={(text) => setTexts({ ...texts, [key]: text })}
          trouble={bad(key)}
        />
      ))}
      <Action
        kind="now"
        label="Reckon with these"
        disabled={named.some(([key]) => bad(key) !== undefined)}
        onPress={() => {
          setPreferences({
            pace: Object.fromEntries(
              named
                .map(([key]) => [key, valueOf(key)] as const)
                .filter(([key, value]) => value !== usualPace[key]),
            ),
          });
          onDone();
        }}
      />
      <Action
        label="The usual ones"
        onPress={() => {
          setPreferences({ pace: {} });
          onDone();
        }}
      />
    </>
  );
}
