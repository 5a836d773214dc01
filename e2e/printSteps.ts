import {
  closureOfModel,
  connectorNames,
  planClosure,
  type Cable,
  type Closure,
  type Construction,
  type Entry,
} from '@cordel/core';
import { builtInModels } from '@cordel/core/builtInModels';
import { newGear, type Cleaver, type Machine } from '@cordel/core/gear';
import { readOrder } from '@cordel/core/order';
import {
  coatingOf,
  connectorSteps,
  handSteps,
  seatCables,
  stepsFor,
  usualSchools,
  type Schools,
  type Step,
} from '@cordel/core/prepare';

/**
 * Prints every step text, to be read aloud: `npm run steps -- loose`, or with a way of working: `npm run steps -- central in block`. `hands` prints what is done at a splice, `ends` what is done where its fibers end in connectors. Without a word all constructions, in mm,
 * with the usual ways.
 */

const tubes = (count: number, fibers: number, more: object = {}): Construction => ({
  kind: 'stranded-tubes',
  strands: [
    ...Array.from({ length: count }, () => ({ kind: 'tube' as const, fibers, ...more })),
    { kind: 'filler' as const },
  ],
});
const constructions: Record<string, Construction> = {
  loose: tubes(3, 12),
  grouped: tubes(2, 24, { groupSize: 12 }),
  central: { kind: 'central-ribbon', ribbons: 4, fibersPerRibbon: 12 },
  ribbontubes: {
    kind: 'stranded-ribbon',
    strands: Array.from({ length: 2 }, () => ({
      kind: 'tube' as const,
      ribbons: 2,
      fibersPerRibbon: 12 as const,
    })),
  },
  flat: { kind: 'drop', shape: 'flat', fibers: 2, toningWire: true, messenger: false },
  figure8: { kind: 'drop', shape: 'round', fibers: 2, toningWire: false, messenger: true },
  pigtails: { kind: 'pigtails', fibers: 12, bufferMicrometers: 900 },
};
const id = (number: number) => `01900000-0000-7000-8000-${String(number).padStart(12, '0')}`;

const words = process.argv.slice(2);
const wanted = words.filter((word) => word in constructions);
const units = words.includes('in') ? 'in' : 'mm';
const schools: Schools = {
  ...usualSchools,
  sheath: words.includes('ringfirst') ? 'ring-first' : usualSchools.sheath,
  secondRing: words.includes('secondring'),
  scorer: words.includes('swing') ? 'swing' : usualSchools.scorer,
  rod: words.includes('trimmed') ? 'trimmed' : usualSchools.rod,
  tube: words.includes('fixed') ? 'fixed-depth' : usualSchools.tube,
  wipe: words.includes('moist') ? 'moist' : usualSchools.wipe,
  ribbonizing: words.includes('block') ? 'block' : usualSchools.ribbonizing,
};

const cleaver = newGear('cleaver', id(42), 'Cleaver 1') as Cleaver;

for (const name of wanted.length > 0 ? wanted : Object.keys(constructions)) {
  const construction = {
    ...constructions[name]!,
    ...(words.includes('armor') && name !== 'pigtails' ? { armor: true as const } : {}),
    ...(words.includes('messenger') && name !== 'pigtails' ? { messenger: true as const } : {}),
  } as Construction;
  const small = construction.kind === 'drop' || construction.kind === 'pigtails';
  const manners: Entry['manner'][] = small ? ['drop'] : ['cut', 'express', 'window'];
  const endings = small ? (['splice', 'mechanical', 'fusion-connector'] as const) : (['splice'] as const);
  for (const model of ['Dome 288', 'Inline 144', 'Rack module 144', ...(small ? ['Drop joint 4'] : [])])
    for (const manner of model.startsWith('Rack') && !small ? (['cut'] as const) : manners)
      for (const ending of endings) {
        const through = manner === 'express' || manner === 'window';
        const cable: Cable = {
          id: id(1),
          label: 'This cable',
          schemeId: 'tia-598-d',
          construction,
          siteIds: through ? [id(11), id(12), id(13)] : [id(11), id(12)],
          diameter: small ? 5 : 14,
          live: through ? [{ from: 3, to: 4, circuit: 'Ring' }] : [],
        };
        const other: Cable = {
          ...cable,
          id: id(2),
          label: 'The other',
          construction: tubes(4, 12),
          siteIds: [id(12)],
          live: [],
        };
        const entries: Entry[] = [
          { cableId: cable.id, manner },
          { cableId: other.id, manner: 'branch' },
        ];
        const order = `A${through ? '-' : ''} 1-2 > ${words.includes('ends') ? 'fused connector' : 'B 1-2'}`;
        const closure: Closure = {
          id: id(21),
          siteId: id(12),
          ...closureOfModel(builtInModels.find((one) => one.name === model)!),
          entries,
          order: readOrder(order, entries).lines.map((line) => ({ id: id(31), ...line })),
          version: 1,
        };
        const cables = new Map([cable, other].map((one) => [one.id, one]));
        const plan = planClosure(closure, cables);
        const seat = seatCables(closure, cables).seats.find((one) => one.cable.id === cable.id) ?? null;
        console.log(`\n======== ${name}, ${manner}, ${model}${ending === 'splice' ? '' : `, ${ending}`}`);
        for (const chapter of stepsFor(closure, plan, cable, { units, schools, seat, ending })) {
          console.log(`\n— ${chapter.title}`);
          chapter.steps.forEach(print);
        }
        for (const connector of words.includes('ends') ? (['fusion-connector', 'mechanical'] as const) : []) {
          console.log(`\n— ${connectorNames[connector]}`);
          connectorSteps(connector, units, { coating: coatingOf('single', cable), cleaver }).forEach(print);
        }
      }
}

if (words.includes('hands')) {
  const gear = {
    machine: newGear('machine', id(41), 'Machine 1'),
    cleaver,
  };
  for (const [name, kind] of [
    ['loose', 'single'],
    ['pigtails', 'single'],
    ['central', 'ribbon'],
  ] as const) {
    const cable: Cable = {
      id: id(1),
      label: 'This cable',
      schemeId: 'tia-598-d',
      construction: constructions[name]!,
      siteIds: [id(12)],
    };
    const count = kind === 'ribbon' ? 12 : 1;
    const ends = Array.from({ length: count }, (_, index) => ({
      cableId: id(1),
      fiber: index + 1,
      side: 'low' as const,
    }));
    console.log(`\n======== hands, ${name}`);
    handSteps({
      splice: { kind, left: ends, right: ends, tray: 1, slot: 1 },
      cables: new Map([[cable.id, cable]]),
      joint: { kind: 'fusion', sleeve: kind === 'ribbon' ? 'ribbon' : 'single-60', small: null },
      machine: gear.machine as Machine,
      cleaver: gear.cleaver as Cleaver,
      stripper: null,
      heater: null,
      cleaveAngle: 1,
      wipe: schools.wipe,
      units,
    }).forEach(print);
  }
}

function print(step: Step): void {
  console.log(`\n${step.title}\n  ${step.what}\n  Good: ${step.good}\n  Mistake: ${step.mistake}`);
  if (step.caution) console.log(`  Caution: ${step.caution}`);
  if (step.check)
    console.log(`  Asks: ${step.check.ask} [${step.check.answer}]\n  If not: ${step.check.wrong}`);
  if (step.timer) console.log(`  Clock: ${step.timer.label}, ${step.timer.seconds} s`);
}
