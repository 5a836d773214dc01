import { request as rawRequest } from 'node:http';
import { oneServer } from './journey';
import { dataFolder, request, startServer, type ServerProcess } from './process';

/** What the server answers to addresses, hosts and sizes, whatever is asked for. */

let server: ServerProcess;
let api: string;

oneServer((started, address) => {
  server = started;
  api = address;
});

describe('the door', () => {
  test('serves the app at every page address, and nothing from outside its own files', async () => {
    for (const path of ['/', '/p/some/c/where']) {
      const { status, body, headers } = await request<string>(server.url + path);
      expect(status).toBe(200);
      expect(body).toContain('<div id="root">');
      expect(headers.get('Content-Security-Policy')).toContain("default-src 'self'");
    }
    for (const path of [
      '/../package.json',
      '/%2e%2e/package.json',
      '/..%2fserver%2fpackage.json',
      '/.built-from',
      '/nothing.js',
    ]) {
      const { status, text } = await rawGet(path);
      expect([status, text.includes('"name"')]).toEqual([404, false]);
    }
  });

  test('answers unknown API addresses, bodies that are too large and foreign host names with problems', async () => {
    expect((await request(`${api}/nothing`)).status).toBe(404);
    expect(await statusOfAnnounced('/api/projects', 5_000_000)).toBe(413);
    expect((await request(`${api}/projects`, 'POST', '{"half":')).status).toBe(400);
    expect((await rawGet('/api/projects', { Host: 'evil.example' })).status).toBe(421);
    expect((await request(`${api}/projects/not-an-id`)).status).toBe(400);
  });

  test('a port that is in use is told', async () => {
    const port = new URL(server.url).port;
    await expect(startServer(dataFolder('empty'), { PORT: port })).rejects.toThrow(`Port ${port} is in use`);
  }, 30_000);
});

/** Without the client's tidying of paths and headers. */
function rawGet(
  path: string,
  headers: Record<string, string> = {},
): Promise<{ status: number; text: string }> {
  const { hostname, port } = new URL(server.url);
  return new Promise((done, fail) => {
    rawRequest({ hostname, port, path, headers }, (response) => {
      let text = '';
      response.on('data', (part: Buffer) => (text += part.toString()));
      response.on('end', () => done({ status: response.statusCode!, text }));
    })
      .on('error', fail)
      .end();
  });
}

/** The answer to a body that is only announced: a server that refuses it may close the line while a client still sends. */
function statusOfAnnounced(path: string, length: number): Promise<number> {
  const { hostname, port } = new URL(server.url);
  const headers = { 'Content-Type': 'application/json', 'Content-Length': length };
  return new Promise((done, fail) => {
    const sent = rawRequest({ hostname, port, path, headers, method: 'POST', agent: false }, (response) => {
      done(response.statusCode!);
      sent.destroy();
    }).on('error', fail);
    sent.flushHeaders();
  });
}
