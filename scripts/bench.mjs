/** npm run bench: builds what is measured and prints the figures. `npm run bench -- server` prints some: ledger, judge, plan, server, shelf, kill, tap, night, typing, start. */
import { prepareAll } from './prepareAll.mjs';

await prepareAll();
const { default: preparePostgres } = await import('./preparePostgres.mjs');
const { default: endPostgres } = await import('./endPostgres.mjs');
await preparePostgres();
const { bundleAndRun } = await import('./bundleAndRun.mjs');
const status = await bundleAndRun('e2e/benchmarks/main.ts', process.argv.slice(2));
endPostgres();
process.exit(status);
