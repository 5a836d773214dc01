import { times } from '../../core/test/times';
import { projectFileParts } from '@cordel/core';
import { randomUUID } from 'node:crypto';
import { newProjectOn, type ProblemBody, oneServer } from './journey';
import { makeAttempt, makeProject } from './makeProject';
import { databaseUrlOf, dataFolder, everyFact, postgres, psql, request, startServer } from './process';

/** Project files taken in: whole or not at all, and nobody waits for them. */

let api: string;
oneServer((_, address) => {
  api = address;
});

/** A project file of a project that is on no shelf yet. */
async function fileOf(count: number, tubes = 2) {
  const made = makeProject(tubes);
  const facts = Array.from({ length: count }, (_, index) => ({
    receivedAt: new Date().toISOString(),
    fact: makeAttempt(made.closureId, made.splices[index % made.splices.length]!, 0.03),
  }));
  const text = [...projectFileParts(made.definition, facts)].join('');
  // Making it may take longer than the server keeps an idle connection: that it was closed has to be seen before the next request.
  await new Promise(setImmediate);
  return { ...made, facts, text, url: `${api}/projects/${made.definition.project.id}` };
}
const take = (text: string) => request<ProblemBody>(`${api}/import`, 'POST', text);
const shelf = async () =>
  (await request<{ shelf: { project: { id: string } }[] }>(`${api}/projects`)).body.shelf.map(
    (entry) => entry.project.id,
  );

test('a record that belongs to another project is told, and nothing of the file is stored', async () => {
  const { closureId, splices, post, factsUrl } = await newProjectOn(api);
  const mine = makeAttempt(closureId, splices[0]!, 0.03);
  await post([mine]);
  const file = await fileOf(700);
  const text = file.text.replace(file.facts[650]!.fact.id, mine.id);
  const before = await shelf();
  const { status, body } = await take(text);
  expect([status, body.detail]).toEqual([409, expect.stringContaining(`the first is ${mine.id}`)]);
  expect(await shelf()).toEqual(before);
  expect((await request(file.url)).status).toBe(404);
  expect(await everyFact(factsUrl)).toEqual([mine]);
  // What was stored of it before the mistake was found is gone: the file without it is taken.
  expect((await take(file.text)).status).toBe(201);
  expect(await everyFact(`${file.url}/facts`)).toHaveLength(700);
});

test.each([
  [
    'two closures at one site',
    (text: string) => text.replace(/"closures": \[\n/, (start) => `${start}${closureOf(text)},\n`),
    /another closure at this site/,
  ],
  [
    'no version of the format',
    (text: string) => text.replace('"formatVersion": 2,\n', ''),
    /does not say in which version/,
  ],
  [
    'version 0 of the format',
    (text: string) => text.replace('"formatVersion": 2', '"formatVersion": 0'),
    /never was a project file of this version/,
  ],
  [
    'a version that is to come',
    (text: string) => text.replace('"formatVersion": 2', '"formatVersion": 4'),
    /newer Cordel/,
  ],
  [
    'a record from the end of time',
    (text: string) => text.replace(/"madeAt": "[^"]*"/, '"madeAt": "2999-01-01T00:00:00.000Z"'),
    /more than a day after/,
  ],
])('%s is refused with its line, and nothing is stored', async (_, spoil, message) => {
  const file = await fileOf(3);
  const { status, body } = await take(spoil(file.text));
  expect([status, body.detail]).toEqual([400, expect.stringMatching(message)]);
  expect(body.detail).toMatch(/^Line \d+/);
  expect((await request(file.url)).status).toBe(404);
});

/** The first closure of a file once more, under another identifier. */
function closureOf(text: string): string {
  const { closures } = JSON.parse(text) as { closures: { id: string }[] };
  return JSON.stringify({ ...closures[0]!, id: randomUUID() });
}

test('a file in another encoding is told, instead of taken with its letters destroyed', async () => {
  const file = await fileOf(1);
  const bytes = Buffer.from(file.text.replace('Test job', 'São João'), 'latin1');
  const response = await fetch(`${api}/import`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: new Blob([bytes]),
  });
  expect(response.status).toBe(400);
  expect(((await response.json()) as ProblemBody).detail).toContain('not in UTF-8');
  const catalogue = await (await fetch(`${api}/models.json`)).text();
  const models = await fetch(`${api}/models/import`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: new Blob([Buffer.from(catalogue.replace(/"name": "[^"]*"/, '"name": "Caixa é"'), 'latin1')]),
  });
  expect(models.status).toBe(400);
});

test('of thousands of mistakes the first hundred are told, and how many there are', async () => {
  const file = await fileOf(8000, 40);
  const text = file.text.replaceAll('"simulated": true', '"simulated": true, "extra": 1');
  const { status, body } = await take(text);
  expect(status).toBe(400);
  expect(body.detail).toContain('And 7999 more.');
  expect(body.errors).toHaveLength(100);
}, 60_000);

test('while a large file is taken in others are answered, its progress is told, and nobody sees a part of it', async () => {
  const file = await fileOf(6000, 40);
  const response = await fetch(`${api}/import`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', Accept: 'application/x-ndjson' },
    body: file.text,
  });
  const lines: { progress?: { done: number; of: number }; taken?: { id: string } }[] = [];
  let over = false;
  const reading = (async () => {
    let text = '';
    for await (const part of response.body!.pipeThrough(new TextDecoderStream())) {
      text += part;
      const whole = text.split('\n');
      text = whole.pop()!;
      lines.push(...whole.map((line) => JSON.parse(line) as (typeof lines)[number]));
    }
    over = true;
  })();
  let answered = 0;
  let seen = 0;
  while (!over) {
    if ((await request(`${api}/health`)).status === 200) answered += 1;
    if ((await request(file.url)).status === 200 && !lines.some((line) => line.taken)) seen += 1;
  }
  await reading;
  expect(lines.at(-1)!.taken).toEqual({ id: file.definition.project.id, name: 'Test job' });
  const done = lines.flatMap(({ progress }) => (progress ? [progress.done] : []));
  expect(done).toEqual([...done].sort((a, b) => a - b));
  expect(new Set(done).size).toBeGreaterThan(10);
  // At least one between any two slices.
  expect(answered).toBeGreaterThan(10);
  expect(seen).toBeLessThanOrEqual(1);
  expect(await everyFact(`${file.url}/facts`)).toHaveLength(6000);
}, 60_000);

test('an import that is cut short by kill -9 leaves nothing behind, and the file can be taken in again', async () => {
  const folder = dataFolder('empty');
  const first = await startServer(folder);
  const count = times(2000, 5000);
  const file = await fileOf(count, 40);
  const response = await fetch(`${first.url}/api/import`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', Accept: 'application/x-ndjson' },
    body: file.text,
  });
  const reader = response.body!.pipeThrough(new TextDecoderStream()).getReader();
  let text = '';
  while (!/"done":[1-9]/.test(text)) text += (await reader.read()).value ?? '';
  await first.kill();
  await reader.cancel().catch(() => undefined);

  // On PostgreSQL another server's import may still be going on: it is dead when nothing was heard of it for a while.
  if (postgres)
    psql(databaseUrlOf(folder), "update line_project set importing_at = now() - interval '1 hour'");
  const second = await startServer(folder);
  const url = `${second.url}/api/projects/${file.definition.project.id}`;
  expect((await request(url)).status).toBe(404);
  expect((await request<{ shelf: unknown[] }>(`${second.url}/api/projects`)).body.shelf).toEqual([]);
  expect((await request(`${second.url}/api/import`, 'POST', file.text)).status).toBe(201);
  expect(await everyFact(`${url}/facts`)).toHaveLength(count);
  await second.stop();
}, 120_000);
