import {
  equalTubes,
  limitsPresets,
  planClosure,
  type Attempt,
  type Cable,
  type Closure,
  type SpliceFact,
  type ProjectDefinition,
} from '../src';

/** A small made-up project for tests: cables A and B of 4 × 6 fibers, one closure with trays of 12, joined straight. */

/** A readable identifier: the number is its tail. */
export function id(number: number): string {
  return `01900000-0000-7000-8000-${String(number).padStart(12, '0')}`;
}

export const cableA: Cable = {
  id: id(1),
  label: 'A',
  schemeId: 'tia-598-d',
  construction: equalTubes(4, 6),
  siteIds: [id(11), id(12)],
};
export const cableB: Cable = { ...cableA, id: id(2), label: 'B', siteIds: [id(12), id(13)] };
export const cables = new Map([cableA, cableB].map((cable) => [cable.id, cable]));

export const closure: Closure = {
  id: id(21),
  siteId: id(12),
  kind: 'dome',
  entries: [
    { cableId: cableA.id, manner: 'cut' },
    { cableId: cableB.id, manner: 'cut' },
  ],
  trays: [{ singleSlots: 12 }, { singleSlots: 12 }],
  order: [
    {
      id: id(31),
      left: { cableId: cableA.id, side: 'end', from: 1, to: 24 },
      right: { cableId: cableB.id, side: 'end', from: 1, to: 24 },
      mode: 'single',
      circuit: null,
    },
  ],
  version: 1,
};

/** 0.10 dB a splice, 0.05 dB mean, 1°, 3 tries. */
export const limits = limitsPresets[0]!.limits;
export const plan = planClosure(closure, cables);

export const definition: ProjectDefinition = {
  project: { id: id(41), name: 'Example', units: 'mm', limits, window: null, version: 1 },
  sites: [
    { id: id(11), name: 'Hub', kind: 'hub', chainage: 0, placement: null },
    { id: id(12), name: 'Joint', kind: 'closure', chainage: 500, placement: 'pole' },
    { id: id(13), name: 'Cabinet', kind: 'cabinet', chainage: 900, placement: null },
  ],
  cables: [cableA, cableB],
  closures: [closure],
};

export const spliceAt = (index: number) => plan.trays.flatMap((tray) => tray.splices)[index]!;

/** Minute `minute` of a made-up night. */
export function timeOf(minute: number): string {
  return new Date(Date.UTC(2026, 3, 15, 1, minute)).toISOString();
}

let made = 1000;

/** An attempt at splice `index`; each call is a later minute unless one is given. */
export function attempt(
  index: number,
  loss: number | null,
  more: Partial<Attempt> & { cleaveLeft?: number; cleaveRight?: number; minute?: number } = {},
): Attempt {
  const { cleaveLeft = null, cleaveRight = null, minute, ...rest } = more;
  made += 1;
  return {
    id: id(made),
    closureId: closure.id,
    spliceId: spliceAt(index).id,
    madeAt: timeOf(minute ?? made),
    by: null,
    kind: 'attempt',
    source: 'hand',
    simulated: false,
    readings: [{ loss, cleaveLeft, cleaveRight }],
    proofTestFailed: loss === null,
    note: '',
    ...rest,
  };
}

/** What every fact about the same splice as `before` starts with, a minute or more after it. */
export function factAfter(before: SpliceFact) {
  made += 1;
  const { closureId, spliceId } = before;
  return { id: id(made), closureId, spliceId, madeAt: timeOf(made), by: null };
}
