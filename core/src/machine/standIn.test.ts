import fc from 'fast-check';
import { machine } from '../../test/gear';
import type { FiberPair } from './joints';
import { logRowSchema, machineEventSchema, machineStatusSchema, type MachineEvent } from './link';
import type { StandInCommand } from './command';
import { NotNow, StandIn, type StandInOptions } from './standIn';
import { newWear } from './wear';

const pairs = (count: number): FiberPair[] =>
  Array.from({ length: count }, (_, index) => ({
    left: { key: `a ${index}`, modeField: 9.2 },
    right: { key: `b ${index}`, modeField: 9.2 },
  }));
const start = Date.UTC(2026, 3, 15, 1);
const made = (more: Partial<StandInOptions> = {}) =>
  new StandIn({ seed: 5, gear: machine, aligns: 'grooves', ...more });
const load = (splice = 's', count = 12): StandInCommand => ({ do: 'load', splice, fibers: pairs(count) });
const kinds = (events: readonly MachineEvent[]) =>
  events.map((event) => (event.kind === 'state' ? event.state : event.kind));
const inSeconds = (events: readonly MachineEvent[]) =>
  events.map(({ at }) => (Date.parse(at) - start) / 1000);

test('a ribbon goes its way: seen, a pause, the arc, its estimate, the proof test, taken out', () => {
  const one = made();
  const began = [...one.command(load(), start), ...one.advance(start + 60_000)];
  expect(kinds(began)).toEqual(['gap-set', 'before', 'pause']);
  expect(inSeconds(began)).toEqual([0, 5, 5]);
  const fused = [...one.command({ do: 'fuse' }, start + 60_000), ...one.advance(start + 120_000)];
  expect(kinds(fused)).toEqual(['arc', 'estimate', 'proof-test', 'result', 'done']);
  expect(inSeconds(fused)).toEqual([60, 63, 64.5, 65.5, 65.5]);
  expect(kinds(one.command({ do: 'take-out' }, start + 121_000))).toEqual(['ready']);
  const result = fused.find((event) => event.kind === 'result')!;
  const before = began.find((event) => event.kind === 'before')!;
  expect(result.fibers.map(({ loss: _, ...seen }) => seen)).toEqual(before.fibers);
  const { kind: _kind, number: _number, ...row } = result;
  expect(one.log(0)).toEqual([row]);
  expect(one.log(1)).toEqual([]);
  expect(one.lastTruth).toHaveLength(12);
  expect(one.status()).toEqual({
    state: 'ready',
    program: 'Single mode',
    heater: '60 mm',
    arcs: 1,
    conditions: { temperature: 20, humidity: 50, pressure: 101.325 },
    last: 9,
  });
});

test('without a pause it fuses by itself; one fiber is quicker, and a machine that looks for cores takes no ribbon', () => {
  const one = made({ aligns: 'cores', pausesBeforeArc: false });
  expect(() => one.command(load('s', 12), start)).toThrow('one fiber at a time');
  const all = [...one.command(load('s', 1), start), ...one.advance(start + 60_000)];
  expect(kinds(all)).toEqual(['gap-set', 'before', 'arc', 'estimate', 'proof-test', 'result', 'done']);
  expect(inSeconds(all).at(-1)).toBe(7);
});

test('cleaved again on one side, that side’s angles are new and the other’s stay; laid in again, both stay and the rest is new', () => {
  const one = made();
  const seen = (command: StandInCommand, at: number) => {
    one.command(command, start + at * 1000);
    const events = one.advance(start + (at + 30) * 1000);
    const before = events.find((event) => event.kind === 'before')!;
    return before.fibers;
  };
  const first = seen(load(), 0);
  const again = seen({ do: 'recleave', side: 'left' }, 60);
  expect(again.map(({ cleaveRight }) => cleaveRight)).toEqual(first.map(({ cleaveRight }) => cleaveRight));
  expect(again.map(({ cleaveLeft }) => cleaveLeft)).not.toEqual(first.map(({ cleaveLeft }) => cleaveLeft));
  const laid = seen({ do: 'reseat' }, 120);
  expect(laid.map(({ cleaveLeft, cleaveRight }) => [cleaveLeft, cleaveRight])).toEqual(
    again.map(({ cleaveLeft, cleaveRight }) => [cleaveLeft, cleaveRight]),
  );
  expect(laid.map(({ offset }) => offset)).not.toEqual(again.map(({ offset }) => offset));
});

test('the heater takes its program’s seconds and as many sleeves as it has places for; a splice goes on beside it', () => {
  const one = made();
  one.command({ do: 'set', heater: 'Ribbon' }, start);
  expect(kinds(one.command({ do: 'heat' }, start))).toEqual(['heater']);
  expect(() => one.command({ do: 'heat' }, start + 1000)).toThrow('in use');
  one.command(load(), start + 2000);
  const events = one.advance(start + 60_000);
  expect(events.find((event) => event.kind === 'heater')).toMatchObject({
    did: 'ended',
    program: 'Ribbon',
    at: new Date(start + 40_000).toISOString(),
  });
  expect(() => one.command({ do: 'set', heater: 'Other' }, start)).toThrow(NotNow);
});

test('calibrations of new electrodes nearly always pass and reset the arc; those of old ones often fail', () => {
  const passed = (arcs: number) => {
    const one = made({ wear: { ...newWear, electrodeArcs: arcs } });
    let count = 0;
    for (let n = 0; n < 200; n += 1) {
      one.command({ do: 'calibrate' }, start + n * 60_000);
      const [event] = one.advance(start + n * 60_000 + 30_000).filter(({ kind }) => kind === 'calibration');
      if (event?.kind === 'calibration' && event.passed) count += 1;
    }
    return count;
  };
  expect(passed(0)).toBeGreaterThan(185);
  expect(passed(7000)).toBeLessThan(140);
});

test('who was away hears what was missed, or is told that it is forgotten', () => {
  const one = made({ pausesBeforeArc: false });
  for (let n = 0; n < 300; n += 1) {
    one.command(load(`s ${n}`), start + n * 60_000);
    one.advance(start + n * 60_000 + 30_000);
    one.command({ do: 'take-out' }, start + n * 60_000 + 40_000);
  }
  const { last } = one.status();
  expect(one.eventsAfter(last - 3)!.map(({ number }) => number)).toEqual([last - 2, last - 1, last]);
  expect(one.eventsAfter(last)).toEqual([]);
  expect(one.eventsAfter(0)).toBeNull();
});

const commands: fc.Arbitrary<StandInCommand> = fc.oneof(
  fc.nat(3).map((n) => load(`s ${n}`, 4)),
  fc.constantFrom<StandInCommand>(
    { do: 'fuse' },
    { do: 'fuse' },
    { do: 'take-out' },
    { do: 'reseat' },
    { do: 'recleave', side: 'left' },
    { do: 'recleave', side: 'both' },
    { do: 'calibrate' },
    { do: 'heat' },
    { do: 'set', program: 'Multimode' },
    { do: 'replace-electrodes' },
  ),
);
const night = fc.array(fc.tuple(commands, fc.integer({ min: 0, max: 20_000 })), { maxLength: 40 });

/** Every command that can be done, at its time; in between the clock is looked at as often as `looks` says. */
function play(list: readonly (readonly [StandInCommand, number])[], looks: number) {
  const one = made({ faults: { dust: 0.1 } });
  const told: MachineEvent[] = [];
  let now = start;
  for (const [command, after] of list) {
    for (let look = 1; look <= looks; look += 1)
      told.push(...one.advance(now + Math.floor((after * look) / looks)));
    now += after;
    const before = JSON.stringify([one.status(), one.log(0)]);
    try {
      told.push(...one.command(command, now));
    } catch (error) {
      if (!(error instanceof NotNow)) throw error;
      told.push(...one.eventsAfter(told.at(-1)?.number ?? 0)!);
      // Nothing but what came by itself until then.
      if (looks > 0) expect(JSON.stringify([one.status(), one.log(0)])).toBe(before);
    }
  }
  told.push(...one.advance(now + 600_000));
  return { told, one };
}

test('law: however often the clock is looked at, the same commands at the same times give the same night, to the last digit', () => {
  fc.assert(
    fc.property(night, fc.integer({ min: 1, max: 7 }), (list, looks) => {
      expect(play(list, looks).told).toEqual(play(list, 0).told);
    }),
    { numRuns: 60 },
  );
});

test('law: events are numbered without a hole, their times never go back, each is by the schema, and every result follows what was seen before', () => {
  fc.assert(
    fc.property(night, (list) => {
      const { told, one } = play(list, 1);
      told.forEach((event, index) => {
        machineEventSchema.parse(event);
        expect(event.number).toBe(index + 1);
        if (index > 0) expect(event.at >= told[index - 1]!.at).toBe(true);
      });
      machineStatusSchema.parse(one.status());
      one.log(0).forEach((row) => logRowSchema.parse(row));
      let seen = 0;
      for (const { kind } of told) {
        if (kind === 'before') seen = 1;
        if (kind === 'result') expect((seen -= 1)).toBe(0);
      }
    }),
    { numRuns: 60 },
  );
});
