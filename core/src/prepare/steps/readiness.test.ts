import { definition, id, isFact, tickAt, timeOf } from '../../../test/example';
import { cableOf, joint } from '../../../test/joint';
import { equalTubes, type Fact, type Site, type Tick } from '../../index';
import { cautionsFor, itemsFor, readiness } from './readiness';
import { usualSchools } from './steps';
import { isDone, measured, prepareState, tickOf, tickTargets, type TickTarget } from './tickTargets';

const loose = cableOf(1, equalTubes(2, 12), { diameter: 12 });
const branch = cableOf(2, equalTubes(2, 12), { diameter: 12 });
const through = cableOf(
  3,
  { kind: 'central-ribbon', ribbons: 12, fibersPerRibbon: 12 },
  { through: true, diameter: 14 },
);
const items = (order: string, schools = usualSchools) => {
  const { closure, plan, cables } = joint(
    'Dome 96',
    [
      [loose, 'cut'],
      [branch, 'branch'],
      [through, 'express'],
    ],
    order,
  );
  return itemsFor(closure, plan, cables, schools);
};
const names = (order: string, schools = usualSchools) => items(order, schools).map(({ name }) => name);

test('tools follow the constructions that are opened, and the school', () => {
  expect(names('A 1-24 > B 1-24')).toEqual(
    expect.arrayContaining(['Ring cutter', 'Round tube scorer', 'Pump with gauge']),
  );
  expect(names('A 1-24 > B 1-24')).not.toContain('Mid-span slitter');
  expect(names('A 1-12 > C- 1-12')).toEqual(
    expect.arrayContaining(['Mid-span slitter', 'Scorer for the central tube', 'Thermal stripper, holders']),
  );
  expect(names('A 1-24 > B 1-24', { ...usualSchools, tube: 'fixed-depth' })).toContain(
    'Fixed-depth tube stripper',
  );
});

test('parts come from the plan and from the closure’s own kit, and each says what it stops', () => {
  const list = items('A 1-24 > B 1-24');
  expect(list.find(({ id }) => id === 'single-sleeve-60')).toMatchObject({
    count: 24,
    stops: 'protecting single splices',
  });
  expect(list.find(({ name }) => name === 'O-ring')).toMatchObject({
    kind: 'part',
    stops: 'closing and testing',
  });
  expect(list.every(({ stops }) => stops !== '')).toBe(true);
  expect(new Set(list.map((item) => item.id)).size).toBe(list.length);
});

const at = (placement: Site['placement'], order = 'A 1-24 > B 1-24', live = false) => {
  const ring = live ? { ...through, live: [{ from: 133, to: 144, circuit: 'Ring' }] } : through;
  const { closure, plan, cables } = joint(
    'Dome 96',
    [
      [loose, 'cut'],
      [branch, 'branch'],
      [ring, 'express'],
    ],
    order,
  );
  return cautionsFor({ ...definition.sites[1]!, placement }, closure, plan, cables).map(
    (caution) => caution.id,
  );
};

test('cautions are asked where the site calls for them', () => {
  expect(at('handhole')).toEqual(['air', 'traffic', 'bonding']);
  expect(at('manhole')).toEqual(['air', 'entry', 'traffic', 'bonding']);
  expect(at('aerial')).toEqual(['height', 'power', 'bonding']);
  expect(at('pole')).toEqual(['height', 'power', 'traffic', 'bonding']);
  expect(at('indoors')).toEqual([]);
  expect(at(null)).toEqual(['place', 'bonding']);
});

test('live fiber is named where a circuit is known, and asked for where a cable that goes through is opened', () => {
  expect(at('indoors', undefined, true)).toEqual(['live']);
  expect(at('indoors', 'A 1-12 > C- 1-12')).toEqual(['live']);
});

const tick = (target: TickTarget, state: Tick['body']['state'], minute: number) =>
  tickAt(target, minute, state);

test('the last tick of a name counts, in whatever order the facts arrive', () => {
  const about = tickTargets.item('glove');
  const facts: Fact[] = [tick(about, 'done', 1), tick(about, 'missing', 3), tick(about, 'done', 2)];
  for (const order of [facts, [...facts].reverse()])
    expect(tickOf(prepareState(order), about)!.body.state).toBe('missing');
  expect(isDone(prepareState(facts.slice(0, 1)), about)).toBe(true);
});

test('what is missing, not looked at, and not ticked', () => {
  const list = items('A 1-24 > B 1-24');
  const state = prepareState([
    tick(tickTargets.item('glove'), 'missing', 1),
    tick(tickTargets.item('glasses'), 'done', 2),
    tick(tickTargets.caution('air'), 'done', 3),
  ]);
  const ready = readiness(
    list,
    [
      { id: 'air', title: '', text: '' },
      { id: 'traffic', title: '', text: '' },
    ],
    state,
  );
  expect(ready.missing.map((item) => item.id)).toEqual(['glove']);
  expect(ready.open).toHaveLength(list.length - 2);
  expect(ready.openCautions.map((caution) => caution.id)).toEqual(['traffic']);
});

test('a measurement can be taken back', () => {
  const about = tickTargets.diameter(id(1));
  const value = (minute: number, millimeters: number | null): Fact => ({
    v: 2,
    id: id(6000 + minute),
    kind: 'measurement',
    madeAt: timeOf(minute),
    by: null,
    device: null,
    subject: { on: 'cable', closureId: id(21), cableId: id(1) },
    body: { of: 'diameter', mm: millimeters },
  });
  expect(measured(prepareState([value(1, 12.4)]), about)).toBe(12.4);
  expect(measured(prepareState([value(1, 12.4), value(2, null)]), about)).toBeNull();
});

test.each([
  ['a length below 0', { mm: -1 }],
  ['no number', { mm: NaN }],
  ['no name', { of: '' }],
])('a measurement with %s is refused', (_, wrong) => {
  const sound = {
    v: 2,
    id: id(1),
    kind: 'measurement',
    madeAt: timeOf(1),
    by: null,
    device: null,
    subject: { on: 'cable', closureId: id(2), cableId: id(3) },
    body: { of: 'diameter', mm: 1 },
  };
  expect(isFact(sound)).toBe(true);
  expect(isFact({ ...sound, body: { ...sound.body, ...wrong } })).toBe(false);
});
