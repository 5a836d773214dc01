import { newNightsSetup, type Project, type ProjectDefinition } from '@cordel/core';
import { nightsInput } from '../../core/test/nightsExample';
import { makeProject } from './makeProject';
import { bareFolder, dataFolder, removeFolders, request, startServer, type ServerProcess } from './process';

/** What the nights are planned from, as the server keeps it: with a project's settings. */

let server: ServerProcess;
beforeAll(async () => {
  server = await startServer(dataFolder('empty'));
}, 60_000);
afterAll(async () => {
  await server.stop();
  removeFolders();
});

const { setup } = nightsInput();

async function stored(): Promise<{ url: string; project: Project }> {
  const { definition } = makeProject();
  const made = await request<{ project: Project }>(`${server.url}/api/projects`, 'POST', definition);
  expect(made.status).toBe(201);
  return { url: `${server.url}/api/projects/${definition.project.id}`, project: definition.project };
}

const put = (url: string, { id: _, lineVersion: __, ...settings }: Project, more: object) =>
  request<{ project: Project; errors?: { path: string }[] }>(`${url}/settings`, 'PUT', {
    ...settings,
    ...more,
  });

test('nights are kept with the settings, stay where an older page says nothing of them, and go out with the project’s file', async () => {
  const { url, project } = await stored();
  expect((await request<ProjectDefinition>(url)).body.project.nights).toBeUndefined();
  const first = await put(url, project, { nights: setup });
  expect(first.status).toBe(200);
  const read = async () => (await request<ProjectDefinition>(url)).body.project;
  expect((await read()).nights).toEqual(setup);
  // A page of a Cordel that knows no nights.
  const { nights: _, ...older } = await read();
  expect((await put(url, older, { name: 'Another name' })).status).toBe(200);
  expect(await read()).toMatchObject({ name: 'Another name', nights: setup });
  const file = await request<{ project: Project }>(`${url}/project.json`);
  expect(file.body.project.nights).toEqual(setup);
  const late = await put(url, project, { nights: newNightsSetup });
  expect(late.status).toBe(409);
  expect((await read()).nights).toEqual(setup);
});

test('what does not hold is refused, and nothing of it is kept', async () => {
  const { url, project } = await stored();
  for (const [wrong, path] of [
    [{ ...setup, reserve: 1.5 }, 'nights.reserve'],
    [{ ...setup, crews: [{ ...setup.crews[0]!, people: [] }] }, 'nights.crews.0.people'],
    [
      { ...setup, nights: [{ ...setup.nights[0]!, closes: setup.nights[0]!.opens }] },
      'nights.nights.0.closes',
    ],
  ] as const) {
    const answer = await put(url, project, { nights: wrong });
    expect(answer.status).toBe(400);
    expect(answer.body.errors!.map((one) => one.path)).toContain(path);
  }
  expect((await request<ProjectDefinition>(url)).body.project).toMatchObject({ version: 1 });
});

test('the demo has two crews and three nights, the first of which goes on', async () => {
  const demo = await startServer(bareFolder(), {}, undefined, ['--demo']);
  const { body } = await request<{ shelf: { project: Project }[] }>(`${demo.url}/api/projects`);
  const { nights } = (
    await request<ProjectDefinition>(`${demo.url}/api/projects/${body.shelf[0]!.project.id}`)
  ).body.project;
  expect(nights!.crews.map(({ people }) => people)).toEqual([['Iara', 'Davi'], ['Noa']]);
  expect(nights!.nights).toHaveLength(3);
  const [first] = nights!.nights;
  expect(Date.parse(first!.opens)).toBeLessThan(Date.now());
  expect(Date.parse(first!.closes)).toBeGreaterThan(Date.now());
  await demo.stop();
}, 60_000);
