import { newGear } from '@cordel/core/gear';
import { randomUUID } from 'node:crypto';
import { newProjectOn, type ProblemBody, type Receipt, oneServer } from './journey';
import { makeAttempt, makeProject } from './makeProject';
import { dataFolder, everyFact, request, startServer } from './process';

/** Facts of every age and with every mistake, over real HTTP. */

let api: string;
oneServer((_, address) => {
  api = address;
});

const newProject = (tubes?: number) => newProjectOn(api, tubes);

describe('of another age', () => {
  test('a fact of a kind that nobody knows yet is stored as it came, passed on, exported and imported', async () => {
    const { project, factsUrl, closureId, splices, post, definition } = await newProject();
    const known = makeAttempt(closureId, splices[0]!, 0.03);
    const newKind = {
      v: 1,
      id: randomUUID(),
      kind: 'seal-test',
      madeAt: known.madeAt,
      by: 'Iara',
      device: randomUUID(),
      subject: { on: 'closure', closureId, port: { number: 3 } },
      body: { kPa: 34.5, held: true, seconds: [60, 120], note: 'bubble test 🫧' },
      signature: 'kept too',
    };
    const newVersion = { ...known, id: randomUUID(), v: 9, body: { readings: 'otherwise' } };
    const ofProject = { ...newKind, id: randomUUID(), kind: 'crew', subject: { on: 'project' } };
    const { body } = await post([newKind, known, newVersion, ofProject]);
    expect(body.refused).toEqual([]);
    expect(await everyFact(factsUrl)).toEqual([newKind, known, newVersion]);
    expect(await everyFact(`${project}/facts`)).toEqual([newKind, known, newVersion, ofProject]);
    // It counts for nothing here, and spoils nothing.
    const progress = await request<{ progress: { rollUp: { settled: number } }[] }>(`${project}/progress`);
    expect(progress.body.progress[0]!.rollUp.settled).toBe(1);
    expect((await request(`${project}/loss-sheet.csv`)).status).toBe(200);

    const text = await (await fetch(`${project}/project.json`)).text();
    const other = await startServer(dataFolder('empty'));
    expect((await request(`${other.url}/api/import`, 'POST', text)).status).toBe(201);
    const there = `${other.url}/api/projects/${definition.project.id}`;
    expect(new Set(await everyFact(`${there}/facts`))).toEqual(
      new Set([newKind, known, newVersion, ofProject]),
    );
    expect(await (await fetch(`${there}/project.json`)).text()).toBe(text);
    await other.stop();
  });

  test('a fact as Cordel 0.1 wrote it is taken, brought up, and is the same fact when it comes again', async () => {
    const { factsUrl, closureId, splices, post } = await newProject();
    const [left, right] = [splices[0]!.left[0]!, splices[0]!.right[0]!];
    const old = {
      id: randomUUID(),
      closureId,
      spliceId: [left, right]
        .map((end) => `${end.cableId}.${end.fiber}.${end.side}`)
        .sort()
        .join('~'),
      madeAt: new Date().toISOString(),
      by: null,
      kind: 'attempt',
      source: 'hand',
      simulated: false,
      readings: [{ loss: 0.04, cleaveLeft: null, cleaveRight: null }],
      proofTestFailed: false,
      note: '',
    };
    for (let time = 0; time < 2; time += 1) expect((await post([old])).body.accepted).toHaveLength(1);
    expect(await everyFact(factsUrl)).toMatchObject([{ v: 3, id: old.id, body: { readings: old.readings } }]);
  });
});

describe('with a mistake', () => {
  test('one that cannot be stored is refused alone: the 104 that came with it are on the disk', async () => {
    const { factsUrl, closureId, splices, project } = await newProject(10);
    const facts = Array.from({ length: 105 }, (_, index) =>
      makeAttempt(closureId, splices[index]!, 0.03, index === 52 ? { note: 'a\0b' } : {}),
    );
    const answers = await Promise.all(
      facts.map((fact) =>
        request<{ accepted: unknown[]; refused: { message: string }[] }>(`${project}/facts`, 'POST', {
          facts: [fact],
        }),
      ),
    );
    expect(answers.map(({ status }) => status)).toEqual(facts.map(() => 200));
    expect(answers.flatMap(({ body }) => body.refused)).toEqual([
      { id: facts[52]!.id, path: 'body.note', message: expect.stringContaining('characters') },
    ]);
    expect(await everyFact(factsUrl)).toHaveLength(104);
  });

  test.each([
    ['NUL in an unknown body', { kind: 'new-kind', body: { 'a\0': 1 } }],
    ['half a character in an unknown body', { kind: 'new-kind', body: ['\udc00'] }],
    ['levels without end', { kind: 'new-kind', body: 'DEEP' }],
    ['levels without end where a reading belongs', { body: 'DEEP' }],
    ['no body', { body: undefined }],
    ['a subject of another shape', { subject: 'splice 3' }],
    ['no kind', { kind: 7 }],
    ['a version that is none', { v: 1.5 }],
    ['an identifier that is none', { id: 'x'.repeat(5000) }],
    ['a time that never was', { madeAt: '0000-01-01T00:00:00.000Z' }],
    ['a time before Cordel', { madeAt: '1970-01-01T00:00:00.000Z' }],
    ['a time far ahead', { madeAt: '2999-01-01T00:00:00.000Z' }],
    ['the last time of all', { madeAt: '9999-12-31T23:59:59.999Z' }],
  ])('%s is refused in words, and what came with it is stored', async (_, wrong) => {
    const { factsUrl, closureId, splices, project } = await newProject();
    const good = makeAttempt(closureId, splices[0]!, 0.03);
    const { status, body } = await request<Receipt>(
      `${project}/facts`,
      'POST',
      // Such a thing cannot be written by JSON.stringify.
      JSON.stringify({ facts: [{ ...makeAttempt(closureId, splices[1]!, 0.03), ...wrong }, good] }).replace(
        '"DEEP"',
        `${'['.repeat(50_000)}${']'.repeat(50_000)}`,
      ),
    );
    expect(status).toBe(200);
    expect(body.refused).toHaveLength(1);
    expect(body.refused[0]!.message).toMatch(/\w/);
    expect(body.accepted.map((one) => one.id)).toEqual([good.id]);
    expect(await everyFact(factsUrl)).toEqual([good]);
  });

  test('a clock that is a day ahead does not lock a splice: the fact is refused, a little ahead it is taken', async () => {
    const { closureId, splices, post } = await newProject();
    const at = (hours: number) => new Date(Date.now() + hours * 3600_000).toISOString();
    const { body } = await post([
      makeAttempt(closureId, splices[0]!, 0.03, { madeAt: at(1) }),
      makeAttempt(closureId, splices[1]!, 0.03, { madeAt: at(25) }),
    ]);
    expect(body.accepted).toHaveLength(1);
    expect(body.refused[0]!.message).toContain('Set the device’s clock');
  });

  test('an identifier in capitals is the same one, and counts', async () => {
    const { project, closureId, splices, post } = await newProject();
    const fact = makeAttempt(closureId, splices[0]!, 0.03);
    const loud = JSON.parse(
      JSON.stringify(fact).replace(/[0-9a-f]{8}-[0-9a-f-]{27}/g, (id) => id.toUpperCase()),
    ) as unknown;
    await post([loud]);
    expect((await post([fact])).body.accepted).toHaveLength(1);
    const { body } = await request<{ progress: { rollUp: { settled: number } }[] }>(`${project}/progress`);
    expect(body.progress[0]!.rollUp.settled).toBe(1);
  });
});

describe('are given out', () => {
  test('in pages, in the order in which they came, each number once and none left out', async () => {
    const { project, closureId, splices, post } = await newProject(20);
    const facts = splices.slice(0, 230).map((splice) => makeAttempt(closureId, splice, 0.03));
    for (let start = 0; start < facts.length; start += 46) await post(facts.slice(start, start + 46));
    const seen: string[] = [];
    for (let after = 0, more = true; more;) {
      const { body } = await request<{ facts: { id: string }[]; last: number; more: boolean }>(
        `${project}/facts?after=${after}&limit=100`,
      );
      expect(body.last).toBe(after + body.facts.length);
      seen.push(...body.facts.map((fact) => fact.id));
      ({ last: after, more } = body);
    }
    expect(seen).toEqual(facts.map((fact) => fact.id));
    expect((await request(`${project}/facts?limit=5000`)).status).toBe(400);
  });
});

/** A text that no database stores, for every text that a document has; and numbers beyond their column. */
describe('documents with what cannot be stored are 400, never 500', () => {
  const texts = ['a\0b', 'half \ud83d'];
  const project = makeProject().definition;
  const site = project.sites[0]!;
  const cable = project.cables[0]!;
  const closure = project.closures[0]!;
  const spoilt = texts.flatMap((text): [string, object][] => [
    ['project.name', { ...project, project: { ...project.project, name: text } }],
    ['site.name', { ...project, sites: [{ ...site, name: text }, ...project.sites.slice(1)] }],
    ['cable.label', { ...project, cables: [{ ...cable, label: text }, ...project.cables.slice(1)] }],
    ['closure.model', { ...project, closures: [{ ...closure, model: text }] }],
    [
      'order.circuit',
      { ...project, closures: [{ ...closure, order: [{ ...closure.order[0]!, circuit: text }] }] },
    ],
    [
      'entry.port',
      { ...project, closures: [{ ...closure, entries: [{ ...closure.entries[0]!, port: text }] }] },
    ],
  ]);
  spoilt.push(
    ['project.version', { ...project, project: { ...project.project, version: 2 ** 31 } }],
    ['project.lineVersion', { ...project, project: { ...project.project, lineVersion: 1e15 } }],
    ['closure.version', { ...project, closures: [{ ...closure, version: 2 ** 53 }] }],
    [
      'window',
      {
        ...project,
        project: {
          ...project.project,
          window: { opens: '0000-01-01T00:00:00.000Z', closes: '9999-12-31T23:59:59.999Z' },
        },
      },
    ],
  );
  test.each(spoilt)('%s', async (_, definition) => {
    expect((await request(`${api}/projects`, 'POST', definition)).status).toBe(400);
    const file = { format: 'cordel-project', formatVersion: 2, ...definition, facts: [] };
    const { status, body } = await request<ProblemBody>(`${api}/import`, 'POST', file);
    expect([status, body.detail]).toEqual([400, expect.stringMatching(/^Line 1, /)]);
  });

  test.each(texts)('gear and models (%j)', async (text) => {
    const item = { ...newGear('machine', randomUUID(), 'x'), label: text };
    expect((await request(`${api}/gear/${item.id}`, 'PUT', item)).status).toBe(400);
    const { body } = await request<{ models: { id: string; name: string }[] }>(`${api}/models`);
    const model = { ...body.models[0]!, name: text };
    expect((await request(`${api}/models/${model.id}`, 'PUT', model)).status).toBe(400);
    const here = `${api}/projects/${randomUUID()}/closures/${randomUUID()}/here`;
    expect((await request(here, 'POST', { device: randomUUID(), by: text, spliceId: 'a~b' })).status).toBe(
      400,
    );
  });

  test('JSON without end', async () => {
    const { project: url } = await newProject();
    const deep = `${'['.repeat(50_000)}${']'.repeat(50_000)}`;
    for (const [path, method] of [
      [`${api}/projects`, 'POST'],
      [`${url}/settings`, 'PUT'],
      [`${url}/line`, 'PUT'],
      [`${url}/closures`, 'POST'],
      [`${api}/import`, 'POST'],
      [`${api}/models/import`, 'POST'],
      [`${api}/gear/${randomUUID()}`, 'PUT'],
    ] as const)
      expect((await request(path, method, deep)).status).toBe(400);
  });
});
