import type { Limits } from '@cordel/core';

/** What fields are called, in forms and wherever else a field is named. */

export const limitFields: readonly {
  name: Exclude<keyof Limits, 'measured' | 'weights'>;
  label: string;
  unit?: string;
  hint?: string;
}[] = [
  { name: 'singleMax', label: 'Single splice, at most', unit: 'dB' },
  { name: 'ribbonFiberMax', label: 'Each fiber of a ribbon, at most', unit: 'dB' },
  { name: 'trayMean', label: 'Tray mean, at most', unit: 'dB' },
  { name: 'closureMean', label: 'Closure mean, at most', unit: 'dB' },
  { name: 'cleaveAngleMax', label: 'Cleave angle, at most', unit: '°' },
  {
    name: 'offsetMax',
    label: 'Axis offset before the arc, at most',
    unit: 'μm',
    hint: 'Empty: only what the machine itself takes.',
  },
  {
    name: 'gapMax',
    label: 'Gap before the arc, at most',
    unit: 'μm',
    hint: 'Empty: only what the machine itself takes.',
  },
  { name: 'tries', label: 'Tries, before it is the owner’s call' },
];

/** The lengths that a table asks for, in the order in which a cable is worked, each with its words. */
export const lengthFields = [
  ['sheathOpening', 'Sheath opening'],
  ['clampMark', 'Gland or clamp mark below the edge'],
  ['testCut', 'Test cut'],
  ['aramid', 'Aramid left'],
  ['ripcord', 'Ripcord left'],
  ['strengthMember', 'Strength member left'],
  ['tube', 'Central tube or drop tube left'],
  ['tubeToTray', 'Sheath edge to tray'],
  ['exitStub', 'Stub at the exit edge'],
  ['windowInset', 'Edge to window'],
  ['dropOpening', 'Opening of a drop'],
  ['connectorOpening', 'Opening of a drop that ends in connectors'],
  ['trayFiber', 'Fiber from tray to machine'],
  ['coilDiameter', 'Coil in the tray, across'],
  ['basketDiameter', 'Coil in the slack basket, across'],
  ['redo', 'Fiber that one try takes'],
  ['cableLoop', 'Cable loop, across'],
] as const;
