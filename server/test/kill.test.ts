import { times } from '../../core/test/times';
import { makeAttempt, makeProject } from './makeProject';
import { once } from 'node:events';
import { watch } from 'node:fs/promises';
import {
  bareFolder,
  dataFolder,
  everyFact,
  onlyEmbedded,
  removeFolders,
  request,
  spawnServer,
  startServer,
} from './process';

afterAll(removeFolders);

test('kill -9 in the middle of writing loses no acknowledged attempt and doubles none', async () => {
  const folder = dataFolder('empty');
  const { definition, closureId, splices } = makeProject(72);
  const rounds = times(2, 20);
  const acknowledged = new Set<string>();
  const sent = new Set<string>();

  for (let round = 0; round < rounds; round += 1) {
    const server = await startServer(folder);
    const project = `${server.url}/api/projects/${definition.project.id}`;
    if (round === 0) await request(`${server.url}/api/projects`, 'POST', definition);
    const killAfter = acknowledged.size + 60;
    let dead: Promise<void> | null = null;

    const client = async (first: number) => {
      for (let index = first; !dead; index = (index + 8) % splices.length) {
        const fact = makeAttempt(closureId, splices[index]!, 0.03);
        sent.add(fact.id);
        try {
          const { status } = await request(`${project}/facts`, 'POST', { facts: [fact] });
          if (status === 200) acknowledged.add(fact.id);
        } catch {
          return; // The server is gone; this attempt was not acknowledged.
        }
        if (acknowledged.size >= killAfter) dead ??= server.kill();
      }
    };
    await Promise.all(Array.from({ length: 8 }, (_, index) => client(index)));
    await dead;
  }

  const server = await startServer(folder);
  const stored = (
    await everyFact(`${server.url}/api/projects/${definition.project.id}/closures/${closureId}/facts`)
  ).map((fact) => fact.id);
  await server.stop();
  expect(new Set(stored).size).toBe(stored.length);
  expect(acknowledged.size).toBeGreaterThanOrEqual(60 * rounds);
  expect([...acknowledged].filter((id) => !stored.includes(id))).toEqual([]);
  expect(stored.filter((id) => !sent.has(id))).toEqual([]);
}, 600_000);

onlyEmbedded('a first start', () => {
  test('that is killed while the database is being made is made good by the next one', async () => {
    const folder = bareFolder();
    const first = spawnServer(folder);
    const ended = once(first, 'close');
    for await (const { filename } of watch(folder)) if (filename === 'database.making') break;
    first.kill('SIGKILL');
    await ended;
    const second = await startServer(folder);
    expect((await request(`${second.url}/api/projects`)).body).toEqual({ shelf: [], deleted: [] });
    await second.stop();
  }, 120_000);
});
