import { linkConformance, type MachineEvent, type StandInCommand } from '@cordel/core/machine';
import { randomUUID } from 'node:crypto';
import { LinkLost, serverLink } from '../app/src/data/machine/serverLink';
import type { ProblemBody } from '../server/test/journey';
import { dataFolder, removeFolders, request, startServer, type ServerProcess } from '../server/test/process';

/** Simulated splicing machines over real HTTP and server-sent events. */

let server: ServerProcess;
let api: string;
beforeAll(async () => {
  server = await startServer(dataFolder('empty'));
  api = `${server.url}/api`;
}, 60_000);
afterAll(async () => {
  await server.stop();
  removeFolders();
  expect(server.output()).not.toContain('request failed');
});

const moment = () => new Promise<void>((go) => setTimeout(go, 5));
const newSignal = () => {
  const controller = new AbortController();
  return { signal: controller.signal, abort: () => controller.abort() };
};
const pair = { left: { key: 'a', modeField: 9.2 }, right: { key: 'b', modeField: 9.2 } };

async function machineOf(device: string, settings: object = {}) {
  const link = serverLink(api, device);
  let machineId = (await link.discover())[0]!.id;
  const post = async (path: string, body: object) => {
    const answer = await fetch(`${api}/machines/${machineId}/${path}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', 'Cordel-Device': device },
      body: JSON.stringify(body),
    });
    return { status: answer.status, body: (await answer.json()) as ProblemBody & { machineId: string } };
  };
  const settled = { seed: 5, speed: 200, pausesBeforeArc: false, ...settings };
  machineId = (await post('renew', settled)).body.machineId;
  const command = (what: StandInCommand) => post('commands', what);
  const makeSplice = async () => {
    await command({ do: 'load', splice: 's', fibers: [pair] });
    while ((await link.status(machineId)).state !== 'done') await moment();
    await command({ do: 'take-out' });
  };
  return { link, machineId, command, post, makeSplice };
}

test('the link over server-sent events keeps every rule', async () => {
  const { link, machineId, makeSplice } = await machineOf(randomUUID());
  expect(await linkConformance({ link, machineId, makeSplice, moment, newSignal })).toEqual([]);
});

test('each device has machines of its own, the same seed gives the same splice, and what cannot be done is told', async () => {
  const [one, two] = [await machineOf(randomUUID()), await machineOf(randomUUID())];
  expect(one.machineId).not.toBe(two.machineId);
  await one.makeSplice();
  expect(await two.link.log(two.machineId, 0)).toEqual([]);
  await two.makeSplice();
  const [[first], [second]] = [await one.link.log(one.machineId, 0), await two.link.log(two.machineId, 0)];
  expect(second!.fibers).toEqual(first!.fibers);
  expect((await one.command({ do: 'fuse' })).body.detail).toBe('It does not wait before an arc.');
  expect((await one.command({ do: 'fuse' })).status).toBe(409);
  expect((await one.post('commands', { do: 'explode' })).status).toBe(400);
  await expect(one.link.status(two.machineId)).rejects.toThrow('no machine of that identifier');
  expect((await request<ProblemBody>(`${api}/machines`)).body.detail).toContain('Cordel-Device');
});

test('a machine that was put in the place of another is another one: nothing that was heard before is taken for its own', async () => {
  const { link, machineId, makeSplice, post } = await machineOf(randomUUID(), { speed: 1000 });
  await makeSplice();
  const { body } = await post('renew', { seed: 6, speed: 1000 });
  expect((await link.discover()).map(({ id }) => id)).toContain(body.machineId);
  expect((await link.status(body.machineId)).last).toBe(0);
  await expect(link.status(machineId)).rejects.toThrow('no machine of that identifier');
});

test('a server that ends tells its listeners at once, and a dropped link is said in words', async () => {
  const own = await startServer(dataFolder('empty'));
  const device = randomUUID();
  const link = serverLink(`${own.url}/api`, device);
  const [machine] = await link.discover();
  const heard: MachineEvent[] = [];
  const { signal } = newSignal();
  const listening = (async () => {
    for await (const event of link.events(machine!.id, 0, signal)) heard.push(event);
  })();
  const dropped = expect(listening).rejects.toThrow(LinkLost);
  await fetch(`${own.url}/api/machines/${machine!.id}/commands`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', 'Cordel-Device': device },
    body: JSON.stringify({ do: 'load', splice: 's', fibers: [pair] }),
  });
  while (heard.length === 0) await moment();
  const began = Date.now();
  expect(await own.stop()).toBe(0);
  // It does not wait for a page that listens until its patience is over (7 s).
  expect(Date.now() - began).toBeLessThan(5000);
  await dropped;
}, 60_000);
