import { Agent, request as httpRequest } from 'node:http';
import { makeAttempt, makeProject } from '../../server/test/makeProject';
import { everyFact, removeFolders, request } from '../../server/test/process';
import { embedded, onPostgres, type Servers } from './databases';
import { at, report } from './figures';

const clients = 16;
const perClient = 100;

/** 16 clients posting attempts at once, each stored durably before it is answered; beside as many requests that store nothing. */
export async function benchServer(): Promise<void> {
  await measure(await embedded());
  await measure(await onPostgres());
  removeFolders();
}

async function measure({ name, all }: Servers): Promise<void> {
  const { definition, closureId, splices } = makeProject(200);
  await request(`${all[0]!.url}/api/projects`, 'POST', definition);
  const project = (index: number) => `${all[index % all.length]!.url}/api/projects/${definition.project.id}`;
  const agent = new Agent({ keepAlive: true, maxSockets: clients });

  const post = (url: string, method: string, body?: string) =>
    new Promise<number>((done, fail) => {
      const began = performance.now();
      const sent = httpRequest(
        url,
        {
          method,
          agent,
          headers: body
            ? { 'Content-Type': 'application/json', 'Content-Length': Buffer.byteLength(body) }
            : {},
        },
        (response) => {
          response.resume();
          response.on('end', () =>
            response.statusCode === 200
              ? done(performance.now() - began)
              : fail(new Error(`Status ${response.statusCode}`)),
          );
        },
      );
      sent.on('error', fail);
      sent.end(body);
    });
  const storm = async (work: (index: number) => Promise<number>) => {
    const waits: number[] = [];
    const began = performance.now();
    await Promise.all(
      Array.from({ length: clients }, async (_, client) => {
        for (let index = 0; index < perClient; index += 1) waits.push(await work(client * perClient + index));
      }),
    );
    return { rate: (1000 * waits.length) / (performance.now() - began), waits };
  };
  const empty = () => storm((index) => post(`${all[index % all.length]!.url}/api/version`, 'GET'));

  const sent = new Set<string>();
  const store = () =>
    storm((index) => {
      const fact = makeAttempt(closureId, splices[index % splices.length]!, 0.03);
      sent.add(fact.id);
      return post(`${project(index)}/facts`, 'POST', JSON.stringify({ facts: [fact] }));
    });
  // The first round of each warms the server up.
  await empty();
  await store();
  const rounds = [];
  for (let round = 0; round < 3; round += 1) rounds.push({ idle: await empty(), stored: await store() });
  // The round in the middle: this machine is twice as fast one minute as the next.
  rounds.sort((a, b) => a.idle.rate / a.stored.rate - b.idle.rate / b.stored.rate);
  const { idle, stored } = rounds[1]!;
  const facts = await everyFact(`${project(0)}/closures/${closureId}/facts`);
  const kept = new Set(facts.map((fact) => fact.id));
  const lost = [...sent].filter((id) => !kept.has(id)).length;
  agent.destroy();
  await Promise.all(all.map((server) => server.stop()));
  report(
    `${name}: attempts stored durably, ${clients} clients (empty requests: ${idle.rate.toFixed(0)} a second)`,
    `${stored.rate.toFixed(0)} a second, 1/${(idle.rate / stored.rate).toFixed(1)}`,
    'at least 1/3',
  );
  report(
    `${name}: of ${sent.size} lost, doubled; wait for an answer`,
    `${lost}, ${facts.length - kept.size}; 95 % ${at(0.95, stored.waits).toFixed(0)} ms`,
    '0, 0',
  );
}
