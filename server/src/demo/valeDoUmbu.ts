import {
  closureOfModel,
  equalTubes,
  limitsPresets,
  planClosure,
  type Cable,
  type Closure,
  type Construction,
  type Entry,
  type ProjectDefinition,
  type Site,
  type StoredFact,
} from '@cordel/core';
import { readOrder } from '@cordel/core/order';
import { builtInModels } from '@cordel/core/builtInModels';
import { measuredMorning } from './measuredMorning';
import { threeNights } from './nights';
import { preparedFacts } from './prepared';
import { sealedFacts } from './sealed';
import { seeded } from './seeded';
import { ribbonNight, simulatedNight, type Troubles } from './simulatedNight';

/** The scenario's own night, from which everything is counted: 22:00 to 05:00 in the district, in UTC. */
const opens = new Date('2026-04-15T01:00:00.000Z');
const closes = new Date('2026-04-15T08:00:00.000Z');
const nightBefore = new Date('2026-04-14T01:00:00.000Z');

const timeZone = 'America/Sao_Paulo';

/** So many of its splices were measured, the morning after. */
const measuredAtU1 = 12;

/** Eight tubes of twelve; the fillers stand at places 3 and 8 of the stranding, so place and tube number differ. */
const loose96: Construction = {
  kind: 'stranded-tubes',
  strands: [1, 2, 0, 3, 4, 5, 6, 0, 7, 8].map((tube) =>
    tube ? { kind: 'tube', fibers: 12 } : { kind: 'filler' },
  ),
};
const ribbon144: Construction = { kind: 'central-ribbon', ribbons: 12, fibersPerRibbon: 12 };
/** Two tubes of 24 in binder groups of twelve. */
const grouped48: Construction = {
  kind: 'stranded-tubes',
  strands: [1, 2].map(() => ({ kind: 'tube', fibers: 24, groupSize: 12 })),
};
const drop2: Construction = { kind: 'drop', shape: 'flat', fibers: 2, toningWire: true, messenger: false };

/**
 * The invented scenario "Vale do Umbu ring, section 2": the route with its branch, cables of every kind, U1 finished, U2 in the middle of
 * its splicing, the others planned. Readings are made up by a seeded function and marked simulated: the same in every night, which is the one of `now`.
 */
export function valeDoUmbu(now: Date): { definition: ProjectDefinition; facts: StoredFact[] } {
  const shift = shiftTo(now);
  const shifted = (time: Date) => new Date(time.getTime() + shift);
  const random = seeded(20260415);
  const id = () => random.id(shifted(opens));
  const site = (
    name: string,
    kind: Site['kind'],
    chainage: number,
    placement: NonNullable<Site['placement']>,
  ): Site => ({ id: id(), name, kind, chainage, placement });

  const moinho = site('Moinho', 'hub', 0, 'indoors');
  const u1 = site('U1 Ponte Velha', 'closure', 1180, 'handhole');
  const u2 = site('U2 Curva do Rio', 'closure', 2960, 'aerial');
  const u3 = site('U3 Escola', 'closure', 4650, 'handhole');
  const u4 = site('U4 Mirante', 'closure', 6120, 'pole');
  const ladeira = site('Ladeira', 'cabinet', 7400, 'handhole');
  const school = { ...site('T1 Escola', 'terminal', 320, 'pole'), branchFrom: u3.id };

  const cable = (
    label: string,
    construction: Construction,
    at: Site[],
    more: Partial<Cable> = {},
  ): Cable => ({
    id: id(),
    label,
    schemeId: 'tia-598-d',
    construction,
    siteIds: at.map((one) => one.id),
    fiberType: 'g652d',
    excess: 0.02,
    ...more,
  });
  const m96 = cable('96 Moinho', loose96, [moinho, u1], {
    diameter: 12.4,
    sheathMarks: { first: 40, last: 1252 },
  });
  // The one span of a fiber with another mode field: a gainer shows at both its ends.
  const p96 = cable('96 Ponte', loose96, [u1, u2], { diameter: 12.4, fiberType: 'g657a2', modeField: 8.6 });
  const b96 = cable('96 Mirante', loose96, [u2, u3, u4], { diameter: 12.4 });
  const r144 = cable('144 Moinho', ribbon144, [moinho, u1, u2], { diameter: 14.6 });
  const s144 = cable('144 Ladeira', ribbon144, [u2, u3, u4, ladeira], {
    diameter: 14.6,
    live: [{ from: 133, to: 144, circuit: 'District ring' }],
  });
  const e24 = cable('24 Escola', equalTubes(2, 12), [u3, school], { diameter: 10.2 });
  const c48 = cable('48 Ladeira', grouped48, [u4, ladeira], { diameter: 11.1 });
  const drops = ['Hall', 'Library', 'Kitchen', 'Gate'].map((name) =>
    cable(`Drop ${name}`, drop2, [school], { diameter: 4, fiberType: 'g657a1', modeField: 9.2 }),
  );

  const closure = (
    at: Site,
    model: string,
    entries: [cable: Cable, manner: Entry['manner']][],
    order: string,
    more: Partial<Closure> = {},
  ): Closure => {
    const own = entries.map(([{ id: cableId }, manner]): Entry => ({ cableId, manner }));
    return {
      id: id(),
      siteId: at.id,
      ...closureOfModel(builtInModels.find((one) => one.name === model)!),
      entries: own,
      order: readOrder(order, own).lines.map((line) => ({ id: id(), ...line })),
      version: 1,
      ...more,
    };
  };
  const atU1 = closure(
    u1,
    'Dome 96',
    [
      [m96, 'cut'],
      [p96, 'cut'],
      [r144, 'express'],
    ],
    'A 1-96 > B 1-96',
  );
  const atU2 = closure(
    u2,
    'Inline 144',
    [
      [p96, 'cut'],
      [b96, 'cut'],
      [r144, 'cut'],
      [s144, 'cut'],
    ],
    'A 1-96 > B 1-96\nC R1-R11 > D R1-R11',
  );
  const atU3 = closure(
    u3,
    'Dome 96',
    [
      [b96, 'express'],
      [s144, 'express'],
      [e24, 'branch'],
    ],
    'A- T7 > C T1 : School, from Moinho\nA+ T7 > C T2 : School, from Ladeira',
  );
  const atU4 = closure(
    u4,
    'Dome 96',
    [
      [b96, 'cut'],
      [c48, 'cut'],
      [s144, 'express'],
    ],
    'A 1-48 > B 1-48',
  );
  const atSchool = closure(
    school,
    'Express terminal 24',
    [[e24, 'cut'], ...drops.map((drop): [Cable, 'drop'] => [drop, 'drop'])],
    ['B', 'C', 'D', 'E'].map((key, index) => `A ${2 * index + 1}-${2 * index + 2} > ${key} 1-2`).join('\n'),
    { sleeveLength: 40 },
  );

  // Made last, so that what was there before keeps its ids.
  const m1 = site('M1 Fazenda', 'closure', 2150, 'manhole');
  const farm = { ...site('T2 Fazenda', 'terminal', 240, 'pole'), branchFrom: m1.id };
  // Of the third tube four fibers are taken out by a window, beside those that carry the clinic.
  const v48 = cable('48 Vila', equalTubes(4, 12), [moinho, u1, m1, u2, u3, u4, ladeira], {
    diameter: 11.4,
    live: [
      { from: 1, to: 12, circuit: 'District ring' },
      { from: 29, to: 36, circuit: 'Clinic' },
    ],
  });
  const f12 = cable('12 Fazenda', equalTubes(1, 12), [m1, farm], { diameter: 8.1 });
  const atM1 = closure(
    m1,
    'Dome 96',
    [
      [v48, 'window'],
      [f12, 'branch'],
    ],
    'A- 25-28 > B 1-4 : Farm, from Moinho',
  );

  const { limits } = limitsPresets.find((preset) => preset.id === 'feeder')!;
  const definition: ProjectDefinition = {
    project: {
      id: id(),
      name: 'Vale do Umbu ring, section 2',
      units: 'mm',
      timeZone,
      limits,
      window: { opens: shifted(opens).toISOString(), closes: shifted(closes).toISOString() },
      nights: threeNights(
        id,
        timeZone,
        (night) => ({ opens: shifted(later(opens, night)), closes: shifted(later(closes, night)) }),
        { start: moinho, u2: atU2, u3: atU3, school: atSchool, m1: atM1 },
      ),
      version: 1,
      lineVersion: 1,
    },
    sites: [moinho, u1, u2, u3, u4, ladeira, school, m1, farm],
    cables: [m96, p96, b96, r144, s144, e24, c48, ...drops, v48, f12],
    closures: [atU1, atU2, atU3, atU4, atSchool, atM1],
  };
  const cables = new Map(definition.cables.map((one) => [one.id, one]));
  const splicesOf = (one: Closure) => planClosure(one, cables).splices;
  const diametersAtU1 = new Map([
    [m96.id, 12.4],
    [p96.id, 12.5],
    [r144.id, 14.6],
  ]);
  const nightAtU1 = simulatedNight(
    splicesOf(atU1),
    cables,
    atU1.id,
    limits,
    nightBefore,
    shift,
    troublesAtU1,
  );
  return {
    definition,
    facts: [
      ...preparedFacts({
        closure: atU1,
        site: u1,
        cables,
        begins: new Date(nightBefore.getTime() - 90 * 60_000),
        shift,
        by: 'Davi',
        made: new Map([
          [m96.id, 1],
          [p96.id, 1],
        ]),
        diameters: diametersAtU1,
        sheathMarks: new Map([
          [m96.id, 1252],
          [p96.id, 2004],
          [r144.id, 1288],
        ]),
      }),
      ...preparedFacts({
        closure: atU2,
        site: u2,
        cables,
        begins: new Date(opens.getTime() - 110 * 60_000),
        shift,
        by: 'Iara',
        made: new Map([p96, b96, r144, s144].map((one) => [one.id, 1])),
        diameters: new Map([
          [p96.id, 12.4],
          [b96.id, 12.4],
          [r144.id, 14.7],
          [s144.id, 14.6],
        ]),
        sheathMarks: new Map([
          [p96.id, 3820],
          [b96.id, 112],
          [r144.id, 3112],
        ]),
      }),
      ...preparedFacts({
        closure: atU3,
        site: u3,
        cables,
        begins: new Date(opens.getTime() + 60 * 60_000),
        shift,
        by: 'Davi',
        made: new Map([[b96.id, 0.5]]),
        missing: ['soap'],
        diameters: new Map([[b96.id, 12.4]]),
        sheathMarks: new Map([[b96.id, 1836]]),
      }),
      ...nightAtU1,
      ...sealedFacts({
        closure: atU1,
        cables,
        diameters: diametersAtU1,
        before: nightAtU1,
        by: 'Davi',
        leaks: p96.id,
      }),
      ...measuredMorning(
        nightAtU1,
        splicesOf(atU1).slice(0, measuredAtU1),
        cables,
        atU1.id,
        new Date(nightBefore.getTime() + 11 * 3600_000),
        shift,
      ),
      ...simulatedNight(
        splicesOf(atU2).slice(0, splicedAtU2),
        cables,
        atU2.id,
        limits,
        opens,
        shift,
        troublesAtU2,
      ),
      ...ribbonNight(
        splicesOf(atU2)
          .filter(({ kind }) => kind === 'ribbon')
          .slice(0, ribbonsAtU2),
        cables,
        atU2.id,
        limits,
        new Date(opens.getTime() + 10 * 60_000),
        shift,
      ),
    ],
  };
}

/** The same hour so many days later. */
const later = (time: Date, days: number) => new Date(time.getTime() + days * 24 * 3600_000);

/** So long after the window opened the last splice of the scenario was made, ms: 4 h 05 min. */
const progressed = 245 * 60_000;

/** ms from the scenario's night to one in which `now` is right after its last splice; whole hours, so that the window opens on the hour. */
function shiftTo(now: Date): number {
  const hour = 3600_000;
  return Math.floor((now.getTime() - progressed - opens.getTime()) / hour) * hour;
}

const splicedAtU2 = 53;
const ribbonsAtU2 = 8;

const troublesAtU1: Troubles = { '1.20': 'redone', '3.4': 'redone', '4.17': 'allowed' };

const troublesAtU2: Troubles = {
  '1.8': 'redone',
  '1.15': 'allowed',
  '2.5': 'recleaved',
  '2.11': 'broken',
  '2.19': 'redo',
  '2.22': 'owner',
};
