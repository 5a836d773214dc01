import fc from 'fast-check';
import { id } from '../../../test/example';
import { equalTubes, type Cable } from '../../line/cable';
import type { Site } from '../../line/project';
import type { Closure, Entry } from '../closure';
import { planClosure } from '../trays/closurePlan';
import { followFiber, type Route, type WayStep } from './followFiber';
import { readOrder } from '../order/orderText';

/** Sites 100 m apart: hub 11, closures 12 and 13, cabinet 14; a terminal 15 on a branch of 40 m that leaves at 13. */
const sites: Site[] = [11, 12, 13, 14, 15].map((number, index) => ({
  id: id(number),
  name: `Site ${number}`,
  kind: 'closure',
  chainage: number === 15 ? 40 : index * 100,
  placement: null,
  ...(number === 15 ? { branchFrom: id(13) } : {}),
}));
const cable = (number: number, ...at: number[]): Cable => ({
  id: id(number),
  label: `Cable ${number}`,
  schemeId: 'tia-598-d',
  construction: equalTubes(2, 6),
  siteIds: at.map(id),
});
// 1 runs to the first closure, 2 from there through the second to the cabinet, 3 is the branch.
const cables = new Map(
  [cable(1, 11, 12), cable(2, 12, 13, 14), cable(3, 13, 15)].map((one) => [one.id, one]),
);

function joint(number: number, site: number, entries: Entry[], order: string): Closure {
  const { lines, problems } = readOrder(order, entries);
  expect(problems).toEqual([]);
  return {
    id: id(number),
    siteId: id(site),
    kind: 'dome',
    entries,
    trays: [{ singleSlots: 24 }],
    order: lines.map((line, index) => ({ ...line, id: id(number * 100 + index) })),
    version: 1,
  };
}

function route(first: string, second: string): Route {
  const closures = [
    joint(
      21,
      12,
      [
        { cableId: id(1), manner: 'cut' },
        { cableId: id(2), manner: 'cut' },
      ],
      first,
    ),
    joint(
      22,
      13,
      [
        { cableId: id(2), manner: 'express' },
        { cableId: id(3), manner: 'branch' },
      ],
      second,
    ),
  ];
  return {
    sites,
    cables,
    closures: closures.map((closure) => ({ closure, plan: planClosure(closure, cables) })),
  };
}
const planned = route('A 1-12 > B 1-12', 'A- 7-9 > B 1-3');

const words = (steps: WayStep[]) =>
  steps.map((step) => {
    switch (step.kind) {
      case 'length':
        return `${cables.get(step.cableId)!.label} f${step.fiber} ${step.meters} m`;
      case 'splice':
        return `splice ${step.from.fiber} to ${step.to.fiber} slot ${step.place?.slot}`;
      case 'through':
        return 'through';
      case 'stop':
        return step.because;
    }
  });

test('goes on through a closure that does not cut it, to both ends', () => {
  expect(words(followFiber(planned, id(1), 2))).toEqual([
    'no-closure',
    'Cable 1 f2 100 m',
    'splice 2 to 2 slot 2',
    'Cable 2 f2 100 m',
    'through',
    'Cable 2 f2 100 m',
    'no-closure',
  ]);
});

test('leaves with the branch, and the far side of the cut is told to be dark', () => {
  expect(words(followFiber(planned, id(1), 7))).toEqual([
    'no-closure',
    'Cable 1 f7 100 m',
    'splice 7 to 7 slot 7',
    'Cable 2 f7 100 m',
    'splice 7 to 1 slot 1',
    'Cable 3 f1 40 m',
    'no-closure',
  ]);
  expect(words(followFiber(planned, id(2), 7, 1))).toEqual(['cut', 'Cable 2 f7 100 m', 'no-closure']);
});

test('stops where the plan has nothing for it', () => {
  expect(words(followFiber(route('A 1-6 > B 1-6', ''), id(1), 9))).toEqual([
    'no-closure',
    'Cable 1 f9 100 m',
    'not-planned',
  ]);
});

test('a way that turns back is followed and ends', () => {
  expect(words(followFiber(route('A 1 > A 2', ''), id(1), 1))).toEqual([
    'no-closure',
    'Cable 1 f1 100 m',
    'splice 1 to 2 slot 1',
    'Cable 1 f2 100 m',
    'no-closure',
  ]);
});

test('a ring of splices is told, not walked for ever', () => {
  const ends: Cable = { ...cable(1, 12, 12), id: id(1) };
  const own = new Map(cables).set(ends.id, ends);
  const closure = joint(21, 12, [{ cableId: id(1), manner: 'cut' }], 'A 1 > A 2');
  const ring = { sites, cables: own, closures: [{ closure, plan: planClosure(closure, own) }] };
  expect(followFiber(ring, id(1), 1).length).toBeLessThan(20);
});

test('from wherever one starts on a way, it is the same way', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 12 }), (fiber) => {
      const way = followFiber(planned, id(1), fiber);
      for (const step of way) {
        if (step.kind !== 'length') continue;
        const span = cables.get(step.cableId)!.siteIds.indexOf(step.fromSiteId);
        expect(followFiber(planned, step.cableId, step.fiber, span)).toEqual(way);
      }
    }),
  );
});

test('refuses a fiber that is not there', () => {
  expect(() => followFiber(planned, id(1), 13)).toThrow(RangeError);
  expect(() => followFiber(planned, id(9), 1)).toThrow(RangeError);
});
