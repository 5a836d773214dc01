import type { ClosureLengths, ClosureModel, KitPart, SealPart } from './closureModel';

const builtInId = (number: number) => `0c0de100-0000-4000-8000-${String(number).padStart(12, '0')}`;

const inch = 25.4;

/** Common practice for a dome: 64 in opened, 8 in of strength member, 2.25 in of central tube. */
const dome: ClosureLengths = {
  sheathOpening: 64 * inch,
  strengthMember: 8 * inch,
  tube: 2.25 * inch,
  trayFiber: 700,
  tubeToTray: 640,
  coils: 2,
  coilDiameter: 80,
  dropOpening: 64 * inch,
  basketDiameter: 200,
  basketTurns: 6,
};

const bracketKit: KitPart[] = [
  { name: 'Strength member bracket', count: 1, stops: 'anchoring the cables', perCable: true },
  { name: 'Hose clamp', count: 1, stops: 'anchoring the cables', perCable: true },
  { name: 'Base and collar', count: 1, stops: 'closing the closure' },
  { name: 'O-ring', count: 1, stops: 'closing and testing' },
  { name: 'Tray strap', count: 1, stops: 'closing the trays' },
];

/** A seal over the whole range, two spacers in its narrow part, a clip and a clamp for what twists. */
function sealTable(name: string, from: number, to: number, slit: boolean): SealPart[] {
  const middle = Math.round((from + (to - from) * 0.4) * 10) / 10;
  return [
    { part: `Seal ${name}`, kind: 'seal', from, to, count: 1, ...(slit ? { slit: true } : {}) },
    { part: 'Spacer', kind: 'spacer', from, to: middle, count: 2 },
    { part: 'Small anti-twist clip', kind: 'clip', from, to: middle, count: 1 },
    { part: 'Small hose clamp', kind: 'clamp', from, to: middle, count: 1 },
    { part: 'Large anti-twist clip', kind: 'clip', from: middle, to, count: 1 },
    { part: 'Large hose clamp', kind: 'clamp', from: middle, to, count: 1 },
  ];
}

/** Layers are peeled out of a layered grommet until it holds the cable. */
function layered(name: string, from: number, to: number, layers: number): SealPart[] {
  const step = (to - from) / layers;
  const at = (index: number) => Math.round((from + step * index) * 10) / 10;
  return Array.from({ length: layers }, (_, index) => ({
    part: `Layered grommet ${name}`,
    kind: 'grommet' as const,
    from: index === 0 ? from : at(index),
    to: index === layers - 1 ? to : at(index + 1),
    count: 1,
    slit: true,
    peel: index,
  }));
}

/**
 * Models to begin with, generic and invented. Lengths and parts are common practice, no published source: every maker prints its own
 * tables, and these are to be replaced by them.
 */
export const builtInModels: readonly ClosureModel[] = [
  {
    id: builtInId(1),
    name: 'Dome 96',
    kind: 'dome',
    about: 'Dome for feeder joints, four trays.',
    ports: [
      { name: 'Oval', count: 4, from: 10, to: 25, express: true, parts: sealTable('L', 10, 25, true) },
      { name: 'Round', count: 4, from: 6, to: 18, express: false, parts: sealTable('M', 6, 18, false) },
    ],
    trays: 4,
    singleSlots: 24,
    ribbonSlots: 12,
    lengths: dome,
    parts: bracketKit,
    testPressure: 34.5,
    version: 1,
  },
  {
    id: builtInId(2),
    name: 'Dome 288',
    kind: 'dome',
    about: 'Large dome, twelve trays.',
    ports: [
      { name: 'Oval', count: 4, from: 12, to: 32, express: true, parts: sealTable('XL', 12, 32, true) },
      { name: 'Round', count: 6, from: 8, to: 25, express: false, parts: sealTable('L', 8, 25, false) },
    ],
    trays: 12,
    singleSlots: 24,
    ribbonSlots: 12,
    lengths: dome,
    parts: bracketKit,
    testPressure: 34.5,
    version: 1,
  },
  {
    id: builtInId(3),
    name: 'Inline 144',
    kind: 'inline',
    about: 'Inline with glands on both ends, six trays.',
    ports: [
      {
        name: 'Gland',
        count: 6,
        from: 8,
        to: 20,
        express: true,
        goesOn: 'after',
        parts: layered('G', 8, 20, 4),
      },
    ],
    trays: 6,
    singleSlots: 24,
    ribbonSlots: 12,
    lengths: {
      sheathOpening: 2000,
      strengthMember: 90,
      tube: 57,
      trayFiber: 800,
      tubeToTray: 700,
      clampMark: 90,
      dropOpening: 2000,
      coils: 3,
      coilDiameter: 80,
      basketDiameter: 220,
      basketTurns: 6,
    },
    parts: [
      { name: 'Gland nut', count: 1, stops: 'sealing the cables', perCable: true },
      { name: 'Cover and bolts', count: 1, stops: 'closing the closure' },
      { name: 'Cover gasket', count: 1, stops: 'closing and testing' },
    ],
    testPressure: 27.6,
    version: 1,
  },
  {
    id: builtInId(4),
    name: 'Express terminal 24',
    kind: 'terminal',
    about: 'Terminal on an express cable, with drops.',
    ports: [
      { name: 'Express', count: 2, from: 8, to: 18, express: true, parts: sealTable('M', 8, 18, true) },
      {
        name: 'Drop',
        count: 12,
        from: 2,
        to: 8.5,
        express: false,
        parts: [
          { part: 'Drop grommet', kind: 'grommet', from: 2, to: 8.5, count: 1, slit: true },
          { part: 'Small-diameter bushing', kind: 'bushing', from: 2, to: 4.5, count: 1 },
        ],
      },
    ],
    trays: 2,
    singleSlots: 24,
    ribbonSlots: 6,
    lengths: {
      sheathOpening: 70 * inch,
      strengthMember: 3 * inch,
      tube: 57,
      trayFiber: 450,
      tubeToTray: 300,
      clampMark: 6,
      basketDiameter: 180,
      basketTurns: 7,
      coils: 2,
      coilDiameter: 70,
    },
    parts: [
      { name: 'Hose clamp', count: 1, stops: 'anchoring the cable', perCable: true },
      { name: 'Lid gasket', count: 1, stops: 'closing the terminal' },
    ],
    testPressure: 27.6,
    version: 1,
  },
  {
    id: builtInId(5),
    name: 'Drop joint 4',
    kind: 'drop',
    about: 'Small gel joint for two drops.',
    ports: [
      {
        name: 'End',
        count: 2,
        from: 2,
        to: 9,
        express: false,
        parts: [
          { part: 'Gel half shell', kind: 'seal', from: 2, to: 9, count: 1, slit: true, holds: 2 },
          { part: 'Small-diameter bushing', kind: 'bushing', from: 2, to: 4.5, count: 1 },
        ],
      },
    ],
    trays: 1,
    singleSlots: 4,
    ribbonSlots: 1,
    lengths: {
      sheathOpening: 20 * inch,
      strengthMember: 1.5 * inch,
      tube: 6 * inch,
      trayFiber: 200,
      tubeToTray: 122,
      aramid: 0,
      coils: 1,
      coilDiameter: 60,
    },
    sleeveLength: 40,
    testPressure: 0,
    version: 1,
  },
  {
    id: builtInId(6),
    name: 'Rack module 144',
    kind: 'rack',
    about: 'Splice module for pigtails or ribbons in a rack.',
    ports: [{ name: 'Rear', count: 2, from: 4, to: 25, express: false }],
    trays: 6,
    singleSlots: 24,
    ribbonSlots: 12,
    lengths: {
      sheathOpening: 102 * inch,
      strengthMember: 0,
      aramid: 0,
      ripcord: 0,
      clampMark: 1.25 * inch,
      dropOpening: 48 * inch,
      tube: 30,
      trayFiber: 600,
      tubeToTray: 300,
      coils: 2,
      coilDiameter: 70,
    },
    testPressure: 0,
    version: 1,
  },
];
