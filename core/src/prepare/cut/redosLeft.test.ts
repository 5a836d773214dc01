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

test('a splice that was tried once has all redos of the cut sheet, four in a usual dome; each further try takes one', () => {
  // 64 in less the 3 in of the knife: 1549.4 − 670 − 700 − 35 = 144.4; / 35 = 4.1.
  expect([0, 1, 2, 4, 5, 20].map(left)).toEqual([4, 4, 3, 1, 0, 0]);
});

test('who starts the ripcord by a second ring has two more: nothing was opened by knife', () => {
  // 1625.6 − 670 − 700 − 35 = 220.6; / 35 = 6.3.
  expect(redosLeft(closure, plan, cables, plan.splices[0]!, 1, true)).toBe(6);
  expect(left(1)).toBe(4);
});

test('the shorter side counts', () => {
  const drop = cableOf(3, { kind: 'drop', shape: 'round', fibers: 12, toningWire: false, messenger: false });
  const job = (dropOpening: number) =>
    joint(
      'Dome 96',
      [
        [a, 'cut'],
        [drop, 'drop'],
      ],
      'A T1 > B 1-12',
      { lengths: { ...closure.lengths!, dropOpening } },
    );
  const redos = (one: ReturnType<typeof job>) =>
    redosLeft(one.closure, one.plan, one.cables, one.plan.splices[0]!, 1);
  // 1500 − 670 − 700 − 35 = 95 mm, 2.7 redos; with the whole 64 in the cable, which loses what the knife opened, is the shorter one.
  expect(redos(job(1500))).toBe(2);
  expect(redos(job(1625.6))).toBe(4);
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
