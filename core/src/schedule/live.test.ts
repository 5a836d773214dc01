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
import { planned } from '../../test/plannedNights';
import { carriesCircuit } from '../plan/opened/openedUnits';
import { helpsFor } from './helps';
import { openOrStop } from './live';
import { nightsProblem, type NightsInput } from './problemOf';
import type { ClosureToDo } from './closureToDo';

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
