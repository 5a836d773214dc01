import { newGear, type Cleaver, type Gear, type Machine } from '@cordel/core/gear';

/** The demo crew's gear. Invented; its identifiers are fixed, so that the demo's facts can name it. */
const id = (number: number) => `01962d00-0000-7000-8000-${String(number).padStart(12, '0')}`;

const single = {
  machine: newGear('machine', id(1), 'Single 1') as Machine,
  cleaver: newGear('cleaver', id(3), 'Cleaver A') as Cleaver,
};
const ribbon = newGear('machine', id(2), 'Ribbon 1') as Machine;
const ribbonCleaver = newGear('cleaver', id(4), 'Cleaver R') as Cleaver;

/** What was picked in the demo's nights. */
export const usedGear = {
  machine: { id: single.machine.id, label: single.machine.label },
  cleaver: { id: single.cleaver.id, label: single.cleaver.label },
  program: 'Single mode',
  heater: '60 mm',
};

/** What Davi splices U2's ribbons with. */
export const usedRibbonGear = {
  machine: { id: ribbon.id, label: ribbon.label },
  cleaver: { id: ribbonCleaver.id, label: ribbonCleaver.label },
  program: 'Single mode',
  heater: 'Ribbon',
};

export const demoGear: readonly Gear[] = [
  single.machine,
  {
    ...ribbon,
    limits: { cleaveAngle: 3, offset: 3, gap: null },
    coolSeconds: 40,
    // What it is mostly used for comes first.
    heaterPrograms: [...ribbon.heaterPrograms].sort(
      (a, b) => Number(b.sleeve === 'ribbon') - Number(a.sleeve === 'ribbon'),
    ),
  },
  { ...single.cleaver, cleaveLength: 16 },
  ribbonCleaver,
  newGear('stripper', id(5), 'Warm jaws'),
  newGear('light-source', id(6), 'Red light'),
];
