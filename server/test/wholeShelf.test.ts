import { randomUUID } from 'node:crypto';
import { readdirSync } from 'node:fs';
import sharp from 'sharp';
import { times } from '../../core/test/times';
import { allOf, newProjectOn, type ProblemBody } from './journey';
import { makeAttempt } from './makeProject';
import { dataFolder, postgres, removeFolders, request, startServer, type ServerProcess } from './process';

/** Everything out of a server that works, as one file, and into an empty one that works. */

/** Has the demo, and a project with a photo. */
let first: ServerProcess;
let made: Awaited<ReturnType<typeof newProjectOn>>;
const photo = randomUUID();
beforeAll(async () => {
  first = await startServer(dataFolder('demo'));
  made = await newProjectOn(`${first.url}/api`, 12);
  await made.post(
    made.splices.slice(0, 120).map((splice, index) => makeAttempt(made.closureId, splice, index / 1000)),
  );
  const grain = { type: 'gaussian' as const, mean: 128, sigma: 30 };
  const picture = sharp({
    create: { width: 2000, height: 1500, channels: 3, background: '#888', noise: grain },
  });
  await fetch(`${made.project}/photos/${photo}`, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/octet-stream' },
    body: (await picture.jpeg().toBuffer()) as never,
  });
  const gone = await newProjectOn(`${first.url}/api`);
  await request(gone.project, 'DELETE');
}, 60_000);
const running: ServerProcess[] = [];
async function start(folder: string): Promise<ServerProcess> {
  const server = await startServer(folder);
  running.push(server);
  return server;
}
afterEach(async () => {
  await Promise.all(running.splice(0).map((server) => server.stop()));
});
afterAll(async () => {
  await first.stop();
  removeFolders();
});

const backupOf = async ({ url }: ServerProcess) => {
  const answer = await fetch(`${url}/api/backup`, { method: 'POST' });
  expect(answer.status).toBe(200);
  return Buffer.from(await answer.arrayBuffer());
};
async function restore({ url }: ServerProcess, bytes: Uint8Array, headers: Record<string, string> = {}) {
  const answer = await fetch(`${url}/api/restore`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/octet-stream', ...headers },
    body: bytes as never,
  });
  return {
    status: answer.status,
    body: (await answer.json()) as ProblemBody & { rows: number; projects: number },
  };
}
/** Until nothing of a backup that was being made is left. */
async function cleared(folder: string): Promise<void> {
  while (leftOver(folder).length > 0) await new Promise((go) => setTimeout(go, 10));
}
const leftOver = (folder: string) => readdirSync(folder).filter((name) => name.startsWith('backup-'));

test('a button’s file has everything, photos too, while others record; an empty server that reads it has the same', async () => {
  const all = await allOf(first.url);
  const making = backupOf(first);
  const more = makeAttempt(made.closureId, made.splices[130]!, 0.04);
  const posted = made.post([more]);
  const file = await making;
  expect((await posted).body.accepted).toHaveLength(1);
  await cleared(first.folder);

  const second = await start(dataFolder('empty'));
  const { status, body } = await restore(second, file);
  expect([status, body.projects]).toEqual([201, 3]);
  const there = await allOf(second.url);
  // What came while it was being made is in it, or not.
  const without = (one: typeof all) => ({
    ...one,
    files: one.files.filter((text) => !text.includes(made.closureId)),
  });
  expect(without(there)).toEqual(without(all));
  const moved = made.project.replace(first.url, second.url);
  const pictureAt = async (project: string) =>
    Buffer.from(await (await fetch(`${project}/photos/${photo}`)).arrayBuffer());
  expect((await pictureAt(moved)).equals(await pictureAt(made.project))).toBe(true);
  // It goes on, also after it was started anew.
  await request(`${moved}/facts`, 'POST', {
    facts: [makeAttempt(made.closureId, made.splices[131]!, 0.05)],
  });
  const before = await allOf(second.url);
  running.splice(running.indexOf(second), 1);
  await second.stop();
  expect(await allOf((await start(second.folder)).url)).toEqual(before);
}, 120_000);

test('a backup is read over nothing, and one that is not whole changes nothing', async () => {
  const file = await backupOf(first);
  const before = await allOf(first.url);
  const refused = await restore(first, file);
  expect([refused.status, refused.body.detail]).toEqual([
    409,
    expect.stringMatching(/3 projects, \d pieces of gear.*Nothing was changed/),
  ]);
  expect(await allOf(first.url)).toEqual(before);

  const second = await start(dataFolder('empty'));
  const empty = await allOf(second.url);
  for (const bad of [
    file.subarray(0, file.length - 40),
    Buffer.from(file.map((byte, at) => (at === 3000 ? byte ^ 4 : byte))),
    Buffer.from('{"format":"cordel-project"}'),
    Buffer.alloc(0),
  ]) {
    const { status, body } = await restore(second, bad);
    expect([status, body.detail]).toEqual([409, expect.stringMatching(/This file.*Nothing was changed/)]);
  }
  expect(await allOf(second.url)).toEqual(empty);
  await cleared(second.folder);

  const models = `${second.url}/api/models`;
  const [model] = (await request<{ models: { id: string }[] }>(models)).body.models;
  await request(`${models}/${model!.id}`, 'PUT', { ...model, name: 'Ours' });
  expect((await restore(second, file)).body.detail).toContain('1 closure model');
  expect(JSON.stringify((await request(models)).body)).toContain('"Ours"');
  expect((await restore(second, file.subarray(0, 100), { Origin: 'http://elsewhere.example' })).status).toBe(
    403,
  );
}, 120_000);

test('who goes away before the backup is made, and a server that is killed while it makes one, leave nothing behind', async () => {
  const folder = dataFolder('demo');
  const server = await startServer(folder);
  const away = new AbortController();
  const asked = fetch(`${server.url}/api/backup`, { method: 'POST', signal: away.signal });
  asked.catch(() => undefined);
  while (leftOver(folder).length === 0) await new Promise((go) => setTimeout(go, 2));
  away.abort();
  await cleared(folder);

  fetch(`${server.url}/api/backup`, { method: 'POST' }).catch(() => undefined);
  while (leftOver(folder).length === 0) await new Promise((go) => setTimeout(go, 2));
  await server.kill();
  const again = await start(folder);
  expect((await request<{ shelf: unknown[] }>(`${again.url}/api/projects`)).body.shelf).toHaveLength(1);
  // Servers on PostgreSQL may share the folder: what is a day old is left over.
  if (!postgres) expect(leftOver(folder)).toEqual([]);
}, 120_000);

test.each(Array.from({ length: times(1, 12) }, (_, round) => 120 + 60 * round))(
  'a server that is killed while it reads one in (%i ms) is empty after, and reads it then',
  async (moment) => {
    const file = await backupOf(first);
    const folder = dataFolder('empty');
    const second = await startServer(folder);
    restore(second, file).catch(() => undefined);
    while (leftOver(folder).length === 0) await new Promise((go) => setTimeout(go, 1));
    // Somewhere in the middle of it; what follows holds wherever that is.
    await new Promise((go) => setTimeout(go, moment));
    await second.kill();
    const third = await start(folder);
    const { body } = await request<{ shelf: unknown[] }>(`${third.url}/api/projects`);
    if (body.shelf.length === 0) expect((await restore(third, file)).status).toBe(201);
    expect(await allOf(third.url)).toEqual(await allOf(first.url));
  },
  120_000,
);
