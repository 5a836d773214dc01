import { useState } from 'react';
import { setPreferences, usePreferences } from '../../../data/preferences';
import { Action } from '../../../ui/Action';
import { Choice } from '../../../ui/Field';
import { Sheet } from '../../../ui/Sheet';
import { Type } from '../../../ui/Type';

/** Ways of working that people differ in: chosen once, kept on this device. */
export function SchoolsPart() {
  const [open, setOpen] = useState(false);
  const { tubeSchool, wipeSchool, ribbonizingSchool, sheathSchool, secondRing, scorerMotion, rodSchool } =
    usePreferences();
  return (
    <>
      <Action
        label="My ways of working"
        detail={[
          sheathSchool === 'ring-first' ? 'ring first' : 'ripcord first',
          tubeSchool === 'scorer' ? 'tube scorer' : 'fixed-depth stripper',
          wipeSchool === 'dry' ? 'dry wipe and alcohol' : 'moist wipes',
          ribbonizingSchool === 'pads' ? 'ribbons by pads' : 'ribbons by block',
        ].join(', ')}
        onPress={() => setOpen(true)}
      />
      <Sheet title="My ways of working" open={open} onClose={() => setOpen(false)}>
        <Type look="small" tone="soft">
          Tools, steps and times follow. Where a maker or owner prescribes one, that comes first.
        </Type>
        <Choice
          label="A sheath is opened"
          options={[
            { value: 'ripcord-first', label: 'Ripcord, then ring' },
            { value: 'ring-first', label: 'Ring, then ripcord' },
          ]}
          value={sheathSchool}
          onChange={(value) => setPreferences({ sheathSchool: value })}
        />
        <Choice
          label="The ripcord is reached"
          options={[
            { value: 'knife', label: 'By knife at the end' },
            { value: 'ring', label: 'By a second ring cut' },
          ]}
          value={secondRing ? 'ring' : 'knife'}
          onChange={(value) => setPreferences({ secondRing: value === 'ring' })}
        />
        <Choice
          label="A strength member is cut"
          options={[
            { value: 'marked', label: 'Where the bracket marks it' },
            { value: 'trimmed', label: 'To length, trimmed when clamped' },
          ]}
          value={rodSchool}
          onChange={(value) => setPreferences({ rodSchool: value })}
        />
        <Choice
          label="Buffer tubes come off with"
          options={[
            { value: 'scorer', label: 'A round scorer' },
            { value: 'fixed-depth', label: 'A fixed-depth stripper' },
          ]}
          value={tubeSchool}
          onChange={(value) => setPreferences({ tubeSchool: value })}
        />
        {tubeSchool === 'scorer' ? (
          <Choice
            label="The scorer goes"
            options={[
              { value: 'round', label: 'Once round' },
              { value: 'swing', label: 'To and fro' },
            ]}
            value={scorerMotion}
            onChange={(value) => setPreferences({ scorerMotion: value })}
          />
        ) : null}
        <Choice
          label="Fibers are cleaned with"
          options={[
            { value: 'dry', label: 'Dry wipe and 99 % alcohol' },
            { value: 'moist', label: 'Moist wipes' },
          ]}
          value={wipeSchool}
          onChange={(value) => setPreferences({ wipeSchool: value })}
        />
        <Choice
          label="Loose fibers become ribbons with"
          options={[
            { value: 'pads', label: 'Pads and bead' },
            { value: 'block', label: 'Applicator block' },
          ]}
          value={ribbonizingSchool}
          onChange={(value) => setPreferences({ ribbonizingSchool: value })}
        />
      </Sheet>
    </>
  );
}
