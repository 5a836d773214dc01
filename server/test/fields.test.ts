import type { Closure, ClosureModel, Fact, ProjectDefinition } from '@cordel/core';
import type { Gear } from '@cordel/core/gear';
import { randomUUID } from 'node:crypto';
import type { ProblemBody } from './journey';
import { dataFolder, everyFact, removeFolders, request, startServer, type ServerProcess } from './process';

/** Every field of everything that is sent to the server, one after the other with a value that a database or a program stumbles over. */

type Json = null | boolean | number | string | Json[] | { [key: string]: Json };
type Path = (string | number)[];

/** Text that PostgreSQL cannot store, and numbers beyond its integers and dates: always the sender's mistake. */
const badText = ['a\0b', '\uD800', 'x\uDC00y'];
const badNumbers = [2 ** 31, 2 ** 53, 1e300, -1e300];

let server: ServerProcess;
let api: string;
let definition: ProjectDefinition;
let project: string;

beforeAll(async () => {
  server = await startServer(dataFolder('demo'));
  api = `${server.url}/api`;
  const { body } = await request<{ shelf: { project: { id: string } }[] }>(`${api}/projects`);
  project = `${api}/projects/${body.shelf[0]!.project.id}`;
  definition = await read();
}, 60_000);
afterAll(async () => {
  // It is still there, and holds what it held.
  expect((await request(`${api}/health`)).status).toBe(200);
  expect(await server.stop()).toBe(0);
  expect(server.output()).not.toMatch(/"level":"error"/);
  removeFolders();
});

const read = async () => (await request<ProjectDefinition>(project)).body;

/** One path for each field: of many elements of a list the first that has it. */
function fieldsOf(value: Json, path: Path = [], found = new Map<string, Path>()): Map<string, Path> {
  if (value !== null && typeof value === 'object')
    for (const [key, inner] of Object.entries(value))
      fieldsOf(inner, [...path, Array.isArray(value) ? Number(key) : key], found);
  else {
    const field = path.map((step) => (typeof step === 'number' ? '*' : step)).join('.');
    if (!found.has(field)) found.set(field, path);
  }
  return found;
}

function withValue(value: Json, [step, ...rest]: Path, put: Json): Json {
  if (step === undefined) return put;
  const copy = structuredClone(value) as Record<string | number, Json>;
  copy[step] = withValue(copy[step]!, rest, put);
  return copy as Json;
}

/** Sends the document with each of its fields spoiled in turn, and gives what was not answered with 400 and words. */
async function spoil(
  document: unknown,
  send: (body: Json) => Promise<{ status: number; body: unknown }>,
): Promise<{ tried: number; wrong: string[] }> {
  const wrong: string[] = [];
  let tried = 0;
  for (const [field, path] of fieldsOf(document as Json)) {
    const [leaf] = [
      path.reduce<Json>((at, step) => (at as Record<string | number, Json>)[step]!, document as Json),
    ];
    const values =
      typeof leaf === 'string' ? badText : typeof leaf === 'number' ? badNumbers : [...badText, 2 ** 53];
    for (const value of values) {
      tried += 1;
      const { status, body } = await send(withValue(document as Json, path, value));
      const words = (body as ProblemBody | null)?.detail ?? '';
      if (status !== 400 || words.length < 10 || /undefined|SQL|at .*\.js/.test(words))
        wrong.push(`${field} = ${JSON.stringify(value)}: ${status} ${words}`);
    }
  }
  return { tried, wrong };
}

test('settings, line and closures', async () => {
  const { id: _, lineVersion: __, ...settings } = definition.project;
  const { sites, cables } = definition;
  const put =
    (path: string, method = 'PUT') =>
    (body: Json) =>
      request(`${project}/${path}`, method, body);
  const line = { version: definition.project.lineVersion, sites, cables };
  const all = [
    await spoil(settings, put('settings')),
    await spoil(line, put('line')),
    ...(await Promise.all(
      definition.closures
        .slice(0, 2)
        .map((closure: Closure) => spoil(closure, put(`closures/${closure.id}`))),
    )),
  ];
  expect(all.flatMap(({ wrong }) => wrong)).toEqual([]);
  expect(all.reduce((sum, { tried }) => sum + tried, 0)).toBeGreaterThan(200);
  expect(await read()).toEqual(definition);
}, 120_000);

test('a new project', async () => {
  const fresh = structuredClone(definition);
  const { wrong } = await spoil(fresh, (body) => request(`${api}/projects`, 'POST', body));
  expect(wrong).toEqual([]);
}, 120_000);

test('models and gear', async () => {
  const { models } = (await request<{ models: ClosureModel[] }>(`${api}/models`)).body;
  const { gear } = (await request<{ gear: Gear[] }>(`${api}/gear`)).body;
  const kinds = [...new Map(gear.map((one) => [one.kind, one])).values()];
  const all = [
    await spoil(models[0], (body) => request(`${api}/models/${models[0]!.id}`, 'PUT', body)),
    await spoil({ format: 'cordel-models', formatVersion: 1, models: models.slice(0, 1) }, (body) =>
      request(`${api}/models/import`, 'POST', body),
    ),
  ];
  for (const item of kinds)
    all.push(await spoil(item, (body) => request(`${api}/gear/${item.id}`, 'PUT', body)));
  expect(all.flatMap(({ wrong }) => wrong)).toEqual([]);
  expect((await request<{ models: ClosureModel[] }>(`${api}/models`)).body.models).toEqual(models);
  expect((await request<{ gear: Gear[] }>(`${api}/gear`)).body.gear).toEqual(gear);
}, 120_000);

test('facts of every kind: the fact is refused with its field, and the good one beside it is stored', async () => {
  const closureId = definition.closures.find((one) => one.order.length > 0)!.id;
  const known = await everyFact(`${project}/facts`);
  const kinds = [...new Map((known as Fact[]).map((fact) => [fact.kind, fact])).values()];
  expect(kinds.length).toBeGreaterThanOrEqual(5);
  const wrong: string[] = [];
  let tried = 0;
  for (const fact of kinds) {
    const own = { ...fact, id: randomUUID() } as unknown as Json;
    for (const [field, path] of fieldsOf(own)) {
      const leaf = path.reduce<Json>((at, step) => (at as Record<string | number, Json>)[step]!, own);
      // What newer versions wrote is kept as it came, so only what no database stores is refused in a version or a kind.
      for (const value of typeof leaf === 'string' ? badText : []) {
        tried += 1;
        const good = { ...structuredClone(fact), id: randomUUID() };
        const { status, body } = await request<{
          accepted: { id: string }[];
          refused: { id: string; message: string }[];
        }>(`${project}/facts`, 'POST', { facts: [withValue(own, path, value), good] });
        const ok =
          status === 200 && body.refused.length === 1 && body.accepted.some(({ id }) => id === good.id);
        if (!ok)
          wrong.push(`${fact.kind} ${field} = ${JSON.stringify(value)}: ${status} ${JSON.stringify(body)}`);
      }
    }
  }
  expect(wrong).toEqual([]);
  expect(tried).toBeGreaterThan(50);
  expect(closureId).toBeTruthy();
}, 120_000);
