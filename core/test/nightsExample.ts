import { buildLedger, equalTubes, type Closure, type ProjectDefinition, type Site } from '../src';
import { allWork, usualPace } from '../src/prepare/time/estimate';
import { nothingMeasured } from '../src/prepare/time/measured';
import type { NightsInput } from '../src/schedule/problemOf';
import { newNightsSetup, type Crew, type NightsSetup } from '../src/schedule/setup';
import { carryingLeft, traysLeft, type ClosureToDo } from '../src/schedule/closureToDo';
import { definition as base, id, limits } from './example';
import { cableOf, joint } from './joint';

const hour = 3_600_000;
/** 22:00 in São Paulo. */
const first = Date.parse('2026-04-15T01:00:00.000Z');

export const nightIds = [id(801), id(802), id(803)];
export const nights: NightsSetup['nights'] = nightIds.map((nightId, index) => ({
  id: nightId,
  opens: new Date(first + index * 24 * hour).toISOString(),
  closes: new Date(first + index * 24 * hour + 7 * hour).toISOString(),
}));

const site = (number: number, name: string, chainage: number): Site => ({
  id: id(number),
  name,
  kind: number === 10 ? 'hub' : 'closure',
  chainage,
  placement: 'handhole',
});
const sites = [site(10, 'Hub', 0), site(12, 'U1', 1000), site(13, 'U2', 3000), site(14, 'U3', 5000)];

const loose = [1, 2].map((number) => cableOf(number, equalTubes(8, 12)));
const ribbon = [3, 4].map((number) =>
  cableOf(number, { kind: 'central-ribbon', ribbons: 12, fibersPerRibbon: 12 }),
);

/** A closure at a site with everything left to do. */
export function toDo(number: number, kind: 'loose' | 'ribbon', order: string): ClosureToDo {
  const cables = kind === 'loose' ? loose : ribbon;
  const made = joint(
    kind === 'loose' ? 'Dome 96' : 'Inline 144',
    cables.map((cable) => [cable, 'cut'] as const),
    order,
  );
  const closure: Closure = {
    ...made.closure,
    id: id(20 + number),
    siteId: id(11 + number),
    testPressure: 34,
  };
  const plan = { ...made.plan, closureId: closure.id };
  return {
    closure,
    plan,
    cables: made.cables,
    left: allWork(closure, plan, made.cables),
    trays: traysLeft(closure, plan, made.cables, buildLedger(plan, [], limits)),
    carrying: carryingLeft(closure, plan, made.cables, buildLedger(plan, [], limits)),
    measured: nothingMeasured,
    variation: null,
  };
}

export const u1 = toDo(1, 'loose', 'A 1-48 > B 1-48');
export const u2 = toDo(2, 'ribbon', 'A R1-R12 > B R1-R12');
export const u3 = toDo(3, 'loose', 'A 1-96 > B 1-96');

const crew = (number: number, name: string, people: string[], machines: Crew['machines']): Crew => ({
  id: id(820 + number),
  name,
  people,
  machines,
  calibration: 600,
  startSiteId: id(10),
  offNightIds: [],
  contacts: '',
});
export const pair = crew(
  1,
  'Iara and Davi',
  ['Iara', 'Davi'],
  [
    { gearId: null, name: 'Single 1', splices: 'single', heaters: 1 },
    { gearId: null, name: 'Ribbon 1', splices: 'ribbon', heaters: 1 },
  ],
);
export const noa = crew(
  2,
  'Noa',
  ['Noa'],
  [{ gearId: null, name: 'Single 2', splices: 'single', heaters: 1 }],
);

export const setup: NightsSetup = { ...newNightsSetup, nights, crews: [pair, noa] };

const definition: ProjectDefinition = {
  ...base,
  project: { ...base.project, timeZone: 'America/Sao_Paulo' },
  sites,
  cables: [...loose, ...ribbon],
  closures: [u1, u2, u3].map(({ closure }) => closure),
};

/** Three closures, two crews, three nights. */
export function nightsInput(more: Partial<NightsInput> = {}): NightsInput {
  return {
    definition,
    setup,
    toDo: [u1, u2, u3],
    pace: usualPace,
    machineOf: () => undefined,
    now: null,
    begun: new Map(),
    ...more,
  };
}

export const nameOf = (closureId: string): string =>
  sites.find(({ id: siteId }) => siteId === definition.closures.find((one) => one.id === closureId)?.siteId)
    ?.name ?? '?';
