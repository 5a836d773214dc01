/** npm run bench: builds what is measured and prints the figures. */
import { prepareAll } from './prepareAll.mjs';

await prepareAll();
const { bundleAndRun } = await import('./bundleAndRun.mjs');
process.exit(await bundleAndRun('e2e/benchmarks/main.ts'));
