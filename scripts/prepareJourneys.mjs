/** What journeys need: a PostgreSQL cluster with the demo, and a browser for each worker, for all files that it goes through. */
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import { ensureChromium } from './chromium.mjs';
import { root } from './lib.mjs';
import preparePostgres from './preparePostgres.mjs';

const require = createRequire(join(root, 'e2e/package.json'));

export default async function prepareJourneys({ maxWorkers }) {
  await preparePostgres();
  ensureChromium();
  const { launch } = require('puppeteer-core');
  const args = JSON.parse(readFileSync(join(root, 'e2e/support/chromium.json'), 'utf8'));
  globalThis.cordelBrowsers = await Promise.all(
    Array.from({ length: maxWorkers }, () => launch({ executablePath: process.env.CHROMIUM, args })),
  );
  process.env.CORDEL_TEST_BROWSERS = JSON.stringify(globalThis.cordelBrowsers.map((one) => one.wsEndpoint()));
}
