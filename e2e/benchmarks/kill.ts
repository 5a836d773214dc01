import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { makeAttempt, makeProject } from '../../server/test/makeProject';
import { everyFact, removeFolders, request, type ServerProcess } from '../../server/test/process';
import { embedded, onPostgres, type Servers } from './databases';
import { report } from './figures';

const kills = 20;
const crashes = 5;

/** kill -9 of the server, and of PostgreSQL's server, in the middle of writing: what was acknowledged is there, once. */
export async function benchKill(): Promise<void> {
  await killServers(await embedded());
  await killServers(await onPostgres());
  await crashDatabase(await onPostgres());
  removeFolders();
}

/** Eight clients that go on posting until they are told to stop; what was acknowledged. */
function writers(urls: () => readonly string[]) {
  const { definition, closureId, splices } = makeProject(200);
  const acknowledged: string[] = [];
  let over = false;
  const client = async (first: number) => {
    for (let index = first; !over; index = (index + 8) % splices.length) {
      const fact = makeAttempt(closureId, splices[index]!, 0.03);
      try {
        const url = urls()[index % urls().length]!;
        const path = `${url}/api/projects/${definition.project.id}/facts`;
        const { status } = await request(path, 'POST', { facts: [fact] });
        if (status === 200) acknowledged.push(fact.id);
      } catch {
        // The server is gone; this attempt was not acknowledged. The next one may find it back.
        await new Promise((done) => setTimeout(done, 20));
      }
    }
  };
  return {
    definition,
    acknowledged,
    begin: () => Array.from({ length: 8 }, (_, index) => client(index)),
    end: () => void (over = true),
    until: async (count: number) => {
      while (acknowledged.length < count) await new Promise((done) => setTimeout(done, 5));
    },
  };
}

async function tell(
  name: string,
  what: string,
  server: ServerProcess,
  projectId: string,
  acknowledged: readonly string[],
) {
  const facts = (await everyFact(`${server.url}/api/projects/${projectId}/facts`)).map((fact) => fact.id);
  const stored = new Set(facts);
  const lost = acknowledged.filter((id) => !stored.has(id)).length;
  report(
    `${name}: ${what}, ${acknowledged.length} acknowledged`,
    `${lost} lost, ${facts.length - stored.size} doubled`,
    '0, 0',
  );
}

async function killServers({ name, all, again }: Servers): Promise<void> {
  let running = [...all];
  const storm = writers(() => running.map((server) => server.url));
  await request(`${running[0]!.url}/api/projects`, 'POST', storm.definition);
  const clients = storm.begin();
  for (let kill = 0; kill < kills; kill += 1) {
    await storm.until(storm.acknowledged.length + 40);
    const victim = running[kill % running.length]!;
    await victim.kill();
    const next = await again();
    running = running.map((server) => (server === victim ? next : server));
  }
  await storm.until(storm.acknowledged.length + 40);
  storm.end();
  await Promise.all(clients);
  await tell(
    name,
    `${kills} × kill -9 of a server`,
    running[0]!,
    storm.definition.project.id,
    storm.acknowledged,
  );
  await Promise.all(running.map((server) => server.stop()));
}

async function crashDatabase({ all }: Servers): Promise<void> {
  const storm = writers(() => all.map((server) => server.url));
  await request(`${all[0]!.url}/api/projects`, 'POST', storm.definition);
  const clients = storm.begin();
  for (let crash = 0; crash < crashes; crash += 1) {
    await storm.until(storm.acknowledged.length + 40);
    const script = join(process.env.CORDEL_ROOT!, 'scripts/crashPostgres.mjs');
    const { status, stderr } = spawnSync(process.execPath, [script], { encoding: 'utf8' });
    if (status !== 0) throw new Error(stderr);
  }
  await storm.until(storm.acknowledged.length + 40);
  storm.end();
  await Promise.all(clients);
  await tell(
    'PostgreSQL',
    `${crashes} crashes of its server`,
    all[0]!,
    storm.definition.project.id,
    storm.acknowledged,
  );
  await Promise.all(all.map((server) => server.stop()));
}
