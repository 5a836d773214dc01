import fc from 'fast-check';
import {
  bookOf,
  calibration,
  cleaver,
  event,
  hourOf,
  machine,
  recleave,
  use,
  uses,
  weather,
  wentOn,
} from '../../test/gear';
import { id } from '../../test/example';
import { cleaverStanding, machineStanding } from './due';
import type { Cleaver, Machine } from './gear';
import type { GearFact } from '../facts';
import type { GearUse } from './use';
import { dueWords } from './words';

const withRules = (rules: Partial<Machine['rules']>): Machine => ({
  ...machine,
  rules: { ...machine.rules, ...rules },
});
const tripped = (
  facts: readonly GearFact[],
  own: readonly GearUse[],
  hours: number,
  rules: Partial<Machine['rules']> = {},
) => machineStanding(withRules(rules), bookOf(facts, own), hourOf(hours)).due.map((due) => due.rule);

// The rules and the counts of 300 and 50 are common practice, no published source; every other number is a setting.
describe('an arc calibration is due', () => {
  test('when none is on record, and not once one passed', () => {
    expect(tripped([], [], 0)).toEqual(['session']);
    expect(tripped([calibration(0, false)], [], 0.1)).toEqual(['session']);
    expect(tripped([calibration(0)], [], 0.1)).toEqual([]);
  });

  test.each([
    ['7 h 59 min after the last splice the session goes on', 1 + 8 - 1 / 60, []],
    ['8 h after it a new one begins', 1 + 8, ['session']],
  ])('at the start of a session: %s', (_, now, expected) => {
    expect(tripped([calibration(0)], [use(0.5), use(1)], now)).toEqual(expected);
  });
  test('and is not due in a session that began with one, however long it is', () => {
    const night = Array.from({ length: 20 }, (_, index) => use(index));
    expect(tripped([calibration(-0.5)], night, 19.5)).toEqual([]);
    // One from the session before does not count.
    expect(tripped([calibration(-30)], night, 19.5)).toEqual(['session']);
  });

  test.each([
    ['temperature', { temperature: 29.9 }, []],
    ['temperature', { temperature: 30 }, ['temperature']],
    ['temperature', { temperature: 10 }, ['temperature']],
    ['temperature', { temperature: 10.1 }, []],
    ['humidity', { humidity: 74 }, []],
    ['humidity', { humidity: 75 }, ['humidity']],
    ['pressure', { pressure: 96.31 }, []],
    ['pressure', { pressure: 96.3 }, ['pressure']],
    ['two at once', { temperature: 5, humidity: 90 }, ['temperature', 'humidity']],
  ])('after a marked change of weather: %s %j', (_, now, expected) => {
    expect(tripped([calibration(0), weather(1, now)], [], 1.1)).toEqual(expected);
  });
  test('weather that was not looked at does not count, and is remembered value by value', () => {
    const facts = [calibration(0), weather(1, { temperature: 5 }), weather(1.5, { humidity: 55 })];
    expect(tripped(facts, [], 2)).toEqual(['temperature']);
    expect(
      tripped([calibration(0, true, { temperature: null }), weather(1, { temperature: -10 })], [], 2),
    ).toEqual([]);
  });
  test('a failed try tells the weather too, and a new pass takes its own as the measure', () => {
    expect(tripped([calibration(0), calibration(1, false, { temperature: 8 })], [], 2)).toEqual([
      'temperature',
    ]);
    expect(
      tripped(
        [
          calibration(0),
          calibration(1, false, { temperature: 8 }),
          calibration(1.1, true, { temperature: 8 }),
        ],
        [],
        2,
      ),
    ).toEqual([]);
  });

  test.each([
    [30 * 24 - 1, ['session']],
    [30 * 24, ['session', 'disuse']],
  ])('after long disuse: %d h', (now, expected) => {
    expect(tripped([calibration(-1)], [use(0)], now)).toEqual(expected);
  });

  test.each(['electrodes-cleaned', 'electrodes-replaced'] as const)('after %s', (name) => {
    expect(tripped([calibration(0), event(1, name)], [], 1.1)).toEqual(['electrodes']);
    expect(tripped([event(0, name), calibration(1)], [], 1.1)).toEqual([]);
    expect(tripped([calibration(0), event(1, name)], [], 1.1, { electrodes: 2 })).toEqual([]);
    expect(tripped([calibration(0), event(1, name), event(2, name)], [], 2.1, { electrodes: 2 })).toEqual([
      'electrodes',
    ]);
  });

  test('after a run of failures or high losses, of the rule’s length and without a good one in it', () => {
    const bad = (hours: number) => use(hours, { bad: true });
    expect(tripped([calibration(0)], [bad(1), bad(2)], 2.1)).toEqual([]);
    expect(tripped([calibration(0)], [bad(1), bad(2), bad(3)], 3.1)).toEqual(['badRun']);
    expect(tripped([calibration(0)], [bad(1), bad(2), use(3), bad(4)], 4.1)).toEqual([]);
    expect(tripped([calibration(2.5)], [bad(1), bad(2), bad(3)], 3.1)).toEqual([]);
  });

  test.each([
    [299, 125, []],
    [300, 125, ['splices125']],
    [49, 400, []],
    [50, 400, ['splices400']],
  ] as const)('after %d splices of %d μm fiber: %j', (count, cladding, expected) => {
    expect(tripped([calibration(0)], uses(count, 0.1, { cladding }), 6)).toEqual(expected);
  });
  test('splices of both kinds count by their share', () => {
    const mixed = [...uses(150, 0.1), ...uses(24, 3, { cladding: 400 })];
    expect(tripped([calibration(0)], mixed, 4)).toEqual([]);
    expect(tripped([calibration(0)], [...mixed, use(3.9, { cladding: 400 })], 4)).toHaveLength(1);
    const { due } = machineStanding(
      machine,
      bookOf([calibration(0)], [...mixed, use(3.9, { cladding: 400 })]),
      hourOf(4),
    );
    expect(dueWords(due[0]!)).toContain(
      '150 splices since the last one (rule: 300), and 25 of 400 μm fiber (rule: 50)',
    );
  });

  test('says its reason with the numbers', () => {
    const { due } = machineStanding(
      machine,
      bookOf([calibration(0), weather(1, { temperature: -4.5 })], uses(312, 0.1)),
      hourOf(6),
    );
    expect(due.map(dueWords)).toEqual([
      'From 20 °C to −4.5 °C since the last one (rule: 10).',
      '312 splices since the last one (rule: 300).',
    ]);
  });
});

test('a rule that is switched off never trips, whatever happened', () => {
  const facts = [
    calibration(0),
    weather(1, { temperature: -20, humidity: 100, pressure: 70 }),
    event(2, 'electrodes-cleaned'),
  ];
  const off = Object.fromEntries(
    Object.keys(machine.rules).map((rule) => [rule, null]),
  ) as unknown as Machine['rules'];
  expect(tripped(facts, uses(5000, 3, { bad: true }), 2000, off)).toEqual([]);
  fc.assert(
    fc.property(fc.constantFrom(...(Object.keys(off) as (keyof Machine['rules'])[])), (rule) => {
      const all = tripped(facts, uses(5000, 3, { bad: true }), 2000);
      expect(tripped(facts, uses(5000, 3, { bad: true }), 2000, { [rule]: null })).toEqual(
        all.filter((one) => one !== rule),
      );
    }),
    { numRuns: 12 },
  );
});

test('a looser rule never trips earlier', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 700 }),
      fc.integer({ min: 1, max: 600 }),
      fc.integer({ min: 0, max: 100 }),
      (count, limit, more) => {
        const own = uses(count, 0.1);
        const tight = tripped([calibration(0)], own, 13, { splices125: limit });
        const loose = tripped([calibration(0)], own, 13, { splices125: limit + more });
        expect(tight).toEqual(expect.arrayContaining(loose));
        expect(tight.includes('splices125')).toBe(count >= limit);
      },
    ),
    { numRuns: 40 },
  );
});

describe('electrodes', () => {
  test.each([
    [3999, []],
    [4000, ['electrodeLife']],
  ])('at %d arcs: %j', (arcs, expected) => {
    const facts = [calibration(0), event(0.1, 'arcs-read', arcs - 10)];
    expect(tripped(facts, [...uses(5, 0), ...uses(10, 0.2)], 1)).toEqual(expected);
  });
  test('new ones count from nothing', () => {
    const facts = [event(0, 'arcs-read', 5000), event(1, 'electrodes-replaced'), calibration(2)];
    const standing = machineStanding(machine, bookOf(facts, [...uses(4, 0.5), ...uses(3, 2)]), hourOf(2.5));
    expect(standing).toMatchObject({ arcs: 4, due: [] });
  });
});

describe('the blade', () => {
  const due = (facts: readonly GearFact[], own: readonly GearUse[]) =>
    cleaverStanding(cleaver, bookOf(facts, own), hourOf(50));
  test('counts both ends of every fiber', () => {
    expect(due([], [use(1), use(2, { fibers: 12 })])).toMatchObject({ cleaves: 26, position: 1, due: [] });
  });
  test.each([
    [2998, 1, ['cleaves']],
    [2997, 1, []],
  ])('is due at its number: %d read off, then %d splice', (read, count, expected) => {
    const standing = due([event(0, 'cleaves-read', read, cleaver)], uses(count, 1));
    expect(standing.due.map((one) => one.rule)).toEqual(expected);
  });
  test('turned, the next position counts from nothing; at the last one it is used up', () => {
    const own = uses(1500, 1);
    expect(dueWords(due([], own).due[0]!)).toBe(
      '3\u00a0000 fibers cleaved on position 1 of 16 (rule: 3\u00a0000).',
    );
    expect(due([event(48, 'blade-turned', undefined, cleaver)], own)).toMatchObject({
      cleaves: 0,
      position: 2,
      due: [],
    });
    const last = due([event(0, 'position-read', 16, cleaver)], own);
    expect(dueWords(last.due[0]!)).toContain('the blade is used up');
    expect(
      due([event(0, 'position-read', 16, cleaver), event(48, 'blade-replaced', undefined, cleaver)], own),
    ).toMatchObject({
      cleaves: 0,
      position: 1,
    });
    // A position that the blade does not have is taken as the nearest that it has.
    expect(due([event(0, 'position-read', 99, cleaver)], []).position).toBe(16);
  });
  test('without a rule it is never due', () => {
    const free: Cleaver = { ...cleaver, rules: { cleaves: null } };
    expect(cleaverStanding(free, bookOf([], uses(9000, 1)), hourOf(200)).due).toEqual([]);
  });
});

describe('what wears beside the splices', () => {
  test('every try at a calibration burns its arcs, by the machine’s own number', () => {
    const facts = [event(0, 'arcs-read', 100), calibration(1, false), calibration(1.1)];
    const arcs = (own: Machine) => machineStanding(own, bookOf(facts, uses(4, 2)), hourOf(3)).arcs;
    expect([arcs(machine), arcs({ ...machine, calibrationArcs: 5 })]).toEqual([106, 114]);
    expect(arcs({ ...machine, calibrationArcs: 0 })).toBe(104);
  });

  test('and two ends on the cleaver that made the next splice at that machine, or else the last one', () => {
    const cleaves = (facts: readonly GearFact[], own: readonly GearUse[]) =>
      cleaverStanding(cleaver, bookOf(facts, own), hourOf(9)).cleaves;
    const tries = [calibration(1, false), calibration(1.1)];
    expect(cleaves(tries, [use(2)])).toBe(6);
    expect(cleaves(tries, [use(0.5)])).toBe(6);
    expect(cleaves(tries, [use(0.5), use(2, { cleaver: 'another' })])).toBe(2);
    expect(cleaves(tries, [use(2, { machine: 'another' })])).toBe(2);
    expect(cleaves([...tries, event(1.05, 'blade-turned', undefined, cleaver)], [use(2)])).toBe(4);
  });

  test('ends that were cleaved again count on the position that was on', () => {
    const facts = [
      recleave(1, 12),
      event(2, 'blade-turned', undefined, cleaver),
      recleave(3, 1),
      recleave(4, 24),
    ];
    expect(cleaverStanding(cleaver, bookOf(facts, [use(1), use(5)]), hourOf(9)).cleaves).toBe(27);
  });
});

describe('a run of bad splices', () => {
  const bad = uses(3, 1, { bad: true });
  const correction = (attempt: GearUse, hours: number, is: boolean) => ({
    id: id(30_000 + hours * 10),
    madeAt: hourOf(hours),
    attemptId: attempt.id,
    bad: is,
  });
  const rulesOf = (corrected: readonly ReturnType<typeof correction>[]) =>
    machineStanding(machine, { ...bookOf([calibration(0)], bad), corrected }, hourOf(6)).due.map(
      (due) => due.rule,
    );
  test('is none where one was only typed wrongly, by the last word on it', () => {
    expect(rulesOf([])).toEqual(['badRun']);
    expect(rulesOf([correction(bad[1]!, 2, false)])).toEqual([]);
    expect(rulesOf([correction(bad[1]!, 3, true), correction(bad[1]!, 2, false)])).toEqual(['badRun']);
  });
});

describe('splicing on without it', () => {
  const asks = (facts: readonly GearFact[], own: readonly GearUse[], hours: number) =>
    machineStanding(machine, bookOf(facts, own), hourOf(hours)).asks.map((due) => due.rule);

  test('is not asked again in this session, but stays due', () => {
    const facts = [wentOn(0, 'calibration', ['session'])];
    expect(asks(facts, [use(0.1)], 1)).toEqual([]);
    expect(tripped(facts, [use(0.1)], 1)).toEqual(['session']);
  });
  test('another rule asks again, and so does the next session', () => {
    const facts = [wentOn(0, 'calibration', ['session'])];
    expect(asks(facts, uses(3, 0.1, { bad: true }), 1)).toEqual(['badRun']);
    expect(asks(facts, [use(0.1)], 20)).toEqual(['session']);
  });
  test('what was put right and trips anew asks anew', () => {
    const facts = [wentOn(0, 'calibration', ['badRun']), calibration(1)];
    expect(asks(facts, uses(3, 1.1, { bad: true }), 2)).toEqual(['badRun']);
  });
  test('of the blade says nothing about the calibration', () => {
    const facts = [wentOn(0, 'blade', ['cleaves'], cleaver)];
    expect(asks(facts, [], 0.1)).toEqual(['session']);
    const own = uses(1500, 0.1);
    expect(cleaverStanding(cleaver, bookOf(facts, own), hourOf(26)).asks).toEqual([]);
    expect(cleaverStanding(cleaver, bookOf(facts, own), hourOf(80)).asks).toHaveLength(1);
  });
});

test('counts what was made since, leaves out what was taken back, and other machines', () => {
  const own = [use(-1), use(1), use(2), use(3, { machine: 'another' })];
  const book = {
    ...bookOf([calibration(0), calibration(0.5, false), calibration(0.6, false)], own),
    withdrawn: [own[2]!.id],
  };
  expect(machineStanding(machine, book, hourOf(3.5))).toMatchObject({ splices: 1, arcs: 5, failed: 2 });
});

test('what stands of machine and cleaver follows from what happened, in whatever order it arrived', () => {
  // A calibration and a new blade that a phone brought hours late.
  const facts: GearFact[] = [
    calibration(0),
    weather(1, { temperature: 12 }),
    calibration(2, false),
    wentOn(2.1, 'calibration', ['temperature']),
    event(3, 'electrodes-cleaned'),
    calibration(3.2),
    event(3.5, 'blade-turned', undefined, cleaver),
    event(4, 'arcs-read', 900),
  ];
  const own = uses(40, 0.5, {}).concat(uses(20, 3.6));
  const at = (order: readonly GearFact[], made: readonly GearUse[]) => [
    machineStanding(machine, bookOf(order, made), hourOf(5)),
    cleaverStanding(cleaver, bookOf(order, made), hourOf(5)),
  ];
  fc.assert(
    fc.property(
      fc.shuffledSubarray(facts, { minLength: facts.length }),
      fc.shuffledSubarray(own, { minLength: own.length }),
      (order, made) => expect(at(order, made)).toEqual(at(facts, own)),
    ),
  );
});
