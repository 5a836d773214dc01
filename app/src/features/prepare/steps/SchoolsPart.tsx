import { useState } from 'react';
import { setPreferences, usePreferences } from '../../../data/preferences';
import { Action } from '../../../ui/Action';
import { Choice } from '../../../ui/Field';
import { Sheet } from '../../../ui/Sheet';
import { Type } from '../../../ui/Type';

/** Ways of working that people differ in: chosen once, kept on this device. */
export function SchoolsPart() {
  const [open, setOpen] = useState(false);
  const { tubeSchool, wipeSchool, ribbonizingSchool } = usePreferences();
  return (
    <>
      <Action
        label="My ways of working"
        detail={[
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
          label="Buffer tubes come off with"
          options={[
            { value: 'scorer', label: 'A round scorer' },
            { value: 'fixed-depth', label: 'A fixed-depth stripper' },
          ]}
          value={tubeSchool}
          onChange={(value) => setPreferences({ tubeSchool: value })}
        />
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
