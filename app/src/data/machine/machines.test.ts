import { linkConformance, NotNow, OwnStandIns, type MachineLink } from '@cordel/core/machine';
import { expose, type Endpoint } from 'comlink';
import { MessageChannel } from 'worker_threads';
import { v4 } from 'uuid';
import { machinesOver, type Machines } from './machines';
import { serveMachines } from './serveMachines';

/** Machines in a page's worker, over the messages that page and worker exchange. */

const timers = {
  now: () => Date.now(),
  after: (ms: number, work: () => void) => {
    const timer = setTimeout(work, ms);
    return () => clearTimeout(timer);
  },
};
const away = async () => Promise.reject(new Error('The server does not answer.'));
const noServer = {
  link: { discover: away, status: away, log: away } as unknown as MachineLink,
  command: async () => Promise.reject(new NotNow('It does not wait before an arc.')),
  renew: away,
};

let ports: MessageChannel[] = [];
let own: OwnStandIns;
let machines: Machines;
beforeEach(() => {
  // What the page has of its own, and this environment has not.
  globalThis.MessageChannel = class extends MessageChannel {
    constructor() {
      super();
      ports.push(this);
    }
  } as never;
  const channel = new globalThis.MessageChannel();
  own = new OwnStandIns(timers, v4, () => 5);
  expose(serveMachines(own, noServer), channel.port1 as unknown as Endpoint);
  machines = machinesOver(channel.port2 as unknown as Endpoint);
});
afterEach(() => {
  own.stop();
  ports.forEach(({ port1 }) => port1.close());
  ports = [];
});

const moment = () => new Promise<void>((go) => setTimeout(go, 2));
const pair = { left: { key: 'a', modeField: 9.2 }, right: { key: 'b', modeField: 9.2 } };

test('keep every rule of a link, and are there with no network', async () => {
  const [first] = await machines.discover();
  expect(first).toMatchObject({ where: 'page', simulated: true });
  const machineId = await machines.renew(first!.id, {
    seed: 5,
    faults: {},
    speed: 1000,
    pausesBeforeArc: false,
  });
  const makeSplice = async () => {
    expect(await machines.command(machineId, { do: 'load', splice: 's', fibers: [pair] })).toBeNull();
    while ((await machines.status(machineId)).state !== 'done') await moment();
    await machines.command(machineId, { do: 'take-out' });
  };
  const newSignal = () => {
    const controller = new AbortController();
    return { signal: controller.signal, abort: () => controller.abort() };
  };
  // Where a machine is reached is the page's own word.
  const discover = async () => (await machines.discover()).map(({ where: _, ...one }) => one);
  expect(
    await linkConformance({ link: { ...machines, discover }, machineId, makeSplice, moment, newSignal }),
  ).toEqual([]);
});

test('what cannot be done now is told in words, here and by the server', async () => {
  const [first] = await machines.discover();
  expect(await machines.command(first!.id, { do: 'fuse' })).toBe('It does not wait before an arc.');
  expect(await machines.command(v4(), { do: 'fuse' })).toBe('It does not wait before an arc.');
  await expect(machines.status(v4())).rejects.toThrow('The server does not answer.');
});
