import { machine } from '../../test/gear';
import type { LogRow, MachineEvent, MachineLink, Stop } from './link';
import { linkConformance } from './linkConformance';
import { clockAt, RunningStandIn, StandInLink, type Timers } from './running';
import { StandIn } from './standIn';

// The core knows no surroundings; its tests run in Node.js.
declare function setTimeout(work: () => void, ms: number): unknown;
declare function clearTimeout(timer: unknown): void;
declare class AbortController {
  readonly signal: Stop;
  abort(): void;
}

const machineId = '01900000-0000-7000-8000-000000000701';
const timers: Timers = {
  now: () => Date.now(),
  after(ms, work) {
    const timer = setTimeout(work, ms);
    return () => clearTimeout(timer);
  },
};
const moment = () => new Promise<void>((go) => setTimeout(go, 1));
const newSignal = () => {
  const controller = new AbortController();
  return { signal: controller.signal, abort: () => controller.abort() };
};
const pair = { left: { key: 'a', modeField: 9.2 }, right: { key: 'b', modeField: 9.2 } };

function linked(speed: number) {
  const standIn = new StandIn({ seed: 3, gear: machine, aligns: 'cores', pausesBeforeArc: false });
  const running = new RunningStandIn(standIn, clockAt(speed, timers));
  const link = new StandInLink(new Map([[machineId, { name: 'Stand-in', running }]]));
  const makeSplice = async () => {
    running.command({ do: 'load', splice: 's', fibers: [pair] });
    while (running.status().state !== 'done') await moment();
    running.command({ do: 'take-out' });
  };
  return { link, running, makeSplice };
}

test('the stand-in keeps every rule of a link', async () => {
  const { link, running, makeSplice } = linked(500);
  expect(await linkConformance({ link, machineId, makeSplice, moment, newSignal })).toEqual([]);
  running.stop();
});

describe('the rules are told when an adapter', () => {
  const wrong: readonly (readonly [string, (link: MachineLink) => Partial<MachineLink>, RegExp])[] = [
    [
      'loses an event',
      (link) => ({
        async *events(...given) {
          for await (const event of link.events(...given)) if (event.number % 5 !== 0) yield event;
        },
      }),
      /without a hole/,
    ],
    [
      'gives losses in hundredths',
      (link) => ({
        async *events(...given) {
          for await (const event of link.events(...given))
            yield (
              event.kind === 'result'
                ? {
                    ...event,
                    fibers: event.fibers.map((fiber) => ({ ...fiber, loss: 1000 * fiber.loss! + 100 })),
                  }
                : event
            ) as MachineEvent;
        },
      }),
      /by the schema/,
    ],
    ['forgets its memory', () => ({ log: async () => [] as LogRow[] }), /the memory has the splice/],
    [
      'gives the whole memory each time',
      (link) => ({ log: (id) => link.log(id, 0) }),
      /nothing before the number/,
    ],
    ['knows every machine', (link) => ({ status: () => link.status(machineId) }), /refused with words/],
    [
      'tells only what happens from now on',
      (link) => ({
        async *events(id, after, signal) {
          const { last } = await link.status(id);
          // The one that is awaited to end the test comes all the same.
          yield* link.events(id, Math.max(after, last - 1), signal);
        },
      }),
      /what was missed/,
    ],
  ];
  test.each(wrong)('%s', async (_, spoil, rule) => {
    const { link, running, makeSplice } = linked(500);
    // Something is in its memory already.
    await makeSplice();
    const spoilt: MachineLink = {
      discover: () => link.discover(),
      status: (id) => link.status(id),
      events: (...given) => link.events(...given),
      log: (...given) => link.log(...given),
      ...spoil(link),
    };
    const broken = await linkConformance({ link: spoilt, machineId, makeSplice, moment, newSignal });
    expect(broken.join('; ')).toMatch(rule);
    running.stop();
  });
});

test('a clock ten times as fast has a splice of seven seconds done in seven tenths', async () => {
  const { running } = linked(10);
  const began = Date.now();
  running.command({ do: 'load', splice: 's', fibers: [pair] });
  const done = new Promise<void>((go) =>
    running.subscribe((events) => events.some((one) => one.kind === 'state' && one.state === 'done') && go()),
  );
  await done;
  const [first, last] = [running.eventsAfter(0)![0]!, running.eventsAfter(0)!.at(-1)!];
  // By its own clock exactly, whatever the timers did.
  expect(Date.parse(last.at) - Date.parse(first.at)).toBe(7000);
  expect(Date.now() - began).toBeGreaterThanOrEqual(690);
  running.stop();
});
