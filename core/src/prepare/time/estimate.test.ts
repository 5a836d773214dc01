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
import { newGear, type Machine } from '../../gear';
import { jointOf } from '../../splice/bench/joint';
import { measuredPace } from './measured';
import {
  connectorEnds,
  againstWindow,
  allWork,
  estimateClosure,
  heatingOf,
  minutes,
  ribbonizingSaves,
  splicingTime,
  usualPace,
} from './estimate';

/**
 * The same told second by second: one pair of hands, one heater, a tray on which sleeves wait for it. The hands never wait for the heater to
 * finish, only for its lid: a splice is not left hanging, so the next one begins when the heater has taken the last.
 */
function simulate(count: number, hands: number, heater: number, heaters: number): number {
  let clock = 0;
  let made = 0;
  let heated = 0;
  let handsLeft = hands;
  const places = Array.from({ length: heaters }, () => 0);
  let waiting = 0;
  while (heated < count) {
    clock += 1;
    for (let at = 0; at < heaters; at += 1)
      if (places[at]! > 0) {
        places[at]! -= 1;
        if (places[at] === 0) heated += 1;
      }
    if (made < count) {
      handsLeft -= 1;
      if (handsLeft === 0) {
        made += 1;
        waiting += 1;
        handsLeft = hands;
      }
    }
    for (let at = 0; at < heaters; at += 1)
      if (places[at] === 0 && waiting > 0) {
        waiting -= 1;
        places[at] = heater;
      }
  }
  return clock;
}

test('the slower of hands and heater sets the pace: the same as a simulation, second by second', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 60 }),
      fc.integer({ min: 1, max: 90 }),
      fc.integer({ min: 1, max: 200 }),
      fc.integer({ min: 1, max: 4 }),
      (count, hands, heater, heaters) => {
        expect(splicingTime(count, hands, heater, heaters)).toBe(simulate(count, hands, heater, heaters));
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
  const { seconds, lines } = estimateClosure(
    closure,
    plan,
    cables,
    allWork(closure, plan, cables),
    usualPace,
  );
  expect(seconds).toBe((20 + 2 * (20 + 32) + 240 + 25 + 15) * 60 + 40);
  expect(seconds).toBe(lines.reduce((sum, line) => sum + line.seconds, 0));
  expect(lines.map(({ id }) => id)).toEqual(['set-up', 'cable', 'cable', 'single', 'seal', 'test']);
});

test('what is done already costs nothing more', () => {
  const { closure, plan, cables } = dome;
  const left = {
    ...allWork(closure, plan, cables),
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
    pigtails: 0,
    sleeves: {},
    connectors: 0,
    fanOuts: 0,
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
  const { lines } = estimateClosure(closure, plan, cables, allWork(closure, plan, cables), usualPace);
  expect(lines.find(({ id }) => id === 'ribbonize')!.seconds).toBe(16 * usualPace.ribbonize);
  expect(lines.find(({ id }) => id === 'ribbon')!.seconds).toBe(8 * 420 + 60);
});

test('ribbonizing 96 singles: 8 ribbons, and the gluing is counted', () => {
  // 96 × 150 + 40 = 14 440 s against 8 × 420 + 60 + 16 × 300 = 8 220 s.
  expect(ribbonizingSaves(96, usualPace)).toEqual({ ribbons: 8, seconds: 6220 });
  expect(ribbonizingSaves(2, usualPace).seconds).toBeLessThan(0);
});

describe('the pace that was measured', () => {
  /** Nobody is at work any more. */
  const later = timeOf(2000);
  const night = (minutesBetween: number[], by: string | null = null): Fact[] => {
    let minute = 0;
    return [0, ...minutesBetween].map((step, index) =>
      attempt(index, 0.02, { minute: (minute += step), by }),
    );
  };
  test('is the median time from splice to splice; a pause does not count', () => {
    expect(measuredPace(night([3, 3, 2, 3, 45, 4, 3, 3, 3]), later).single).toBe(180);
  });
  test('is not given for a handful, nor for ribbons that nobody spliced', () => {
    expect(measuredPace(night([3, 3, 3]), later).single).toBeNull();
    expect(measuredPace(night([3, 3, 2, 3, 4, 3, 3, 3]), later).ribbon).toBeNull();
  });
  test('of two people at once is each one’s own', () => {
    const facts = [...night([4, 4, 4, 4, 4, 4], 'Iara'), ...night([4, 4, 4, 4, 4, 4], 'Davi')];
    // The same splices twice: two tries each.
    expect(measuredPace(facts, later).single).toBe(480);
  });
  test('while two are at it they share what is left, each at their own pace', () => {
    // One splice in 4 min, the other in 2: together as many of 2 min 40 s.
    const facts = [
      ...[0, 4, 8, 12, 16, 20, 24, 28, 32, 36].map((minute, index) =>
        attempt(index, 0.02, { minute, by: 'Iara' }),
      ),
      ...[20, 22, 24, 26, 28, 30, 32, 34, 36].map((minute, index) =>
        attempt(12 + index, 0.02, { minute, by: 'Davi' }),
      ),
    ];
    const now = measuredPace(facts, timeOf(37));
    expect(now.single).toBeCloseTo(160, 9);
    expect(now.atWork).toHaveLength(2);
    // One of them went home.
    expect(measuredPace([...facts, attempt(23, 0.02, { minute: 58, by: 'Davi' })], timeOf(59))).toMatchObject(
      {
        single: 120,
        atWork: [{}],
      },
    );
    // Without names they are told apart by their devices.
    const nameless = facts.map((fact): Fact => ({ ...fact, by: null, device: fact.by }));
    expect(measuredPace(nameless, timeOf(37)).single).toBeCloseTo(160, 9);
    const { closure, plan, cables } = dome;
    const left = allWork(closure, plan, cables);
    const line = (people: number) =>
      estimateClosure(closure, plan, cables, left, usualPace, heatingOf(usualPace), {
        ...now,
        atWork: now.atWork.slice(0, people),
      }).lines.find(({ id }) => id === 'single')!;
    expect([line(0), line(1), line(2)].map(({ seconds }) => Math.round(seconds))).toEqual([
      96 * 160,
      96 * 160,
      48 * 160,
    ]);
    expect(line(2).how).toContain('2 people at it');
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
    expect(measuredPace([...facts, wrong, back], later).single).toBe(180);
    const cables = new Map(
      [1, 2].map((number) => [id(number), { ...cableOf(number, equalTubes(4, 6)), id: id(number) }]),
    );
    const { lines } = estimateClosure(
      example,
      examplePlan,
      cables,
      allWork(example, examplePlan, cables),
      usualPace,
      heatingOf(usualPace),
      measuredPace(facts, later),
    );
    expect(lines.find(({ id }) => id === 'single')!.seconds).toBe(24 * 180);
  });
});

test('pigtails and fan-out are compared by time and parts', () => {
  // 24 × 150 + 40 s against 2 × 900 + 24 × 300 s.
  expect(connectorEnds(24, usualPace)).toEqual({
    pigtails: { seconds: 3640, pigtails: 24, sleeves: 24 },
    fanOut: { seconds: 9000, kits: 2, connectors: 24 },
  });
  expect(connectorEnds(13, usualPace).fanOut.kits).toBe(2);
});

test('pigtails are told from other singles', () => {
  const pigtails = cableOf(
    9,
    { kind: 'pigtails', fibers: 12, bufferMicrometers: 900 },
    { siteIds: [id(12)] },
  );
  const { closure, plan, cables } = joint(
    'Rack module 144',
    [
      [a, 'cut'],
      [pigtails, 'drop'],
      [b, 'branch'],
    ],
    'A 1-12 > B 1-12\nA 13-24 > C 13-24',
  );
  expect(allWork(closure, plan, cables)).toMatchObject({ singles: 24, pigtails: 12 });
});

describe('the heater', () => {
  const machine: Machine = {
    ...(newGear('machine', id(701), 'Machine 1') as Machine),
    heaters: 2,
    heaterPrograms: [
      { name: 'Long', sleeve: 'single-60', seconds: 400 },
      { name: 'Ribbon', sleeve: 'ribbon', seconds: 90 },
    ],
  };
  test('takes the machine’s own seconds, and the usual ones where it has no program', () => {
    expect(heatingOf(usualPace, machine)).toEqual({
      heaters: 2,
      seconds: { 'single-60': 400, ribbon: 90, 'single-40': 40, connector: 40 },
    });
    expect(heatingOf(usualPace)).toMatchObject({ heaters: 1, seconds: { 'single-60': 40, ribbon: 60 } });
  });
  test('sets the pace where it is the slower one, two sleeves at once', () => {
    const { closure, plan, cables } = dome;
    const line = (heaters: number) =>
      estimateClosure(
        closure,
        plan,
        cables,
        allWork(closure, plan, cables),
        usualPace,
        heatingOf(usualPace, { ...machine, heaters }),
      ).lines.find(({ id }) => id === 'single')!;
    expect(line(1)).toMatchObject({
      seconds: 150 + 96 * 400,
      how: '96 × 6 min 40 s (the heater sets the pace) + 2 min 30 s',
    });
    expect(line(2).seconds).toBe(simulate(96, 150, 400, 2));
    expect(line(2).how).toContain('2 sleeves at once');
  });
  test('is reckoned with for each sleeve that is left', () => {
    const { closure, plan, cables } = dome;
    expect(jointOf(closure, plan.splices[0]!, cables).sleeve).toBe('single-60');
    expect(allWork(closure, plan, cables).sleeves).toEqual({ 'single-60': 96 });
    expect(allWork({ ...closure, sleeveLength: 40 }, plan, cables).sleeves).toEqual({ 'single-40': 96 });
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
