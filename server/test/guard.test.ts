import { projectFileParts } from '@cordel/core';
import { randomUUID } from 'node:crypto';
import { once } from 'node:events';
import { request as rawRequest } from 'node:http';
import { newProjectOn, type ProblemBody, oneServer } from './journey';
import { makeAttempt, makeProject } from './makeProject';
import { bareFolder, dataFolder, request, spawnServer, startServer, type ServerProcess } from './process';

/** Who may ask, what is told of it, and how it ends. */

let server: ServerProcess;
let api: string;
oneServer(
  (started, address) => {
    server = started;
    api = address;
  },
  { CORDEL_LOG: 'info' },
);

/** Without the client's own ideas of which headers may be set. */
function raw(
  path: string,
  method: string,
  headers: Record<string, string>,
  body = '{}',
): Promise<{ status: number; text: string; headers: NodeJS.Dict<string | string[]> }> {
  const { hostname, port } = new URL(server.url);
  return new Promise((done, fail) => {
    const sent = rawRequest({ hostname, port, path, method, headers }, (response) => {
      let text = '';
      response.on('data', (part: Buffer) => (text += part.toString()));
      response.on('end', () => done({ status: response.statusCode!, text, headers: response.headers }));
    }).on('error', fail);
    sent.end(method === 'GET' ? undefined : body);
  });
}

describe('a page of another address changes nothing', () => {
  const json = { 'Content-Type': 'application/json' };
  test.each([
    ['a form’s content type', { 'Content-Type': 'text/plain' }, 415],
    ['no content type', {}, 415],
    ['a form', { 'Content-Type': 'application/x-www-form-urlencoded' }, 415],
    ['another origin', { ...json, Origin: 'http://evil.example' }, 403],
    ['another port of this machine', { ...json, Origin: 'http://127.0.0.1:1' }, 403],
    ['a page that hides where it is from', { ...json, Origin: 'null' }, 403],
    ['what the browser calls cross-site', { ...json, 'Sec-Fetch-Site': 'cross-site' }, 403],
    ['what the browser calls same-site', { ...json, 'Sec-Fetch-Site': 'same-site' }, 403],
  ])('%s', async (_, headers, status) => {
    const { definition } = await newProjectOn(api);
    const before = (await request(`${api}/models`)).body;
    const catalogue = JSON.stringify({ format: 'cordel-catalogue', formatVersion: 1, models: [] });
    const id = definition.project.id;
    for (const [path, method] of [
      ['/api/models/import', 'POST'],
      [`/api/projects/${id}/restore`, 'POST'],
      ['/api/import', 'POST'],
      [`/api/projects/${id}/facts`, 'POST'],
      [`/api/projects/${id}/settings`, 'PUT'],
    ] as const)
      expect([path, (await raw(path, method, headers as never, catalogue)).status]).toEqual([path, status]);
    if (status === 403)
      expect((await raw(`/api/projects/${id}`, 'DELETE', headers as never, '')).status).toBe(403);
    expect((await request(`${api}/models`)).body).toEqual(before);
    expect((await request(`${api}/projects/${id}`)).status).toBe(200);
  });

  test('its own pages, and programs that are no browser, may', async () => {
    const own = { Origin: server.url, 'Sec-Fetch-Site': 'same-origin', Host: new URL(server.url).host };
    expect((await raw('/api/projects/not-an-id/restore', 'POST', own, '')).status).toBe(400);
    expect((await raw(`/api/projects/${randomUUID()}/restore`, 'POST', own, '')).status).toBe(404);
    expect((await raw(`/api/projects/${randomUUID()}/restore`, 'POST', {}, '')).status).toBe(404);
  });
});

test('what the API answers is kept nowhere, and every answer has the headers that protect a page, a refused host’s too', async () => {
  expect((await request(`${api}/projects`)).headers.get('Cache-Control')).toBe('no-store');
  expect((await request(`${api}/projects/${randomUUID()}`)).headers.get('Cache-Control')).toBe('no-store');
  for (const headers of [{}, { Host: 'evil.example' }]) {
    const answer = await raw('/', 'GET', headers as never);
    expect(answer.status).toBe('Host' in headers ? 421 : 200);
    expect(answer.headers['content-security-policy']).toContain("base-uri 'none'; form-action 'none'");
    expect(answer.headers['x-content-type-options']).toBe('nosniff');
  }
});

describe('an operator sees', () => {
  test('that the database answers, and which version runs', async () => {
    expect((await request(`${api}/health`)).body).toEqual({ ok: true, clock: 'set' });
    expect((await request(`${api}/version`)).body).toMatchObject({
      version: expect.stringMatching(/^\d+\.\d+\.\d+$/),
    });
  });

  test('a line for each request with its route, status, time and id, which the answer carries', async () => {
    const device = randomUUID();
    const { headers } = await request(`${api}/projects/${randomUUID()}`, 'GET', undefined, {
      'Cordel-Device': device,
    });
    const id = headers.get('Request-Id')!;
    const find = () =>
      server
        .output()
        .split('\n')
        .find((one) => one.includes(id));
    // The line is written after the answer.
    while (!find()) await once(server.process.stdout!, 'data');
    const line = find();
    expect(JSON.parse(line!)).toMatchObject({
      request: id,
      method: 'GET',
      route: '/api/projects/:projectId',
      status: 404,
      ms: expect.any(Number),
      device,
    });
  });

  test('that it ends politely: a request that runs is answered, and the exit code is 0', async () => {
    const own = await startServer(dataFolder('empty'));
    const made = makeProject(40);
    // Some slices, and not more than a busy machine stores in the server's patience (7 s): after it the connection is
    // cut.
    const facts = Array.from({ length: 600 }, (_, index) => ({
      receivedAt: new Date().toISOString(),
      fact: makeAttempt(made.closureId, made.splices[index % made.splices.length]!, 0.03),
    }));
    const response = await fetch(`${own.url}/api/import`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', Accept: 'application/x-ndjson' },
      body: [...projectFileParts(made.definition, facts)].join(''),
    });
    const reader = response.body!.pipeThrough(new TextDecoderStream()).getReader();
    let text = (await reader.read()).value ?? '';
    const ended = own.stop();
    expect(text).not.toContain('"taken":{');
    for (let part = await reader.read(); !part.done; part = await reader.read()) text += part.value;
    expect(text).toContain('"taken":{');
    expect(await ended).toBe(0);
  }, 60_000);
});

describe('who can reach it', () => {
  const ends = (environment: Record<string, string>) => {
    const child = spawnServer(bareFolder(), environment);
    let output = '';
    child.stdout.on('data', (text: Buffer) => (output += text.toString()));
    child.stderr.on('data', (text: Buffer) => (output += text.toString()));
    return new Promise<{ code: number | null; output: string }>((done) =>
      child.once('close', (code) => done({ code, output })),
    );
  };

  test('beyond this machine only on purpose', async () => {
    const { code, output } = await ends({ HOST: '0.0.0.0' });
    expect([code, output]).toEqual([1, expect.stringContaining('CORDEL_OPEN=yes')]);
    expect(output).toContain('has no sign-in yet');
  });

  test('then with a warning, and only by names that it was given', async () => {
    const open = await startServer(dataFolder('empty'), {
      HOST: '0.0.0.0',
      CORDEL_OPEN: 'yes',
      CORDEL_HOSTS: 'splice.example.net',
    });
    expect(open.output()).toContain('There is no sign-in');
    const { port } = new URL(open.url);
    const as = (host: string) =>
      new Promise<number>((done, fail) =>
        rawRequest(
          { hostname: '127.0.0.1', port, path: '/api/health', headers: { Host: host } },
          (response) => {
            response.resume();
            done(response.statusCode!);
          },
        )
          .on('error', fail)
          .end(),
      );
    expect(
      await Promise.all(
        ['splice.example.net', `127.0.0.1:${port}`, '10.1.2.3', 'localhost', 'evil.example'].map(as),
      ),
    ).toEqual([200, 200, 200, 200, 421]);
    await open.stop();
  }, 60_000);

  test.each([
    [{ PORT: '99999' }, /PORT is "99999"/],
    [{ CORDEL_HOSTS: 'http://x/' }, /CORDEL_HOSTS has "http:\/\/x\/"/],
    [{ HOST: '203.0.113.7', CORDEL_OPEN: 'yes' }, /no address of this machine/],
    [{ DATABASE_URL: 'postgres://nobody@127.0.0.1:1/none' }, /cannot be used .*Check that it runs/],
  ])(
    'a setting that cannot be is told: %p',
    async (environment, words) => {
      const { code, output } = await ends(environment as never);
      expect([code, output]).toEqual([1, expect.stringMatching(words)]);
      expect(output).not.toMatch(/undefined| at .*:\d+:\d+/);
    },
    60_000,
  );
});

test('a name that is cut in the middle of an emoji by the app of yesterday is told, not a failure', async () => {
  const { body } = await request<{ models: { id: string }[] }>(`${api}/models`);
  const model = {
    ...body.models[0]!,
    id: randomUUID(),
    version: 1,
    name: `${'x'.repeat(69)}🧰`.slice(0, 70),
  };
  const answer = await request<ProblemBody>(`${api}/models/${model.id}`, 'PUT', model);
  expect([answer.status, answer.body.detail]).toEqual([400, expect.stringContaining('characters')]);
});
