import { factVersion } from '@cordel/core';
import { rmSync } from 'node:fs';
import type { Browser, Page } from 'puppeteer-core';
import {
  dataFolder,
  everyFact,
  removeFolders,
  startServer,
  type ServerProcess,
} from '../server/test/process';
import { fill, openBrowser, openPage, padKey, patience, press, see, seeGone } from './support/browser';
import { onDevice } from './support/device';
import { newerBuild } from './support/newerBuild';
import { firstProject } from './support/shelf';

/** Two builds: an application that is older or newer than its server records all the same, and the newer one is taken when nobody enters anything. */

let newer: string;
let folder: string;
let server: ServerProcess;
let browser: Browser;
let page: Page;

beforeAll(async () => {
  newer = newerBuild();
  folder = dataFolder('demo');
  server = await startServer(folder);
  browser = await openBrowser();
  ({ page } = await openPage(browser));
}, 120_000);
afterAll(async () => {
  await browser.close();
  await server.stop();
  removeFolders();
  rmSync(newer, { recursive: true, force: true });
});

/** Another build at the same address, on the same data. */
async function become(installation?: string): Promise<void> {
  const { port } = new URL(server.url);
  await server.stop();
  server = await startServer(folder, { PORT: port }, installation);
}
const newest = () =>
  page.waitForFunction(async () => (await navigator.serviceWorker.getRegistration())?.waiting != null, {
    polling: 200,
    timeout: patience,
  });

test('an older application records on a newer server, is renewed when nobody enters anything, and a newer one records on an older server', async () => {
  const demo = await firstProject(server);
  const facts = async () =>
    (await everyFact(`${server.url}/api/projects/${demo.projectId}/facts`)) as unknown as {
      kind: string;
      v: number;
    }[];
  const tries = async () => (await facts()).filter((fact) => fact.kind === 'attempt').length;
  const before = await tries();
  await page.goto(demo.bench(3, 6));
  await see(page, 'U2 Curva do Rio · 60 of 107', 'head');
  await onDevice(page);

  // Old application, no server, then a newer one: what was recorded is sent to it.
  const { port } = new URL(server.url);
  await server.stop();
  await press(page, padKey(2));
  await see(page, 'Slot 6 holds: 0.02 of 0.10 dB.');
  await see(page, '1 to send', 'head');
  server = await startServer(folder, { PORT: port }, newer);
  await seeGone(page, 'to send', 'head');
  expect(await tries()).toBe(before + 1);

  // It comes beside the one that runs. In a form it is not taken.
  await page.goto(`${demo.line}/limits`);
  await fill(page, 'Single splice, at most (dB)', '0.21');
  await newest();
  expect(
    await page.$eval('input[aria-label^="Single splice"]', (box) => (box as HTMLInputElement).value),
  ).toBe('0.21');
  await press(page, 'Line');
  await see(page, 'This is a newer Cordel now. Nothing that waits was lost.');
  await see(page, '61 of 107');
  await page.goto(`${server.url}/waiting`);
  await see(page, 'All of it is on the server');

  // New application, old server: tries of a version that it does not know.
  await page.goto(demo.bench(3, 7));
  await see(page, 'U2 Curva do Rio · 61 of 107', 'head');
  await become();
  await press(page, padKey(3));
  await see(page, 'Slot 7 holds: 0.03 of 0.10 dB.');
  await seeGone(page, 'to send', 'head');
  const stored = await facts();
  expect(stored.filter((fact) => fact.kind === 'attempt')).toHaveLength(before + 2);
  expect(stored.at(-1)!.v).toBe(factVersion('attempt') + 1);

  // And the newer server reads all of them.
  await become(newer);
  await page.goto(demo.closure);
  await see(page, '62 of 107 settled');
}, 180_000);
