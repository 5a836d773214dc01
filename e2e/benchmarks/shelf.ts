import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { projectFileParts } from '@cordel/core';
import { makeAttempt, makeProject } from '../../server/test/makeProject';
import { removeFolders, request, temporaryFolder } from '../../server/test/process';
import { embedded, onPostgres, type Servers } from './databases';
import { at, report } from './figures';

const projects = 50;
const factsEach = 800;

/** A shelf of 50 projects with 40 000 records: itself, a reading beside two people who load it again and again, and what an import does to others. */
export async function benchShelf(): Promise<void> {
  await measure(await embedded());
  await measure(await onPostgres());
  removeFolders();
}

function fileOf(count: number, tubes: number): { text: string; made: ReturnType<typeof makeProject> } {
  const made = makeProject(tubes);
  const gear = { machine: { id: '01962d00-0000-7000-8000-000000000001', label: 'Single 1' } };
  const facts = Array.from({ length: count }, (_, index) => ({
    receivedAt: new Date().toISOString(),
    fact: makeAttempt(made.closureId, made.splices[index % made.splices.length]!, (index % 9) / 100, {
      gear,
    }),
  }));
  return { text: [...projectFileParts(made.definition, facts)].join(''), made };
}

/** Sends a file from a process of its own, read from the disk: to make 59 MB ready for sending is not what others wait for at the server. */
async function importElsewhere(url: string, text: string): Promise<void> {
  const file = join(temporaryFolder(), 'project.json');
  writeFileSync(file, text);
  const code = `require('node:fs').openAsBlob(process.argv[2]).then((body) =>
    fetch(process.argv[1], { method: 'POST', headers: { 'Content-Type': 'application/json' }, body })
      .then((answer) => answer.text()));`;
  await once(spawn(process.execPath, ['-e', code, url, file]), 'close');
}

async function timed(work: () => Promise<unknown>): Promise<number> {
  const began = performance.now();
  await work();
  return performance.now() - began;
}

async function measure({ name, all }: Servers): Promise<void> {
  const [server] = all;
  const api = `${server!.url}/api`;
  const first = fileOf(factsEach, 72);
  await request(`${api}/import`, 'POST', first.text);
  for (let count = 1; count < projects; count += 1)
    await request(`${api}/import`, 'POST', fileOf(factsEach, 72).text);
  const shelf = () => timed(() => request(`${api}/projects`));
  const cold = await shelf();
  const warm: number[] = [];
  for (let run = 0; run < 20; run += 1) warm.push(await shelf());
  const empty: number[] = [];
  for (let run = 0; run < 20; run += 1) empty.push(await timed(() => request(`${api}/version`)));
  report(
    `${name}: the shelf, ${projects} projects, ${projects * factsEach} records (empty request: ${at(0.5, empty).toFixed(1)} ms; first time: ${cold.toFixed(0)} ms)`,
    `median ${at(0.5, warm).toFixed(0)} ms`,
    'under 100 ms',
  );

  let over = false;
  const people = [1, 2].map(async () => {
    while (!over) await shelf();
  });
  const readings: number[] = [];
  const url = `${api}/projects/${first.made.definition.project.id}/facts`;
  for (let index = 0; index < 100; index += 1) {
    const facts = [makeAttempt(first.made.closureId, first.made.splices[index]!, 0.03)];
    readings.push(await timed(() => request(url, 'POST', { facts })));
  }
  over = true;
  await Promise.all(people);
  report(
    `${name}: a reading, beside two people who reload the shelf`,
    `median ${at(0.5, readings).toFixed(0)} ms, worst ${Math.max(...readings).toFixed(0)} ms`,
    'median under 30 ms',
  );

  const large = fileOf(46_000, 576);
  const wrong = fileOf(8000, 72).text.replaceAll('"simulated": true', '"simulated": true, "extra": 1');
  for (const [what, text] of [
    [`a good file of ${Math.round(large.text.length / 1e6)} MB`, large.text],
    ['8 000 records with an unknown field each', wrong],
  ] as const) {
    let answered = false;
    const waits: number[] = [];
    const took = timed(() => importElsewhere(`${api}/import`, text)).finally(() => (answered = true));
    while (!answered) waits.push(await timed(() => request(`${api}/health`)));
    report(
      `${name}: import of ${what}; others wait meanwhile (${waits.length} asked)`,
      `${((await took) / 1000).toFixed(1)} s; worst ${waits.reduce((most, wait) => Math.max(most, wait), 0).toFixed(0)} ms`,
      'others under 200 ms',
    );
  }
  await Promise.all(all.map((one) => one.stop()));
}
