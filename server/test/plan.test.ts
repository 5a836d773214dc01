import {
  catalogueFileSchema,
  type Cable,
  type Closure,
  type ClosureModel,
  type ProjectDefinition,
} from '@cordel/core';
import { randomUUID } from 'node:crypto';
import { oneServer } from './journey';
import { makeAttempt, makeProject } from './makeProject';
import { request } from './process';

/** The route, closures and the catalogue over real HTTP. */

interface ProblemBody {
  detail: string;
  errors?: { path: string; message: string }[];
  current?: { version?: number; project?: { lineVersion: number } };
}

let api: string;

oneServer((_, address) => {
  api = address;
});

async function newProject() {
  const made = makeProject();
  expect((await request(`${api}/projects`, 'POST', made.definition)).status).toBe(201);
  const project = `${api}/projects/${made.definition.project.id}`;
  const read = async () => (await request<ProjectDefinition>(project)).body;
  return { ...made, project, read };
}

describe('the route', () => {
  test('takes sites and cables of every kind and gives them back the same', async () => {
    const { project, read } = await newProject();
    const before = await read();
    const at = before.sites[1]!;
    const branch = {
      id: randomUUID(),
      name: 'Branch',
      kind: 'terminal' as const,
      chainage: 40,
      placement: null,
      branchFrom: at.id,
    };
    const ribbon: Cable = {
      id: randomUUID(),
      label: 'Ribbons',
      schemeId: 'din-vde-0888',
      construction: { kind: 'central-ribbon', ribbons: 24, fibersPerRibbon: 12 },
      siteIds: [at.id, branch.id],
      fiberType: 'g657a2',
      modeField: 8.6,
      groupIndex: 1.468,
      diameter: 14.2,
      excess: 0.02,
      sheathMarks: { first: 10, last: 55 },
      live: [{ from: 1, to: 12, circuit: 'Ring' }],
    };
    const { status, body } = await request<ProjectDefinition>(`${project}/line`, 'PUT', {
      version: before.project.lineVersion,
      sites: [...before.sites, branch],
      cables: [...before.cables, ribbon],
    });
    expect(status).toBe(200);
    expect(body.project).toEqual({ ...before.project, lineVersion: before.project.lineVersion + 1 });
    const after = await read();
    expect(after).toEqual(body);
    expect(after.cables.find((cable) => cable.id === ribbon.id)).toEqual(ribbon);
    expect(after.sites.find((site) => site.id === branch.id)).toEqual(branch);

    // A field that is taken away is gone, and so is a cable that is not in the list any more.
    const { live: _, ...plain } = ribbon;
    await request(`${project}/line`, 'PUT', {
      version: after.project.lineVersion,
      sites: after.sites,
      cables: [...before.cables, plain],
    });
    expect((await read()).cables.find((cable) => cable.id === ribbon.id)).toEqual(plain);
    await request(`${project}/line`, 'PUT', {
      version: after.project.lineVersion + 1,
      sites: before.sites,
      cables: before.cables,
    });
    const last = await read();
    expect([last.sites.length, last.cables.length]).toEqual([before.sites.length, before.cables.length]);
  });

  test('refuses what does not hold together, a stale write, and another project’s parts; nothing is changed', async () => {
    const { project, read } = await newProject();
    const other = await newProject();
    const before = await read();
    const put = (body: object) => request<ProblemBody>(`${project}/line`, 'PUT', body);
    const { lineVersion: version } = before.project;
    const gone = await put({ version, sites: before.sites.slice(1), cables: before.cables });
    expect([gone.status, gone.body.detail]).toEqual([400, expect.stringContaining('cables.')]);
    const stale = await put({ version: version + 5, sites: before.sites, cables: before.cables });
    expect([stale.status, stale.body.current!.project!.lineVersion]).toEqual([409, version]);
    const foreign = { ...(await other.read()).cables[0]!, siteIds: [before.sites[0]!.id] };
    const taken = await put({ version, sites: before.sites, cables: [...before.cables, foreign] });
    expect(taken.status).toBe(409);
    expect(await read()).toEqual(before);
    expect((await other.read()).cables).toHaveLength(2);
  });
});

describe('closures', () => {
  test('are put at a site, edited with their version, and taken away while nothing is spliced in them', async () => {
    const { project, read } = await newProject();
    const before = await read();
    const at = before.sites.find((site) => site.kind === 'cabinet')!;
    const closure: Closure = {
      id: randomUUID(),
      siteId: at.id,
      kind: 'rack',
      model: 'Rack',
      ports: [{ name: 'Rear', count: 2, from: 4, to: 25, express: false }],
      lengths: { sheathOpening: 1219, strengthMember: 0, tube: 30, trayFiber: 800 },
      testPressure: 0,
      sleeveLength: 40,
      entries: [{ cableId: before.cables[1]!.id, manner: 'cut' }],
      trays: [{ singleSlots: 24, ribbonSlots: 12 }],
      order: [],
      spareSlots: 2,
      pins: [{ cableId: before.cables[1]!.id, unit: 1, tray: 1 }],
      version: 1,
    };
    expect((await request(`${project}/closures`, 'POST', closure)).status).toBe(201);
    expect((await request(`${project}/closures`, 'POST', { ...closure, id: randomUUID() })).status).toBe(409);
    expect((await read()).closures.find((one) => one.id === closure.id)).toEqual(closure);

    const { pins: _, ...plain } = closure;
    const url = `${project}/closures/${closure.id}`;
    const saved = await request<{ closure: Closure }>(url, 'PUT', { ...plain, spareSlots: 0 });
    expect(saved.body.closure).toEqual({ ...plain, spareSlots: 0, version: 2 });
    const late = await request<ProblemBody>(url, 'PUT', closure);
    expect([late.status, late.body.current!.version]).toEqual([409, 2]);
    expect((await request(`${url}?version=1`, 'DELETE')).status).toBe(409);
    expect((await request(`${url}?version=2`, 'DELETE')).status).toBe(204);
    expect((await read()).closures).toHaveLength(1);
    expect((await request(url, 'PUT', { ...plain, version: 2 })).status).toBe(409);
    expect((await request(`${project}/closures`, 'POST', closure)).status).toBe(409);
    expect((await read()).closures).toHaveLength(1);
  });

  test('stay when something was spliced in them, and keep the readings when the order changes', async () => {
    const { project, read, splices, closureId } = await newProject();
    await request(`${project}/facts`, 'POST', { facts: [makeAttempt(closureId, splices[0]!, 0.03)] });
    const url = `${project}/closures/${closureId}`;
    const { status, body } = await request<ProblemBody>(`${url}?version=1`, 'DELETE');
    expect([status, body.detail]).toEqual([409, expect.stringContaining('Splices are recorded')]);
    const closure = (await read()).closures[0]!;
    expect((await request(url, 'PUT', { ...closure, order: [] })).status).toBe(200);
    const facts = await request<{ facts: unknown[] }>(`${url}/facts`);
    expect(facts.body.facts).toHaveLength(1);
  });

  test('cannot be moved to a site that has one', async () => {
    const { project, read } = await newProject();
    const before = await read();
    const own = before.closures[0]!;
    const other = before.sites.find((site) => site.id !== own.siteId)!;
    const second = { ...own, id: randomUUID(), siteId: other.id, entries: [], order: [] };
    expect((await request(`${project}/closures`, 'POST', second)).status).toBe(201);
    const url = `${project}/closures/${second.id}`;
    const moved = await request<ProblemBody>(url, 'PUT', { ...second, siteId: own.siteId });
    expect([moved.status, moved.body.detail]).toEqual([
      409,
      expect.stringContaining('There is a closure at this site already'),
    ]);
    expect((await read()).closures.find((one) => one.id === second.id)).toEqual(second);
  });

  test('keep lines with one side, and refuse one that leads to nothing or to a fiber and a connector', async () => {
    const { project, read } = await newProject();
    const closure = (await read()).closures[0]!;
    const url = `${project}/closures/${closure.id}`;
    const [line] = closure.order;
    const { left, right } = line!;
    const order: Closure['order'] = [
      { ...line!, left: { ...left, from: 1, to: 12 }, right: { ...right!, from: 1, to: 12 } },
      {
        id: randomUUID(),
        left: { ...left, from: 13, to: 14 },
        right: null,
        connector: 'fusion-connector',
        mode: 'single',
        circuit: 'Desk',
      },
    ];
    const saved = await request<{ closure: Closure }>(url, 'PUT', { ...closure, order });
    expect([saved.status, saved.body.closure.order]).toEqual([200, order]);
    expect((await read()).closures[0]!.order).toEqual(order);
    for (const wrong of [
      { ...order[1]!, connector: undefined },
      { ...order[1]!, right },
      { ...order[1]!, mode: 'ribbon' as const },
    ]) {
      const refused = await request<ProblemBody>(url, 'PUT', { ...closure, version: 2, order: [wrong] });
      expect([refused.status, refused.body.detail]).toEqual([
        400,
        expect.stringContaining('A line of the order leads to other fibers, or to a connector.'),
      ]);
    }
    expect((await read()).closures[0]!.order).toEqual(order);
  });

  test('are refused with the field when they name a cable that is not there', async () => {
    const { project, read } = await newProject();
    const closure = (await read()).closures[0]!;
    const { status, body } = await request<ProblemBody>(`${project}/closures/${closure.id}`, 'PUT', {
      ...closure,
      entries: [{ cableId: randomUUID(), manner: 'cut' }],
    });
    expect([status, body.detail]).toEqual([
      400,
      expect.stringMatching(/^closures\.0\.entries\.0\.cableId: There is no cable/),
    ]);
  });
});

describe('the catalogue', () => {
  const models = async () => (await request<{ models: ClosureModel[] }>(`${api}/models`)).body.models;

  test('starts with models of every kind; one is changed, a stale change refused, one deleted', async () => {
    const [first] = await models();
    expect(new Set((await models()).map((model) => model.kind))).toEqual(
      new Set(['dome', 'inline', 'terminal', 'drop', 'rack']),
    );
    const url = `${api}/models/${first!.id}`;
    expect((await request(url, 'PUT', { ...first, trays: 7 })).status).toBe(200);
    expect((await models()).find((model) => model.id === first!.id)).toMatchObject({ trays: 7, version: 2 });
    expect((await request(url, 'PUT', first)).status).toBe(409);
    const copy = { ...first!, id: randomUUID(), name: 'Copy' };
    const fresh = { ...copy, version: 1 };
    expect((await request(`${api}/models/${copy.id}`, 'PUT', fresh)).status).toBe(200);
    const gone = `${api}/models/${copy.id}?version=1`;
    expect((await request(gone, 'DELETE')).status).toBe(200);
    expect((await request(gone, 'DELETE')).status).toBe(404);
    expect((await request(`${api}/models/${copy.id}`, 'PUT', copy)).status).toBe(409);
    expect((await models()).some((model) => model.id === copy.id)).toBe(false);
  });

  test('goes out as a document and comes in the same; a broken one says line and field and changes nothing', async () => {
    const before = await models();
    const text = await (await fetch(`${api}/models.json`)).text();
    expect(catalogueFileSchema.parse(JSON.parse(text)).models).toEqual(before);
    const post = (body: string) =>
      fetch(`${api}/models/import`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body,
      });
    const broken = await post(text.replace(/"trays": \d+/, '"trays": 0'));
    expect(broken.status).toBe(400);
    expect(((await broken.json()) as ProblemBody).detail).toMatch(
      /^Line \d+, models\.0\.trays: At least 1 tray\. Nothing was changed\.$/,
    );
    expect(await models()).toEqual(before);
    expect((await post(text)).status).toBe(200);
    expect(await (await fetch(`${api}/models.json`)).text()).toBe(text);
  });

  test('an older file of it never sets a version back, and brings back what was deleted as something newer', async () => {
    const text = await (await fetch(`${api}/models.json`)).text();
    const [first, second] = await models();
    await request(`${api}/models/${first!.id}`, 'PUT', { ...first, name: 'Changed since' });
    await request(`${api}/models/${second!.id}?version=${second!.version}`, 'DELETE');
    expect((await request(`${api}/models/import`, 'POST', text)).status).toBe(200);
    const after = await models();
    expect(after.find((one) => one.id === first!.id)).toEqual({ ...first, version: first!.version + 2 });
    expect(after.find((one) => one.id === second!.id)).toEqual({ ...second, version: second!.version + 1 });
    // Somebody who still has the version from before all that is told.
    expect((await request(`${api}/models/${first!.id}`, 'PUT', first)).status).toBe(409);
  });
});
