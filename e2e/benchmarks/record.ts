import { buildLedger, planClosure } from '@cordel/core';
import { find, findIndex } from '@cordel/core/find';
import { makeAttempt, makeProject } from '../../server/test/makeProject';
import { dataFolder, removeFolders, request, startServer } from '../../server/test/process';
import { at, report, timed } from './figures';

/** Documents of a large closure, made while others are served, and how long a bare request takes meanwhile. */
export async function benchRecord(): Promise<void> {
  const server = await startServer(dataFolder('empty'));
  const api = `${server.url}/api`;
  const filled = async (tubes: number) => {
    const made = makeProject(tubes, `${tubes * 12} fibers`);
    await request(`${api}/projects`, 'POST', made.definition);
    const project = `${api}/projects/${made.definition.project.id}`;
    const facts = made.splices.map((splice, index) =>
      makeAttempt(made.closureId, splice, ((index * 37) % 13) / 100),
    );
    for (let start = 0; start < facts.length; start += 500)
      await request(`${project}/facts`, 'POST', { facts: facts.slice(start, start + 500) });
    return { project, splices: facts.length, made };
  };
  const timeOf = async (url: string) => {
    const began = performance.now();
    const bytes = await (await fetch(url)).arrayBuffer();
    return { ms: performance.now() - began, kB: bytes.byteLength / 1024 };
  };
  const seconds = (ms: number) => `${(ms / 1000).toFixed(1)} s`;
  // What is there before a line of a document is written: a thread, its programs, the facts.
  const small = await filled(1);
  const bare = await timeOf(`${small.project}/record/geojson`);
  const large = await filled(72);
  const pdf = await timeOf(`${large.project}/record/pdf`);
  report(
    `PDF of ${large.splices} splices with charts, ${pdf.kB.toFixed(0)} KB (12 as a map: ${seconds(bare.ms)})`,
    `${seconds(pdf.ms)}, ${(pdf.ms / bare.ms).toFixed(1)} ×`,
    'under 3 s',
  );
  const huge = await filled(584);
  const waits: number[] = [];
  let going = true;
  const others = (async () => {
    while (going) {
      const began = performance.now();
      await (await fetch(`${small.project}`)).arrayBuffer();
      waits.push(performance.now() - began);
      await new Promise((done) => setTimeout(done, 20));
    }
  })();
  const hugePdf = await timeOf(`${huge.project}/record/pdf`);
  going = false;
  await others;
  report(
    `PDF of ${huge.splices} splices, ${hugePdf.kB.toFixed(0)} KB`,
    `${seconds(hugePdf.ms)}, ${(hugePdf.ms / bare.ms).toFixed(1)} ×`,
    'under 15 s',
  );
  report(
    `Others meanwhile, ${waits.length} requests: median, worst`,
    `${at(0.5, waits).toFixed(0)} ms, ${at(1, waits).toFixed(0)} ms`,
    'under 200 ms',
  );
  const book = await timeOf(`${huge.project}/record/xlsx`);
  report(
    `Its workbook, ${book.kB.toFixed(0)} KB`,
    `${seconds(book.ms)}, ${(book.ms / bare.ms).toFixed(1)} ×`,
    'under 5 s',
  );
  const text = await (await fetch(`${huge.project}/project.json`)).text();
  await server.stop();
  const other = await startServer(dataFolder('empty'));
  const began = performance.now();
  const { status } = await request(`${other.url}/api/import`, 'POST', text);
  const took = performance.now() - began;
  report(
    `Import of it, ${(text.length / 1e6).toFixed(1)} MB (${status})`,
    `${seconds(took)}, ${(took / bare.ms).toFixed(1)} ×`,
    'under 10 s',
  );
  await other.stop();
  removeFolders();
  benchFind(huge.made);
}

/** Finding a splice among 7 008, beside looking once through a text of each. */
function benchFind({ definition, closureId, splices }: ReturnType<typeof makeProject>): void {
  const facts = splices.map((splice, index) => makeAttempt(closureId, splice, ((index * 37) % 13) / 100));
  const [closure] = definition.closures;
  const plan = planClosure(closure!, new Map(definition.cables.map((cable) => [cable.id, cable])));
  const ledger = buildLedger(plan, facts, definition.project.limits);
  const index = findIndex(definition, new Map([[closureId, { ledger, facts }]]));
  const queries = ['A 3456', 'tray 100 blue', 'joint redo orange', '0.1 km from Hub', 'nothing like that'];
  const plain = timed(200, () => index.texts.filter((one) => one.includes('nowhere')));
  const found = timed(200, () => queries.forEach((query) => find(index, query)));
  report(
    `Find among ${splices.length} splices, each of five queries: median, worst (a plain look: ${at(0.5, plain).toFixed(2)} ms)`,
    `${(at(0.5, found) / 5).toFixed(1)} ms, ${(at(1, found) / 5).toFixed(1)} ms`,
    'under 50 ms',
  );
}
