import { randomUUID } from 'node:crypto';
import { newProjectOn } from './journey';
import { makeAttempt } from './makeProject';
import {
  databaseUrlOf,
  dataFolder,
  everyFact,
  psql,
  removeFolders,
  request,
  startServer,
  type ServerProcess,
} from './process';

/** Several servers on one PostgreSQL database, as behind one address. */

describe('two servers on one database', () => {
  let servers: ServerProcess[];
  beforeAll(async () => {
    const folder = dataFolder('empty');
    servers = await Promise.all([startServer(folder), startServer(folder)]);
  }, 60_000);
  afterAll(async () => {
    await Promise.all(servers.map((server) => server.stop()));
    removeFolders();
  });
  const api = (index: number) => `${servers[index % 2]!.url}/api`;

  test('give out numbers without holes: a reader who asks for what is new never misses one, whoever wrote it', async () => {
    const { closureId, splices, definition } = await newProjectOn(api(0), 30);
    const facts = splices.slice(0, 320).map((splice) => makeAttempt(closureId, splice, 0.03));
    const path = (index: number) => `${api(index)}/projects/${definition.project.id}/facts`;
    let writing = true;
    const writers = Promise.all(
      Array.from({ length: 16 }, async (_, client) => {
        for (let index = client; index < facts.length; index += 16)
          await request(path(index), 'POST', { facts: [facts[index]] });
      }),
    ).then(() => (writing = false));
    const seen: string[] = [];
    for (let after = 0, round = 0, all = false; !all; round += 1) {
      // Known before it is asked: what is written while a page is on its way is in the next one.
      const written = !writing;
      const { body } = await request<{ facts: { id: string }[]; last: number }>(
        `${path(round)}?after=${after}`,
      );
      // A number for each: no hole that somebody could fill later.
      expect(body.last).toBe(after + body.facts.length);
      after = body.last;
      seen.push(...body.facts.map((fact) => fact.id));
      all = written && body.facts.length === 0;
    }
    await writers;
    expect(new Set(seen)).toEqual(new Set(facts.map((fact) => fact.id)));
    expect(seen).toHaveLength(facts.length);
  }, 60_000);

  test('store a fact once that is sent to both at the same moment', async () => {
    const { closureId, splices, definition } = await newProjectOn(api(0));
    const path = (index: number) => `${api(index)}/projects/${definition.project.id}/facts`;
    const fact = makeAttempt(closureId, splices[0]!, 0.03);
    const answers = await Promise.all(
      Array.from({ length: 20 }, (_, index) =>
        request<{ accepted: { seq: number }[] }>(path(index), 'POST', { facts: [fact] }),
      ),
    );
    expect(answers.map(({ body }) => body.accepted[0]?.seq)).toEqual(answers.map(() => 1));
    expect(await everyFact(path(1))).toHaveLength(1);
  });

  test('of two edits of the same version that meet, one is stored and the other told', async () => {
    const { definition, closureId } = await newProjectOn(api(0));
    const id = definition.project.id;
    const closure = definition.closures[0]!;
    const answers = await Promise.all(
      [0, 1].map((index) =>
        request<{ current?: { version: number } }>(
          `${api(index)}/projects/${id}/closures/${closureId}`,
          'PUT',
          { ...closure, spareSlots: index },
        ),
      ),
    );
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 409]);
    expect(answers.find(({ status }) => status === 409)!.body.current!.version).toBe(2);
  });

  test('count what the other stored', async () => {
    const { definition, closureId, splices } = await newProjectOn(api(0));
    const settled = async (index: number) =>
      (
        await request<{ progress: { rollUp: { settled: number } }[] }>(
          `${api(index)}/projects/${definition.project.id}/progress`,
        )
      ).body.progress[0]!.rollUp.settled;
    expect(await settled(1)).toBe(0);
    await request(`${api(0)}/projects/${definition.project.id}/facts`, 'POST', {
      facts: [makeAttempt(closureId, splices[0]!, 0.03)],
    });
    expect([await settled(0), await settled(1)]).toEqual([1, 1]);
  });

  test('see who stands where, whichever of them was told', async () => {
    const { definition, closureId, splices } = await newProjectOn(api(0));
    const here = (index: number, device: string) =>
      request<{ others: { device: string }[] }>(
        `${api(index)}/projects/${definition.project.id}/closures/${closureId}/here`,
        'POST',
        { device, by: null, spliceId: splices[0]!.id },
      );
    const [one, two] = [randomUUID(), randomUUID()];
    await here(0, one);
    // The word travels through the database; it is asked for until it is there.
    let others: string[] = [];
    while (others.length === 0) others = (await here(1, two)).body.others.map((other) => other.device);
    expect(others).toEqual([one]);
  }, 20_000);

  test('give the gear’s book without a gap to a reader who goes from one to the other', async () => {
    const { definition, closureId, splices } = await newProjectOn(api(0), 10);
    const gear = { machine: { id: randomUUID(), label: 'Shared' } };
    const facts = splices.slice(0, 100).map((splice) => makeAttempt(closureId, splice, 0.03, { gear }));
    let writing = true;
    const writers = Promise.all(
      facts.map((fact, index) =>
        request(`${api(index)}/projects/${definition.project.id}/facts`, 'POST', { facts: [fact] }),
      ),
    ).then(() => (writing = false));
    const seen = new Set<string>();
    for (let after = '', round = 0; writing || seen.size < facts.length; round += 1) {
      const { body } = await request<{ book: { uses: { id: string; machine: string }[] }; last: string }>(
        `${api(round)}/gear/book?after=${after}`,
      );
      for (const use of body.book.uses) if (use.machine === gear.machine.id) seen.add(use.id);
      ({ last: after } = body);
    }
    await writers;
    expect(seen.size).toBe(facts.length);
  }, 30_000);
});

test('to store a fact does not take longer the more there are: those that are there are asked by an index', async () => {
  const folder = dataFolder('empty');
  const server = await startServer(folder);
  const { closureId, splices, definition } = await newProjectOn(`${server.url}/api`, 30);
  for (let round = 0; round < 20; round += 1)
    await request(`${server.url}/api/projects/${definition.project.id}/facts`, 'POST', {
      facts: splices.slice(0, 50).map((splice) => makeAttempt(closureId, splice, 0.03)),
    });
  await server.stop();
  // PostgreSQL counts what a connection read when it ends.
  const counted = () =>
    psql(
      databaseUrlOf(folder),
      "select n_tup_ins, seq_tup_read from pg_stat_user_tables where relname = 'fact'",
    )
      .trim()
      .split('|')
      .map(Number) as [number, number];
  while (counted()[0] < 1000);
  expect(counted()[1]).toBeLessThan(1000);
}, 30_000);
