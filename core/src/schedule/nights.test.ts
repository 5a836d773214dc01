import fc from 'fast-check';
import { id } from '../../test/example';
import {
  nameOf,
  nightIds,
  nights,
  nightsInput,
  noa,
  pair,
  setup,
  toDo,
  u1,
  u2,
  u3,
} from '../../test/nightsExample';
import { newGear, type Machine } from '../gear';
import { carriesCircuit } from '../plan/opened/openedUnits';
import { estimateClosure, heatingOf, usualPace } from '../prepare/time/estimate';
import { leastChanges, nightsEnough } from './changes';
import { clockAfter, dayMinute } from './clock';
import { helpsFor } from './helps';
import { openOrStop } from './live';
import { breaches } from './problem';
import { nightsProblem, toolsOf, type NightsInput } from './problemOf';
import { nightsAfter, nightsSetupSchema, newNightsSetup, ruleOf, type ClosureRule } from './setup';
import { solvedNights } from './solve';
import { toldPlan } from './told';
import { whyThere } from './why';
import { chunksOf, crewWork, longestFirst, partsOf, partWords, ribbonized, type ClosureToDo } from './work';

const zone = 'America/Sao_Paulo';
const tools = (crew: typeof pair) => toolsOf(nightsInput(), crew, crew.machines);
const rule = (todo: ClosureToDo, more: Partial<ClosureRule>): ClosureRule => ({
  ...ruleOf({ rules: [] }, todo.closure.id),
  ...more,
});
const withRules = (...rules: ClosureRule[]) => nightsInput({ setup: { ...setup, rules } });

function planned(input: NightsInput) {
  const made = nightsProblem(input);
  const solved = solvedNights(made.problem);
  expect(breaches(made.problem, solved.plan)).toEqual([]);
  const told = toldPlan(made, solved.plan, input.setup, input.toDo, zone);
  const at = (todo: ClosureToDo) => {
    const night = told.find(({ stops }) => stops.some(({ closureId }) => closureId === todo.closure.id));
    const stop = night?.stops.find(({ closureId }) => closureId === todo.closure.id);
    return night && stop ? { ...stop, night: nightIds.indexOf(night.nightId), crew: night.crewId } : null;
  };
  return { ...solved, made, told, at };
}

describe('what a crew does at a closure', () => {
  test('by one pair of hands it is the estimate of the time page', () => {
    const { closure, plan, cables, left } = u3;
    const { seconds } = estimateClosure(closure, plan, cables, left, usualPace);
    const work = crewWork(u3, usualPace, tools(noa))!;
    expect(work.setUp.mean + work.parts[0]!.mean).toBeCloseTo(seconds, 6);
    expect(work.secondHandSaves).toBe(0);
  });
  test('a second hand halves what hands do, as far as the machine keeps up', () => {
    const work = crewWork(u3, usualPace, tools(pair))!;
    // One cable each (20 + 8 × 4 min), 96 splices in half the time, 25 min sealing, 15 min flash test.
    expect(work.parts[0]!.mean).toBeCloseTo(52 * 60 + (96 * 150 + 40) / 2 + 40 * 60, 6);
    const slow = {
      ...tools(pair),
      single: { heaters: 1, seconds: { ...heatingOf(usualPace).seconds, 'single-60': 120 } },
    };
    // The heater takes 120 s for each sleeve, however many hands there are.
    const single = crewWork(u3, usualPace, slow)!.steps.find((step) => step.id === 'single')!;
    expect(single.mean).toBeCloseTo(96 * 120, 6);
    expect(crewWork(u3, usualPace, { ...tools(pair), people: 5 })!.parts).toEqual(work.parts);
  });
  test('whoever lacks a machine cannot do it', () => {
    expect(crewWork(u2, usualPace, tools(noa))).toBeNull();
    expect(crewWork(u2, usualPace, tools(pair))).not.toBeNull();
  });
  test('made into ribbons it is 8 ribbons, both sides glued', () => {
    const made = ribbonized(u3);
    expect(made.left).toMatchObject({ singles: 0, ribbons: 8 });
    const work = crewWork(made, usualPace, { ...tools(pair), people: 1 })!;
    expect(work.steps.find((step) => step.id === 'ribbon')!.mean).toBe(8 * 420 + 60);
    expect(work.steps.find((step) => step.id === 'ribbonize')!.mean).toBe(16 * 300);
  });
  test('longest first: at most 4/3 − 1/(3m) of the best, and 7 for the best of 6 (Graham 1969)', () => {
    expect(longestFirst([3, 3, 2, 2, 2], 2)).toBe(7);
    const best = (times: readonly number[], hands: number): number => {
      const busy = Array.from({ length: hands }, () => 0);
      const place = (at: number): number => {
        if (at === times.length) return Math.max(...busy);
        let least = Infinity;
        for (let hand = 0; hand < hands; hand += 1) {
          busy[hand]! += times[at]!;
          least = Math.min(least, place(at + 1));
          busy[hand]! -= times[at]!;
        }
        return least;
      };
      return place(0);
    };
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 40 }), { minLength: 1, maxLength: 7 }),
        fc.integer({ min: 1, max: 3 }),
        (times, hands) => {
          const least = best(times, hands);
          const found = longestFirst(times, hands);
          expect(found).toBeGreaterThanOrEqual(least);
          expect(found).toBeLessThanOrEqual(least * (4 / 3 - 1 / (3 * hands)) + 1e-9);
        },
      ),
    );
  });
});

describe('a closure that may stay open', () => {
  test('is split at cables and trays, into parts that are together the whole', () => {
    for (const todo of [u1, u2, u3]) {
      const chunks = chunksOf(todo, usualPace);
      const parts = partsOf(chunks, 4 * 3600);
      expect(parts.at(-1)).toBe(chunks.length);
      expect(parts).toEqual([...new Set(parts)].sort((a, b) => a - b));
      const whole = crewWork(todo, usualPace, tools(pair))!.parts[0]!.mean;
      const split = crewWork(todo, usualPace, tools(pair), parts)!.parts;
      expect(split.reduce((sum, { mean }) => sum + mean, 0)).toBeCloseTo(whole, 6);
    }
    const chunks = chunksOf(u3, usualPace);
    expect(partsOf(chunks, 7 * 3600).map((_, index, all) => partWords(chunks, all, index + 1))).toEqual([
      'prepare Cable 1, prepare Cable 2, cover',
      'trays 1 to 3, cover',
      'tray 4, seal',
    ]);
  });
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

test('the machine of the gear’s list heats as that says', () => {
  const machine = { ...(newGear('machine', id(900), 'Single 1') as Machine), heaters: 2 };
  const input = nightsInput({ machineOf: () => machine });
  const own = { ...noa, machines: [{ ...noa.machines[0]!, gearId: machine.id }] };
  expect(toolsOf(input, own, own.machines).single).toMatchObject({
    heaters: 2,
    seconds: { 'single-60': 35 },
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

test('further nights follow the last one, a day after each other', () => {
  const mixed = [nights[2]!, nights[0]!, nights[1]!];
  expect(nightsAfter(mixed, 2, zone)).toEqual([
    { opens: '2026-04-18T01:00:00.000Z', closes: '2026-04-18T08:00:00.000Z' },
    { opens: '2026-04-19T01:00:00.000Z', closes: '2026-04-19T08:00:00.000Z' },
  ]);
  expect(nightsAfter([], 2, zone)).toEqual([]);
  // 22:00 to 05:00 in Lisbon, where clocks are set back an hour that night: 21:00 to 05:00 in UTC, then 22:00 to 05:00.
  const autumn = { opens: '2026-10-24T21:00:00.000Z', closes: '2026-10-25T05:00:00.000Z' };
  expect(nightsAfter([autumn], 1, 'Europe/Lisbon')).toEqual([
    { opens: '2026-10-25T22:00:00.000Z', closes: '2026-10-26T05:00:00.000Z' },
  ]);
});

describe('the least change', () => {
  const alone = { ...setup, nights: nights.slice(0, 1), crews: [noa] };
  test('for ribbons without a machine: a machine', () => {
    const input = nightsInput({ toDo: [u2], setup: alone });
    const changes = leastChanges(input, planned(input).plan, u2.closure.id, nameOf);
    expect(changes.map(({ kind }) => kind)).toContain('machine');
  });
  test('each of them is one by which it fits', () => {
    const input = nightsInput({ toDo: [u1, u3], setup: alone });
    const before = planned(input);
    expect(before.plan.left).toHaveLength(1);
    const left = before.made.problem.jobs[before.plan.left[0]!]!.closureId;
    const changes = leastChanges(input, before.plan, left, nameOf);
    expect(changes.map(({ kind }) => kind)).toEqual(
      expect.arrayContaining(['sooner', 'longer', 'second-hand']),
    );
    for (const { gains } of changes) expect(gains).toContain(left);
    expect(
      leastChanges(input, before.plan, u1.closure.id === left ? u3.closure.id : u1.closure.id, nameOf),
    ).toEqual([]);
  });
  test('of many closures, what gives it a place beside the plan that stands', () => {
    const many = [30, 31, 32, 33].flatMap((number) =>
      [u1, u2, u3].map((todo, index) => ({
        ...todo,
        closure: { ...todo.closure, id: id(number * 10 + index) },
      })),
    );
    const input = nightsInput({ toDo: many, setup: { ...setup, nights: nights.slice(0, 2) } });
    const { plan, made } = planned(input);
    expect(plan.left.length).toBeGreaterThan(3);
    for (const job of plan.left) {
      const { closureId } = made.problem.jobs[job]!;
      const changes = leastChanges(input, plan, closureId, nameOf);
      expect(changes.map(({ kind }) => kind)).toContain('another-night');
      for (const { gains } of changes) expect(gains).toEqual([closureId]);
    }
    // As many more nights as it says are enough, and hold nothing back.
    const more = nightsEnough(input)!;
    const longer = [
      ...nights.slice(0, 2),
      ...nightsAfter(nights.slice(0, 2), more, zone).map((night, index) => ({
        id: id(850 + index),
        ...night,
      })),
    ];
    expect(planned(nightsInput({ toDo: many, setup: { ...setup, nights: longer } })).plan.left).toEqual([]);
    expect(
      planned(nightsInput({ toDo: many, setup: { ...setup, nights: longer.slice(0, -2) } })).plan.left.length,
    ).toBeGreaterThan(0);
    const there = made.problem.jobs[plan.places[0]!.order[0]!]!.closureId;
    expect(leastChanges(input, plan, there, nameOf)).toEqual([]);
  });
  test('half an hour sooner, where half an hour is missing', () => {
    const short = (hours: number) =>
      nights.slice(0, 1).map((night) => ({
        ...night,
        closes: new Date(Date.parse(night.opens) + hours * 3_600_000).toISOString(),
      }));
    let hours = 4;
    const input = () => nightsInput({ toDo: [u1], setup: { ...alone, nights: short(hours) } });
    while (planned(input()).plan.left.length > 0) hours += 0.25;
    hours -= 0.5;
    const sooner = leastChanges(input(), planned(input()).plan, u1.closure.id, nameOf).find(
      ({ kind }) => kind === 'sooner',
    )!;
    expect(sooner.words).toMatch(/^Begin the nights (20|25|30|35) min sooner\.$/);
  });
});

describe('during the night', () => {
  const at = (hours: number) => nightsInput({ now: Date.parse(nights[0]!.opens) + hours * 3_600_000 });
  const job = (input: NightsInput, todo: ClosureToDo) => {
    const made = nightsProblem(input);
    const which = made.problem.jobs.findIndex(({ closureId }) => closureId === todo.closure.id);
    return openOrStop(made.problem, 0, [], which);
  };
  test('early there is time to open, late there is not', () => {
    expect(job(at(0.5), u1)).toMatchObject({ says: 'open' });
    expect(job(at(6), u1)).toMatchObject({ says: 'stop' });
    expect(job(at(6), u1).chance).toBeLessThan(0.01);
    const chances = [0, 1, 2, 3, 4, 5, 6].map((hours) => job(at(hours), u1).chance);
    expect(chances).toEqual([...chances].sort((a, b) => b - a));
  });
  test('what stopping costs is said', () => {
    // The last night, and only this crew can do it.
    const input = nightsInput({ now: Date.parse(nights[2]!.opens) + 3_600_000, toDo: [u2] });
    expect(job(input, u2).stopping).toMatchObject({ left: 1 });
  });
  test('what is pinned to tonight goes to another night where the crew stops', () => {
    const pins = [{ closureId: u1.closure.id, nightId: nightIds[0]!, crewId: pair.id }];
    const input = nightsInput({
      now: Date.parse(nights[0]!.opens) + 6 * 3_600_000,
      setup: { ...setup, pins },
    });
    expect(job(input, u1)).toMatchObject({ says: 'stop', stopping: { left: 0 } });
  });
  test('who is at a closure goes on there first, without setting up again', () => {
    const input = { ...at(2), begun: new Map([[u3.closure.id, ['Davi']]]) };
    const { at: where, told } = planned(input);
    expect(where(u3)).toMatchObject({ night: 0, crew: pair.id, begun: true, pinned: false });
    const night = told.find(({ crewId, nightId }) => crewId === pair.id && nightId === nightIds[0])!;
    expect(night.stops[0]!.closureId).toBe(u3.closure.id);
    expect(night.leaves).toBeNull();
    expect(night.stops[0]!.begins).toBe(input.now!);
  });
});

describe('what helps a night that runs short', () => {
  const helps = (input: NightsInput, crew: number, order: readonly ClosureToDo[]) => {
    const { problem } = nightsProblem(input);
    const jobs = order.map((todo) =>
      problem.jobs.findIndex(({ closureId }) => closureId === todo.closure.id),
    );
    const place = { night: 0, crew, order: jobs };
    return helpsFor(input, place, [place], nameOf);
  };
  test('a second crew for one pair of hands, and to put off what is not begun', () => {
    const pins = [u1, u3].map((todo) => ({
      closureId: todo.closure.id,
      nightId: nightIds[0]!,
      crewId: noa.id,
    }));
    const found = helps(nightsInput({ toDo: [u1, u3], setup: { ...setup, pins } }), 1, [u1, u3]);
    expect(found.map(({ kind }) => kind)).toEqual(expect.arrayContaining(['put-off', 'second-crew']));
    expect(found.find(({ kind }) => kind === 'second-crew')).toMatchObject({ crewId: pair.id });
    expect(found.map(({ chance }) => chance)).toEqual(
      found.map(({ chance }) => chance).sort((a, b) => b - a),
    );
  });
  const shortTo = (hours: number) =>
    nights.map((night) => ({
      ...night,
      closes: new Date(Date.parse(night.opens) + hours * 3_600_000).toISOString(),
    }));
  test('another crew, where one has time for what was pinned here, also one that is off tonight', () => {
    const pins = [u1, u3].map((todo) => ({
      closureId: todo.closure.id,
      nightId: nightIds[0]!,
      crewId: pair.id,
    }));
    const own = { ...setup, nights: shortTo(6.2), pins };
    const takes = (crews: NightsInput['setup']['crews']) =>
      helps(nightsInput({ toDo: [u1, u3], setup: { ...own, crews } }), 0, [u3, u1])
        .filter(({ kind }) => kind === 'hand-over')
        .map(({ crewId, words }) => `${crewId === noa.id ? 'noa' : crewId}: ${words}`);
    expect(takes([pair, noa])).toEqual([
      expect.stringMatching(/^noa: Noa can take U1 tonight: \d h \d+ min sooner\.$/),
    ]);
    expect(takes([pair, { ...noa, offNightIds: [nightIds[0]!] }])).toEqual([
      expect.stringMatching(/^noa: Call Noa in, off tonight, to take U1: /),
    ]);
    // Nobody else; nobody with the machine; nobody in time.
    expect(takes([pair])).toEqual([]);
    expect(takes([pair, { ...noa, machines: [{ ...noa.machines[0]!, splices: 'ribbon' }] }])).toEqual([]);
    expect(takes([pair, { ...noa, calibration: 2 * 3600 }])).toEqual([]);
  });
  test('to leave what carries no circuit, where it is known what does', () => {
    const named = toDo(3, 'loose', 'A 1-24 > B 1-24 : Clinic\nA 25-96 > B 25-96');
    expect(named.carrying).toMatchObject({ left: { singles: 24 } });
    expect(named.carrying!.trays.reduce((sum, { singles }) => sum + singles, 0)).toBe(24);
    expect(u3.carrying).toBeNull();
    const found = helps(nightsInput({ toDo: [named], setup: { ...setup, nights: shortTo(3) } }), 0, [named]);
    expect(found[0]).toMatchObject({ kind: 'without-circuit', closureId: named.closure.id });
    expect(found[0]!.words).toMatch(/^Leave the 72 splices at U3 that carry no circuit for another night, /);
    // 72 splices by two pairs of hands.
    expect(found[0]!.saves).toBeCloseTo((72 * 150) / 2, -2);
    const without = helps(nightsInput({ toDo: [u3], setup: { ...setup, nights: shortTo(3) } }), 0, [u3]);
    expect(without.map(({ kind }) => kind)).not.toContain('without-circuit');
  });
  test('traffic in a fiber is a circuit as well', () => {
    const [spliced] = u3.plan.splices;
    const { cableId, fiber } = spliced!.left[0]!;
    const live = [{ from: fiber, to: fiber, circuit: 'District ring' }];
    const cables = new Map([...u3.cables].map(([id, one]) => [id, id === cableId ? { ...one, live } : one]));
    expect(u3.plan.splices.filter((one) => carriesCircuit(one, cables))).toEqual([spliced]);
  });
  test('ribbons, where there is a machine for them; nothing where there is time', () => {
    const found = helps(nightsInput({ setup: { ...setup, nights: shortTo(4.2) } }), 0, [u3]);
    expect(found.map(({ kind }) => kind)).toContain('ribbonize');
    expect(found.every(({ saves, chance }) => saves >= 60 && chance > 0)).toBe(true);
    expect(helps(nightsInput(), 0, [u3])).toEqual([]);
  });
});

test('a time of day is found in every zone, over a change of clocks too', () => {
  fc.assert(
    fc.property(
      fc.constantFrom('America/Sao_Paulo', 'Europe/Lisbon', 'Asia/Kathmandu', 'Australia/Lord_Howe', null),
      fc.integer({ min: Date.parse('2026-01-01T00:00:00Z'), max: Date.parse('2027-01-01T00:00:00Z') }),
      fc.integer({ min: 0, max: 1439 }),
      (where, time, minute) => {
        const found = clockAfter(time, minute, where);
        expect(found).toBeGreaterThanOrEqual(time - 60_000);
        expect(found - time).toBeLessThanOrEqual(26 * 3_600_000);
        // An hour that is left out lies nowhere; all others are met.
        const off = Math.abs(dayMinute(found, where) - minute);
        expect([0, 30, 60]).toContain(off);
      },
    ),
    { numRuns: 300 },
  );
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
