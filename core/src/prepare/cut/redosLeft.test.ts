import { cableOf, joint } from '../../../test/joint';
import { equalTubes } from '../../index';
import { redosLeft } from './redosLeft';

const a = cableOf(1, equalTubes(2, 12));
const b = cableOf(2, equalTubes(2, 12));
const { closure, plan, cables } = joint(
  'Dome 96',
  [
    [a, 'cut'],
    [b, 'cut'],
  ],
  'A 1-24 > B 1-24',
);
const left = (tries: number) => redosLeft(closure, plan, cables, plan.splices[0]!, tries);

test('a splice that was tried once has all redos of the cut sheet, six in a usual dome; each further try takes one', () => {
  expect([0, 1, 2, 6, 7, 20].map(left)).toEqual([6, 6, 5, 1, 0, 0]);
});

test('the shorter side counts', () => {
  const through = cableOf(3, equalTubes(2, 12), { through: true });
  const branch = joint(
    'Dome 96',
    [
      [through, 'express'],
      [b, 'branch'],
    ],
    'A- T1 > B T1',
  );
  const longer = joint(
    'Dome 96',
    [
      [through, 'express'],
      [b, 'branch'],
    ],
    'A- T1 > B T1',
    {
      lengths: { ...closure.lengths!, exitStub: 200 },
    },
  );
  // 1625.6 − 50.8 − 670 − 700 = 204.8 mm, 5.8 tries; with a stub of 200 mm 55.6 mm, 1.6 tries.
  expect(redosLeft(branch.closure, branch.plan, branch.cables, branch.plan.splices[0]!, 1)).toBe(4);
  expect(redosLeft(longer.closure, longer.plan, longer.cables, longer.plan.splices[0]!, 1)).toBe(0);
});

test('nothing is counted where there is nothing to count', () => {
  const tails = [1, 2].map((number) =>
    cableOf(number, { kind: 'pigtails', fibers: 12, bufferMicrometers: 900 }),
  );
  const rack = joint(
    'Rack module 144',
    tails.map((one) => [one, 'cut'] as const),
    'A 1-12 > B 1-12',
  );
  expect(redosLeft(rack.closure, rack.plan, rack.cables, rack.plan.splices[0]!, 1)).toBeNull();
});
