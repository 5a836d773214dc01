/** npm run screenshots: makes the pictures in docs/screenshots anew from the demo. */
import { join } from 'node:path';
import { root } from './lib.mjs';
import { prepareAll } from './prepareAll.mjs';

await prepareAll();
const { bundleAndRun } = await import('./bundleAndRun.mjs');
process.exit(await bundleAndRun('e2e/screenshots.ts', [join(root, 'docs/screenshots')]));
