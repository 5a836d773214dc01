import type { Attempt, Fact, Project, ProjectDefinition } from '@cordel/core';
import { randomUUID } from 'node:crypto';
import { request as rawRequest } from 'node:http';
import { newProjectOn, oneServer, type ProblemBody, type Receipt } from './journey';
import { makeAttempt, makeProject } from './makeProject';
import { request } from './process';

/** Projects and facts, over real HTTP. */

let api: string;

oneServer((_, address) => {
  api = address;
});

const newProject = () => newProjectOn(api);

describe('projects', () => {
  test('are made, listed with their progress, read back the same, and deleted', async () => {
    const { definition, project, splices, closureId } = await newProject();
    await request(`${project}/facts`, 'POST', { facts: [makeAttempt(closureId, splices[0]!, 0.03)] });
    expect((await request<ProjectDefinition>(project)).body).toEqual({
      ...definition,
      sites: expect.arrayContaining(definition.sites),
      cables: expect.arrayContaining(definition.cables),
    });
    const { body } = await request<{ shelf: { project: { id: string }; progress: { rollUp: object }[] }[] }>(
      `${api}/projects`,
    );
    const entry = body.shelf.find((one) => one.project.id === definition.project.id)!;
    expect(entry.progress[0]!.rollUp).toMatchObject({ count: 24, settled: 1, mean: 0.03 });
    expect((await request(project, 'DELETE')).status).toBe(204);
    expect((await request(project)).status).toBe(404);
    expect((await request(project, 'DELETE')).status).toBe(404);
  });

  test('are put back with every reading after they were deleted, and never lose their records under the same one taken in anew', async () => {
    const { definition, project, splices, closureId, factsUrl } = await newProject();
    const attempt = makeAttempt(closureId, splices[0]!, 0.03);
    await request(`${project}/facts`, 'POST', { facts: [attempt] });
    const document = (await request<object>(`${project}/project.json`)).body;
    expect((await request(`${project}/restore`, 'POST')).status).toBe(404);
    await request(project, 'DELETE');
    const { body } = await request<{ shelf: { project: object }[]; deleted: { id: string }[] }>(
      `${api}/projects`,
    );
    expect(body.deleted.map((one) => one.id)).toContain(definition.project.id);
    // A phone that was offline while the project was deleted still brings its readings.
    const late = makeAttempt(closureId, splices[1]!, 0.04);
    expect(
      (await request<Receipt>(`${project}/facts`, 'POST', { facts: [late] })).body.accepted,
    ).toHaveLength(1);
    expect((await request(`${project}/restore`, 'POST')).status).toBe(204);
    expect((await request<{ facts: Fact[] }>(factsUrl)).body.facts).toEqual([attempt, late]);

    await request(project, 'DELETE');
    for (const again of [
      await request<ProblemBody>(`${api}/import`, 'POST', document),
      await request<ProblemBody>(`${api}/projects`, 'POST', definition),
    ])
      expect([again.status, again.body.detail]).toEqual([
        409,
        expect.stringContaining('was deleted here, and its records are still kept'),
      ]);
    expect((await request(`${project}/restore`, 'POST')).status).toBe(204);
    expect((await request<{ facts: Fact[] }>(factsUrl)).body.facts).toEqual([attempt, late]);
  });

  test('an attempt with more readings than its splice has fibers is refused', async () => {
    const { project, splices, closureId } = await newProject();
    const attempt = makeAttempt(closureId, splices[0]!, 0.03);
    const { readings } = attempt.body;
    const twice = { ...attempt, body: { ...attempt.body, readings: [...readings, ...readings] } };
    const { body } = await request<Receipt>(`${project}/facts`, 'POST', { facts: [twice] });
    expect(body.refused).toMatchObject([{ id: attempt.id, path: 'body.readings' }]);
  });

  test('are refused whole when an identifier is taken', async () => {
    const { definition } = await newProject();
    const other = makeProject().definition;
    const taken = { ...definition.cables[0]!, siteIds: other.cables[0]!.siteIds };
    const clash = { ...other, cables: [...other.cables, taken] };
    const { status, body } = await request<ProblemBody>(`${api}/projects`, 'POST', clash);
    expect(status).toBe(409);
    expect(body.detail).toContain('Nothing was changed');
    expect((await request(`${api}/projects/${other.project.id}`)).status).toBe(404);
  });

  test('are refused with field and reason when they are not valid', async () => {
    const { definition } = makeProject();
    const bad = {
      ...definition,
      sites: [{ ...definition.sites[0]!, chainage: -5 }, ...definition.sites.slice(1)],
    };
    const { status, body, headers } = await request<ProblemBody>(`${api}/projects`, 'POST', bad);
    expect(status).toBe(400);
    expect(headers.get('Content-Type')).toBe('application/problem+json');
    expect(body.errors![0]).toEqual({
      path: 'sites.0.chainage',
      message: 'Distance along the route starts at 0.',
    });
    const loose = { ...definition, closures: [{ ...definition.closures[0]!, siteId: randomUUID() }] };
    expect((await request<ProblemBody>(`${api}/projects`, 'POST', loose)).body.detail).toContain(
      'closures.0.siteId',
    );
  });

  test('settings are saved once; a stale write gets 409 and the newer copy', async () => {
    const { definition, project } = await newProject();
    const { id: _, lineVersion: __, ...settings } = definition.project;
    const looser = { ...settings, limits: { ...settings.limits, singleMax: 0.2 } };
    const saved = await request<{ project: { version: number } }>(`${project}/settings`, 'PUT', looser);
    expect(saved.body.project).toMatchObject({ version: 2, limits: { singleMax: 0.2 } });
    const late = await request<ProblemBody>(`${project}/settings`, 'PUT', settings);
    expect(late.status).toBe(409);
    expect(late.body.current).toMatchObject({ version: 2 });
  });

  test('a time zone is kept; a page that knows of none leaves it; one that is none is refused, like a window turned round', async () => {
    const { definition, project } = await newProject();
    const { id: _, lineVersion: __, ...settings } = definition.project;
    const put = (more: object) =>
      request<ProblemBody & { project: Project }>(`${project}/settings`, 'PUT', { ...settings, ...more });
    const stored = async () => (await request<ProjectDefinition>(project)).body.project;

    expect((await put({ timeZone: 'America/Sao_Paulo' })).status).toBe(200);
    expect(await stored()).toMatchObject({ version: 2, timeZone: 'America/Sao_Paulo' });
    expect((await put({ version: 2, timeZone: undefined, name: 'Renamed' })).status).toBe(200);
    expect(await stored()).toMatchObject({ version: 3, timeZone: 'America/Sao_Paulo', name: 'Renamed' });

    const none = await put({ version: 3, timeZone: 'America/Moinho' });
    expect([none.status, none.body.errors![0]!.path]).toEqual([400, 'timeZone']);
    const window = { opens: '2026-04-15T08:00:00.000Z', closes: '2026-04-15T01:00:00.000Z' };
    const turned = await put({ version: 3, window });
    expect([turned.status, turned.body.errors![0]]).toEqual([
      400,
      { path: 'window.closes', message: 'The window closes before it opens. Mend one of the two.' },
    ]);
    expect(await stored()).toMatchObject({ version: 3, window: null });
    const file = (await request<{ project: Project }>(`${project}/project.json`)).body;
    expect(file.project.timeZone).toBe('America/Sao_Paulo');
  });
});

describe('facts', () => {
  test('that are of no splice, ticks and measurements, are stored and read back, and count for no splice', async () => {
    const { project, factsUrl, closureId } = await newProject();
    const base = { v: 2, madeAt: new Date().toISOString(), by: 'Iara', device: randomUUID() };
    const subject = { on: 'cable' as const, closureId, cableId: randomUUID() };
    const tick: Fact = {
      ...base,
      id: randomUUID(),
      kind: 'tick',
      subject,
      body: { what: 'mark', mark: 'ring-cut', mm: 1625.6, state: 'done', note: '' },
    };
    const measurement: Fact = {
      ...base,
      id: randomUUID(),
      kind: 'measurement',
      subject,
      body: { of: 'diameter', mm: 12.4 },
    };
    const { body } = await request<Receipt>(`${project}/facts`, 'POST', { facts: [tick, measurement] });
    expect(body.accepted).toHaveLength(2);
    expect((await request<{ facts: Fact[] }>(factsUrl)).body.facts).toEqual([tick, measurement]);
    const wrong = { ...measurement, id: randomUUID(), body: { of: 'diameter', mm: -1 } };
    const refused = await request<Receipt>(`${project}/facts`, 'POST', { facts: [wrong] });
    expect(refused.body.refused).toMatchObject([{ id: wrong.id, path: 'body.mm' }]);
    expect((await request<{ facts: Fact[] }>(factsUrl)).body.facts).toHaveLength(2);
  });

  test('are stored once however often they are sent', async () => {
    const { project, factsUrl, closureId, splices } = await newProject();
    const fact = makeAttempt(closureId, splices[0]!, 0.04);
    const answers = await Promise.all(
      Array.from({ length: 100 }, () => request<Receipt>(`${project}/facts`, 'POST', { facts: [fact] })),
    );
    expect(new Set(answers.map((answer) => answer.body.accepted[0]!.seq)).size).toBe(1);
    expect((await request<{ facts: Fact[] }>(factsUrl)).body.facts).toHaveLength(1);
  });

  test('are stored once though the answer never arrived', async () => {
    const { project, factsUrl, closureId, splices } = await newProject();
    const fact = makeAttempt(closureId, splices[1]!, 0.05);
    for (let round = 0; round < 100; round += 1) await sendAndHangUp(`${project}/facts`, { facts: [fact] });
    const receipt = await request<Receipt>(`${project}/facts`, 'POST', { facts: [fact] });
    expect(receipt.body.accepted).toHaveLength(1);
    expect((await request<{ facts: Fact[] }>(factsUrl)).body.facts.map((one) => one.id)).toEqual([fact.id]);
  });

  test('come back as they went in, and only what is new after a number', async () => {
    const { project, factsUrl, closureId, splices } = await newProject();
    const first = makeAttempt(closureId, splices[0]!, 0.14, { note: 'wind, "gusts"', by: 'Iara' });
    const second: Fact = {
      ...first,
      id: randomUUID(),
      v: 3,
      kind: 'owner-answer',
      body: { attemptId: first.id, answer: 'allow', note: '' },
    };
    await request(`${project}/facts`, 'POST', { facts: [first] });
    const { body } = await request<{ facts: Fact[]; last: number }>(factsUrl);
    expect(body.facts).toEqual([first]);
    await request(`${project}/facts`, 'POST', { facts: [second] });
    const news = await request<{ facts: Fact[] }>(`${factsUrl}?after=${body.last}`);
    expect(news.body.facts.map((fact) => fact.id)).toEqual([second.id]);
  });

  test.each([
    ['negative', -0.01, /below 0 dB/],
    ['absurd', 12, /over 10 dB/],
    ['not a number', 'NaN', /number in dB/],
    ['missing', null, /has a loss for every fiber/],
  ])(
    'a %s reading is refused with its reason, and what was sent with it is stored',
    async (_, loss, reason) => {
      const { project, factsUrl, closureId, splices } = await newProject();
      const good = makeAttempt(closureId, splices[0]!, 0.03);
      const bad = makeAttempt(closureId, splices[1]!, loss as number);
      const { status, body } = await request<Receipt>(`${project}/facts`, 'POST', { facts: [bad, good] });
      expect(status).toBe(200);
      expect(body.refused).toEqual([
        { id: bad.id, path: expect.any(String), message: expect.stringMatching(reason) },
      ]);
      expect((await request<{ facts: Fact[] }>(factsUrl)).body.facts).toEqual([good]);
    },
  );

  test('of a closure that is not there, or under an identifier that is taken, are told one by one', async () => {
    const { project, closureId, splices } = await newProject();
    const good = makeAttempt(closureId, splices[0]!, 0.03);
    const lost = makeAttempt(randomUUID(), splices[1]!, 0.03);
    const first = await request<Receipt>(`${project}/facts`, 'POST', { facts: [good, lost] });
    expect(first.body.accepted.map((one) => one.id)).toEqual([good.id]);
    expect(first.body.refused.map((one) => one.id)).toEqual([lost.id]);
    const changed: Attempt = {
      ...good,
      body: { ...good.body, readings: [{ ...good.body.readings[0]!, loss: 0.9 }] },
    };
    const again = await request<Receipt>(`${project}/facts`, 'POST', { facts: [changed] });
    expect(again.body.refused[0]!.message).toContain('already has this identifier');
  });

  test('of a splice that is not planned are kept', async () => {
    const { project, factsUrl, closureId, splices } = await newProject();
    const elsewhere = { ...splices[0]!.left[0]!, cableId: randomUUID() };
    const stray = makeAttempt(closureId, { ...splices[0]!, left: [elsewhere] }, 0.03);
    await request(`${project}/facts`, 'POST', { facts: [stray] });
    expect((await request<{ facts: Fact[] }>(factsUrl)).body.facts).toHaveLength(1);
  });
});

/** Sends a whole request and drops the connection without waiting for the answer. */
function sendAndHangUp(url: string, body: unknown): Promise<void> {
  const text = JSON.stringify(body);
  return new Promise((done) => {
    const sent = rawRequest(url, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', 'Content-Length': Buffer.byteLength(text) },
    });
    sent.on('error', () => {});
    sent.on('close', () => done());
    sent.end(text, () => sent.destroy());
  });
}
