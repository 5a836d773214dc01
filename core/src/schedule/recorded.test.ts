import { attempt, subjectOf } from '../../test/example';
import { nightIds, nights, nightsInput, noa, pair, setup, toDo, u1, u3 } from '../../test/nightsExample';
import { zone } from '../../test/plannedNights';
import { usualPace } from '../prepare/time/estimate';
import { nightsInput as inputOf, type LookedAt } from './inputOf';
import { nightsProblem, type NightsInput } from './problemOf';
import { solvedNights } from './solve';
import { toldPlan } from './told';
import { whyNot } from './why';
import { ruleOf, type NightsSetup } from './setup';

const opens = Date.parse(nights[0]!.opens);
const minute = 60_000;

describe('from what is recorded', () => {
  const { definition } = nightsInput();
  const record = (facts: Parameters<typeof inputOf>[0]['facts'], now: number | null) => ({
    definition: { ...definition, project: { ...definition.project, nights: setup } },
    facts,
    pace: usualPace,
    gear: [],
    now,
  });
  /** The splice of u1 with this number, made so many minutes after the night opened. */
  const spliced = (index: number, at: number, by: string | null, loss: number | null = 0.04) =>
    attempt(0, loss, {
      subject: subjectOf(u1.plan.splices[index]!, u1.closure.id),
      madeAt: new Date(opens + at * minute).toISOString(),
      by,
    });
  const left = (input: NightsInput) =>
    input.toDo.find(({ closure }) => closure.id === u1.closure.id)!.left.singles;

  test('what is spliced is not left, and what is to be done again is', () => {
    const facts = [spliced(0, 60, 'Noa'), spliced(1, 63, 'Noa'), spliced(2, 66, 'Noa', null)];
    expect(left(inputOf(record([], null)))).toBe(48);
    expect(left(inputOf(record(facts, null)))).toBe(46);
  });
  test('a closure is looked at again where something new is recorded of it, and only there', () => {
    const looked: LookedAt = new Map();
    const first = inputOf(record([spliced(0, 60, 'Noa')], null), looked);
    const then = inputOf(record([spliced(0, 60, 'Noa'), spliced(1, 63, 'Noa')], null), looked);
    expect([left(first), left(then)]).toEqual([47, 46]);
    const plans = [first, then].map(({ toDo: all }) => all.map(({ plan }) => plan));
    expect(plans[0]!.map((plan, index) => plan === plans[1]![index])).toEqual([false, true, true]);
  });
  test('begun is where somebody was last at work tonight: not yesterday, and not what lies ahead', () => {
    const at = (hours: number) => opens + hours * 60 * minute;
    const facts = [spliced(0, -1440, 'Iara'), spliced(1, 60, 'Noa'), spliced(2, 240, 'Davi')];
    expect(inputOf(record(facts, null)).begun.size).toBe(0);
    expect([...inputOf(record(facts, at(0.5))).begun]).toEqual([]);
    expect([...inputOf(record(facts, at(2))).begun]).toEqual([[u1.closure.id, ['Noa']]]);
    expect([...inputOf(record(facts, at(5))).begun]).toEqual([[u1.closure.id, ['Davi', 'Noa']]]);
    // In the night after it, it is not begun any more.
    expect(inputOf(record(facts, at(25))).begun.size).toBe(0);
  });
  test('the splices that carry a circuit are counted by what is left of them', () => {
    const named = toDo(1, 'loose', 'A 1-24 > B 1-24 : Clinic\nA 25-48 > B 25-48');
    const closures = definition.closures.map((one) => (one.id === u1.closure.id ? named.closure : one));
    const base = record([spliced(0, 60, 'Noa'), spliced(40, 63, 'Noa')], null);
    const input = inputOf({ ...base, definition: { ...base.definition, closures } });
    const own = input.toDo.find(({ closure }) => closure.id === u1.closure.id)!;
    expect(own.left.singles).toBe(46);
    expect(own.carrying).toMatchObject({ left: { singles: 23 } });
  });
});

describe('what is told', () => {
  const told = (input: NightsInput) => {
    const made = nightsProblem(input);
    return toldPlan(made, solvedNights(made.problem).plan, input.setup, input.toDo, zone);
  };
  const only = (more: Partial<NightsSetup>, now: number | null = null) =>
    told(nightsInput({ toDo: [u1], now, setup: { ...setup, crews: [noa], ...more } }))[0]!;
  const daily = { from: 8 * 60, to: 18 * 60 };

  test('a holding test is read after its wait, in the owner’s hours', () => {
    // Sealed before 05:00 of the 15th: a day later nobody is there until 08:00, which is 11:00 UTC.
    const holding = { wait: 24 * 3600, hours: daily };
    const [stop] = only({ holding }).stops;
    expect(new Date(stop!.holdingFrom!).toISOString()).toBe('2026-04-16T11:00:00.000Z');
    // By day it is read as soon as the wait is over; without hours at any time.
    const day = nights.slice(0, 1).map((night) => ({
      ...night,
      opens: '2026-04-15T11:00:00.000Z',
      closes: '2026-04-15T18:00:00.000Z',
    }));
    const byDay = only({ holding, nights: day }).stops[0]!;
    expect(byDay.holdingFrom).toBe(byDay.ends + 24 * 3_600_000);
    const whenever = only({ holding: { wait: 3600, hours: null } }).stops[0]!;
    expect(whenever.holdingFrom).toBe(whenever.ends + 3_600_000);
    expect(only({ holding: null }).stops[0]!.holdingFrom).toBeNull();
  });
  test('a crew leaves in time to be there when the night opens; in a night that goes on, now', () => {
    // 1 km at 10 m/s.
    expect(only({ speed: 10 }).leaves).toBe(opens - 100_000);
    expect(only({ speed: 10 }, opens + 5 * minute).leaves).toBe(opens + 5 * minute);
    expect(only({ crews: [{ ...noa, startSiteId: null }] }).leaves).toBeNull();
  });
  test('what a closure waits for is named, where that is done later', () => {
    const waits = { ...ruleOf({ rules: [] }, u1.closure.id), afterIds: [u3.closure.id] };
    const last = { ...ruleOf({ rules: [] }, u3.closure.id), onlyNightId: nightIds[1]! };
    const input = nightsInput({ setup: { ...setup, crews: [pair], rules: [waits, last] } });
    const made = nightsProblem(input);
    const job = made.problem.jobs.findIndex(({ closureId }) => closureId === u1.closure.id);
    const other = made.problem.jobs.findIndex(({ closureId }) => closureId === u3.closure.id);
    const because = whyNot(made, solvedNights(made.problem).plan, job, 0).because;
    expect(because).toEqual({ kind: 'waits', job: other });
  });
});
