import fc from 'fast-check';
import {
  attempt,
  closure as example,
  factAfter,
  id,
  plan as examplePlan,
  timeOf,
} from '../../../test/example';
import { cableOf, joint } from '../../../test/joint';
import { equalTubes, type Fact } from '../../index';
import {
  againstWindow,
  allWork,
  estimateClosure,
  measuredPace,
  minutes,
  ribbonizingSaves,
  splicingTime,
  usualPace,
} from './estimate';

/**
 * The same told second by second: one pair of hands, one heater, a tray on which sleeves wait for it. The hands never wait for the heater to
 * finish, only for its lid: a splice is not left hanging, so the next one begins when the heater has taken the last.
 */
function simulate(count: number, hands: number, heater: number): number {
  let clock = 0;
  let made = 0;
  let heated = 0;
  let handsLeft = hands;
  let heaterLeft = 0;
  let waiting = 0;
  while (heated < count) {
    clock += 1;
    if (heaterLeft > 0) {
      heaterLeft -= 1;
      if (heaterLeft === 0) heated += 1;
    }
    if (made < count) {
      handsLeft -= 1;
      if (handsLeft === 0) {
        made += 1;
        waiting += 1;
        handsLeft = hands;
      }
    }
    if (heaterLeft === 0 && waiting > 0) {
      waiting -= 1;
      heaterLeft = heater;
    }
  }
  return clock;
}

test('the slower of hands and heater sets the pace: the same as a simulation, second by second', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 60 }),
      fc.integer({ min: 1, max: 90 }),
      fc.integer({ min: 1, max: 90 }),
      (count, hands, heater) => {
        expect(splicingTime(count, hands, heater)).toBe(simulate(count, hands, heater));
      },
    ),
  );
  expect(splicingTime(0, 150, 40)).toBe(0);
});

const a = cableOf(1, equalTubes(8, 12));
const b = cableOf(2, equalTubes(8, 12));
const dome = joint(
  'Dome 96',
  [
    [a, 'cut'],
    [b, 'cut'],
  ],
  'A 1-96 > B 1-96',
);

test('a dome of 96 singles, by hand: 20 + 2 × (20 + 8 × 4) + 96 × 2.5 + 40 s + 25 + 15 min', () => {
  const { closure, plan, cables } = dome;
  const { seconds, lines } = estimateClosure(closure, plan, cables, allWork(closure, plan), usualPace);
  expect(seconds).toBe((20 + 2 * (20 + 32) + 240 + 25 + 15) * 60 + 40);
  expect(seconds).toBe(lines.reduce((sum, line) => sum + line.seconds, 0));
  expect(lines.map(({ id }) => id)).toEqual(['set-up', 'cable', 'cable', 'single', 'seal', 'test']);
});

test('what is done already costs nothing more', () => {
  const { closure, plan, cables } = dome;
  const left = {
    ...allWork(closure, plan),
    unprepared: new Map([
      [a.id, 0],
      [b.id, 0.5],
    ]),
    singles: 0,
  };
  const { lines } = estimateClosure(closure, plan, cables, left, usualPace);
  expect(lines.map(({ what, seconds }) => [what, seconds / 60])).toEqual([
    ['Set up', 20],
    ['Prepare Cable 2', 26],
    ['Seal', 25],
    ['Flash test', 15],
  ]);
  const none = {
    unprepared: new Map([
      [a.id, 0],
      [b.id, 0],
    ]),
    singles: 0,
    ribbons: 0,
    sealed: true,
  };
  expect(estimateClosure(closure, plan, cables, none, usualPace).seconds).toBe(0);
});

test('ribbons made of loose fibers are glued on both sides first', () => {
  const { closure, plan, cables } = joint(
    'Dome 96',
    [
      [a, 'cut'],
      [b, 'cut'],
    ],
    'A 1-96 > B 1-96 ribbonized',
  );
  const { lines } = estimateClosure(closure, plan, cables, allWork(closure, plan), usualPace);
  expect(lines.find(({ id }) => id === 'ribbonize')!.seconds).toBe(16 * usualPace.ribbonize);
  expect(lines.find(({ id }) => id === 'ribbon')!.seconds).toBe(8 * 420 + 60);
});

test('ribbonizing 96 singles: 8 ribbons, and the gluing is counted', () => {
  // 96 × 150 + 40 = 14 440 s against 8 × 420 + 60 + 16 × 300 = 8 220 s.
  expect(ribbonizingSaves(96, usualPace)).toEqual({ ribbons: 8, seconds: 6220 });
  expect(ribbonizingSaves(2, usualPace).seconds).toBeLessThan(0);
});

describe('the pace that was measured', () => {
  const night = (minutesBetween: number[], by: string | null = null): Fact[] => {
    let minute = 0;
    return [0, ...minutesBetween].map((step, index) =>
      attempt(index, 0.02, { minute: (minute += step), by }),
    );
  };
  test('is the median time from splice to splice; a pause does not count', () => {
    expect(measuredPace(night([3, 3, 2, 3, 45, 4, 3, 3, 3])).single).toBe(180);
  });
  test('is not given for a handful, nor for ribbons that nobody spliced', () => {
    expect(measuredPace(night([3, 3, 3])).single).toBeNull();
    expect(measuredPace(night([3, 3, 2, 3, 4, 3, 3, 3])).ribbon).toBeNull();
  });
  test('of two people at once is each one’s own', () => {
    const facts = [...night([4, 4, 4, 4, 4, 4], 'Iara'), ...night([4, 4, 4, 4, 4, 4], 'Davi')];
    // The same splices twice: two tries each.
    expect(measuredPace(facts).single).toBe(480);
  });
  test('leaves out what was taken back, and takes the place of the usual one', () => {
    const facts = night([3, 3, 3, 3, 3, 3, 3, 3]);
    const wrong = attempt(0, 0.5, { minute: 90 });
    const back: Fact = {
      ...factAfter(wrong),
      kind: 'correction',
      body: {
        attemptId: wrong.id,
        result: null,
        reason: 'mistake',
      },
    };
    expect(measuredPace([...facts, wrong, back]).single).toBe(180);
    const cables = new Map(
      [1, 2].map((number) => [id(number), { ...cableOf(number, equalTubes(4, 6)), id: id(number) }]),
    );
    const { lines } = estimateClosure(
      example,
      examplePlan,
      cables,
      allWork(example, examplePlan),
      usualPace,
      measuredPace(facts),
    );
    expect(lines.find(({ id }) => id === 'single')!.seconds).toBe(24 * 180);
  });
});

describe('against the window', () => {
  const window = { opens: timeOf(0), closes: timeOf(420) };
  test('says when it ends and what is spare', () => {
    expect(againstWindow(380 * 60, timeOf(0), window)).toEqual({
      begins: timeOf(0),
      ends: timeOf(380),
      spare: 40 * 60,
    });
    expect(againstWindow(400 * 60, timeOf(60), window).spare).toBe(-40 * 60);
  });
  test('reckons a night that is to come, or over, from its beginning', () => {
    expect(againstWindow(60, '2026-01-01T00:00:00.000Z', window).begins).toBe(window.opens);
    expect(againstWindow(60, '2026-12-01T00:00:00.000Z', window).begins).toBe(window.opens);
    expect(againstWindow(60, timeOf(5), null)).toEqual({ begins: timeOf(5), ends: timeOf(6), spare: null });
  });
});

test('times are said as people say them', () => {
  expect([35, 150, 540, 2400, 7500, -2400].map(minutes)).toEqual([
    '35 s',
    '2 min 30 s',
    '9 min',
    '40 min',
    '2 h 05 min',
    '−40 min',
  ]);
});
