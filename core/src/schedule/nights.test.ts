import { id } from '../../test/example';
import { nightIds, nights, nightsInput, noa, pair, setup, u1, u2, u3 } from '../../test/nightsExample';
import { planned, rule, withRules, zone } from '../../test/plannedNights';
import { dayMinute } from './clock';
import { nightsProblem } from './problemOf';
import { nightsSetupSchema, newNightsSetup } from './setup';
import { whyThere } from './why';

describe('a closure that may stay open', () => {
  test('goes over two nights where one is too short, and not where it is long enough', () => {
    const short = {
      ...setup,
      nights: nights.map((night) => ({
        ...night,
        closes: new Date(Date.parse(night.opens) + 5 * 3_600_000).toISOString(),
      })),
      crews: [noa],
    };
    const input = nightsInput({ toDo: [u3], setup: short });
    expect(planned(input).plan.left).toHaveLength(1);
    const open = planned({ ...input, setup: { ...short, rules: [rule(u3, { mayStayOpen: true })] } });
    expect(open.plan.left).toEqual([]);
    expect(open.told.length).toBeGreaterThan(1);
    const long = planned(
      nightsInput({ toDo: [u3], setup: { ...setup, rules: [rule(u3, { mayStayOpen: true })] } }),
    );
    expect(long.told).toHaveLength(1);
    // Its parts follow each other at once, without setting up again: it is one stop.
    expect(long.plan.score[5]).toBe(0);
    expect(long.plan.places[0]!.order.length).toBeGreaterThan(1);
    expect(long.told[0]!.stops).toMatchObject([{ closureId: u3.closure.id, part: null }]);
  });
});

describe('rules', () => {
  test('ribbons go to who has the machine, and everything is done in two nights', () => {
    const { plan, proven, at } = planned(nightsInput());
    expect(proven).toBe(true);
    expect(plan.score.slice(0, 2)).toEqual([0, 2]);
    expect(at(u2)!.crew).toBe(pair.id);
  });
  test('only on its night, and what comes before comes before', () => {
    const { at } = planned(
      withRules(rule(u2, { onlyNightId: nightIds[1]! }), rule(u3, { afterIds: [u2.closure.id] })),
    );
    expect(at(u2)!.night).toBe(1);
    expect(at(u3)!.night * 1e15 + at(u3)!.begins).toBeGreaterThan(at(u2)!.night * 1e15 + at(u2)!.ends);
  });
  test('circuits that are back by 00:30 leave no time but for what is done first', () => {
    const { at, plan } = planned(withRules(rule(u2, { backBy: 60 })));
    expect(plan.left).toEqual([]);
    expect(dayMinute(at(u2)!.backBy!, zone)).toBe(60);
    expect(at(u2)!.endsAtLatest).toBeLessThanOrEqual(at(u2)!.backBy!);
    const never = planned(withRules(rule(u2, { backBy: 23 * 60 })));
    expect(never.plan.left).toHaveLength(1);
  });
  test('a pin is kept even where it does not fit', () => {
    const pins = [u1, u3].map((todo) => ({
      closureId: todo.closure.id,
      nightId: nightIds[0]!,
      crewId: noa.id,
    }));
    const { at, told } = planned(nightsInput({ setup: { ...setup, pins } }));
    expect([at(u1)!, at(u3)!].map((one) => [one.night, one.crew, one.pinned])).toEqual([
      [0, noa.id, true],
      [0, noa.id, true],
    ]);
    expect(told.find(({ crewId }) => crewId === noa.id)!.chance).toBeLessThan(0.01);
  });
  test('a closure that is left out is not planned; one that is over is told', () => {
    expect(planned(withRules(rule(u1, { leftOut: true }))).at(u1)).toBeNull();
    const late = nightsProblem({
      ...withRules(rule(u1, { onlyNightId: nightIds[0]! })),
      now: Date.parse(nights[1]!.opens),
    });
    expect(late.nights).toHaveLength(2);
    expect(late.troubles.map(({ code }) => code)).toContain('night-over');
  });
  test('closures that wait for each other in a ring are told, and planned without that', () => {
    const { made, plan } = planned(
      withRules(rule(u1, { afterIds: [u2.closure.id] }), rule(u2, { afterIds: [u1.closure.id] })),
    );
    expect(made.troubles.filter(({ code }) => code === 'round')).toHaveLength(2);
    expect(plan.left).toEqual([]);
  });
  test('two crews that share a machine do not have it in one night', () => {
    const gearId = id(900);
    const shared = { gearId, name: 'Ribbon 1', splices: 'both' as const, heaters: 1 };
    const crews = [pair, noa].map((crew) => ({ ...crew, machines: [shared] }));
    const { plan, told } = planned(nightsInput({ setup: { ...setup, crews } }));
    expect(plan.left).toEqual([]);
    expect(new Set(told.map(({ nightId }) => nightId)).size).toBe(told.length);
  });
});

describe('why', () => {
  test('U3 is on the second night: on the first it would end too late, with whoever', () => {
    const { made, plan, at } = planned(nightsInput());
    const later = [u1, u2, u3].find((todo) => at(todo)!.night === 1)!;
    const { kind, before } = whyThere(made, plan, at(later)!.job);
    expect(kind).toBe('later');
    expect(before).toHaveLength(1);
    const [{ because }] = before as [(typeof before)[0]];
    expect(because.kind).toBe('late');
    if (because.kind === 'late') expect(because.ends).toBeGreaterThan(made.problem.nights[0]! * 0.85);
  });
  test('a pin, an only night, a machine that nobody has', () => {
    const pins = [{ closureId: u1.closure.id, nightId: nightIds[1]!, crewId: null }];
    const pinned = planned(
      nightsInput({ setup: { ...setup, pins, rules: [rule(u3, { onlyNightId: nightIds[2]! })] } }),
    );
    expect(whyThere(pinned.made, pinned.plan, pinned.at(u1)!.job).kind).toBe('pinned');
    expect(whyThere(pinned.made, pinned.plan, pinned.at(u3)!.job).kind).toBe('only-night');
    const off = planned(
      nightsInput({ setup: { ...setup, crews: [{ ...pair, offNightIds: [nightIds[0]!] }, noa] } }),
    );
    const reasons = whyThere(off.made, off.plan, off.at(u2)!.job).before;
    expect(reasons[0]!.because.kind).toBe('machines');
  });
});

test('settings are read as they were written, and nothing that does not hold', () => {
  const round = (value: unknown) => nightsSetupSchema.safeParse(JSON.parse(JSON.stringify(value)));
  expect(round(setup).data).toEqual(setup);
  expect(round(newNightsSetup).success).toBe(true);
  const [night] = nights;
  expect(round({ ...setup, nights: [{ ...night, closes: night!.opens }] }).success).toBe(false);
  expect(round({ ...setup, reserve: 1 }).success).toBe(false);
  expect(round({ ...setup, crews: [{ ...noa, people: [] }] }).success).toBe(false);
});
