import { id } from '../../test/example';
import { nameOf, nights, nightsInput, noa, setup, u1, u2, u3 } from '../../test/nightsExample';
import { planned, zone } from '../../test/plannedNights';
import { leastChanges, nightsEnough } from './changes';
import { nightsAfter } from './setup';

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
