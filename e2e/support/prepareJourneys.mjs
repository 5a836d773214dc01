/**
 * What journeys need: a PostgreSQL cluster with the demo, and a browser for each worker, for all files that it goes
 * through.
 */
import { readFileSync } from 'node:fs';
import { launch } from 'puppeteer-core';
import { ensureChromium } from '../../scripts/chromium.mjs';
import preparePostgres from '../../scripts/preparePostgres.mjs';

export default async function prepareJourneys({ maxWorkers }) {
  await preparePostgres();
  ensureChromium();
  const args = JSON.parse(readFileSync(new URL('chromium.json', import.meta.url), 'utf8'));
  globalThis.cordelBrowsers = await Promise.all(
    Array.from({ length: maxWorkers }, () => launch({ executablePath: process.env.CHROMIUM, args })),
  );
  process.env.CORDEL_TEST_BROWSERS = JSON.stringify(globalThis.cordelBrowsers.map((one) => one.wsEndpoint()));
}
