import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, Page } from 'puppeteer-core';
import { makeProject } from '../../server/test/makeProject';
import {
  dataFolder,
  everyFact,
  removeFolders,
  request,
  startServer,
  type ServerProcess,
} from '../../server/test/process';
import { openBrowser, preparePage, see } from '../support/browser';
import { onDevice } from '../support/device';
import { at, report } from './figures';

/** After so many the browser is killed, and comes back on the same profile. */
const kills = [288, 576];
const readings = 30;

/**
 * A night in a manhole: 864 splices recorded through the bench with no network, the browser killed twice meanwhile, then sent to a server that is killed in the middle of
 * it. What a phone takes to start in such a closure, what the page's memory does, and how soon a reading is on a server that answers.
 */
export async function benchNight(): Promise<void> {
  const { definition, closureId, splices } = makeProject(72);
  const folder = dataFolder('empty');
  const profile = mkdtempSync(join(tmpdir(), 'cordel-night-'));
  let server = await startServer(folder);
  const { url } = server;
  const { port } = new URL(url);
  await request(`${url}/api/projects`, 'POST', definition);
  const facts = `${url}/api/projects/${definition.project.id}/facts`;
  const address = (index: number) => {
    const { tray, slot } = splices[index]!;
    return `${url}/p/${definition.project.id}/c/${closureId}/t/${tray}/${slot}`;
  };
  const title = (index: number) => `Tray ${splices[index]!.tray} · slot ${splices[index]!.slot}`;

  let { browser, page } = await openOn(profile);
  await page.goto(address(0));
  await see(page, title(0));
  await onDevice(page);
  await server.kill();

  // The night.
  let grown = 0;
  let before = await heap(page);
  const began = Date.now();
  for (let index = 0; index < splices.length; index += 1) {
    if (kills.includes(index)) {
      grown += (await heap(page)) - before;
      await kill(browser);
      ({ browser, page } = await openOn(profile));
      await page.goto(address(index));
      await see(page, title(index));
      before = await heap(page);
    }
    await tap(page, '0.03 dB');
    if (index + 1 < splices.length) await headed(page, title(index + 1));
  }
  await see(page, `${splices.length} to send`, 'head');
  grown += (await heap(page)) - before;
  const tapping = (Date.now() - began) / 1000;

  await coldStart(browser, address(0), title(0));

  // The server is back, is killed in the middle, and comes back again.
  let sending = 0;
  const sendUntil = async (enough: (count: number) => boolean) => {
    server = await startServer(folder, { PORT: port });
    const start = Date.now();
    await page.evaluate(() => window.dispatchEvent(new Event('online')));
    let count = await countOf(facts);
    while (!enough(count)) count = await countOf(facts);
    sending += Date.now() - start;
    return count;
  };
  const atKill = await sendUntil((count) => count > 0);
  await server.kill();
  await sendUntil((count) => count >= splices.length);
  const stored = await everyFact(facts);
  const distinct = new Set(stored.map((fact) => fact.id)).size;
  report(
    `A night with no network: ${splices.length} recorded by taps in ${tapping.toFixed(0)} s, browser killed ${kills.length} times, server killed with ${atKill} stored`,
    `${distinct} stored, ${splices.length - distinct} lost, ${stored.length - distinct} doubled, sent in ${(sending / 1000).toFixed(1)} s`,
    `${splices.length} stored, 0 lost, 0 doubled, under 20 s`,
  );
  report(
    'What the page’s memory grew by over that night, after collecting garbage',
    `${(grown / 1e6).toFixed(1)} MB`,
    'under 50 MB',
  );
  await kill(browser);
  await toServer(server, profile);
  await server.stop();
  rmSync(profile, { recursive: true, force: true });
  removeFolders();
}

/** From asking for the address, with no network, until the bench stands with everything that was recorded. */
async function coldStart(browser: Browser, address: string, title: string): Promise<void> {
  const starts: number[] = [];
  for (let round = 0; round < 5; round += 1) {
    const page = await browser.newPage();
    await preparePage(page);
    await page.emulateCPUThrottling(4);
    await page.goto(address, { waitUntil: 'domcontentloaded' });
    await page.waitForFunction(
      (wanted) =>
        document.querySelector('[role="heading"]')?.textContent === wanted &&
        // What can be done at a splice that holds.
        document.body.innerText.includes('Splice it again') &&
        /864 of 864/.test(document.querySelector('[role="banner"]')?.textContent ?? ''),
      { polling: 'raf', timeout: 60_000 },
      title,
    );
    starts.push(await page.evaluate(() => performance.now()));
    await page.close();
  }
  report(
    `Cold start with no network, a closure of 864 splices all recorded, 4 × slower (${starts.length} starts)`,
    `median ${at(0.5, starts).toFixed(0)} ms, worst ${Math.max(...starts).toFixed(0)} ms`,
    'under 3 000 ms',
  );
}

/** From the tap to the moment at which the server gives the reading out. */
async function toServer(server: ServerProcess, profile: string): Promise<void> {
  const { definition, closureId, splices } = makeProject(12);
  await request(`${server.url}/api/projects`, 'POST', definition);
  const facts = `${server.url}/api/projects/${definition.project.id}/facts`;
  const { browser, page } = await openOn(profile);
  const [first] = splices;
  await page.goto(`${server.url}/p/${definition.project.id}/c/${closureId}/t/${first!.tray}/${first!.slot}`);
  await see(page, `Tray ${first!.tray} · slot ${first!.slot}`);
  const times: number[] = [];
  for (let index = 0; index < readings; index += 1) {
    const start = performance.now();
    await tap(page, '0.03 dB');
    while ((await countOf(facts)) <= index);
    times.push(performance.now() - start);
  }
  report(
    `From a tap to the reading on the server (${readings})`,
    `median ${at(0.5, times).toFixed(0)} ms, worst ${Math.max(...times).toFixed(0)} ms`,
    'under 1 000 ms',
  );
  await browser.close();
}

async function openOn(profile: string): Promise<{ browser: Browser; page: Page }> {
  const browser = await openBrowser(profile);
  const page = await browser.newPage();
  await preparePage(page);
  return { browser, page };
}

async function kill(browser: Browser): Promise<void> {
  const ended = new Promise((done) => browser.process()!.once('exit', done));
  browser.process()!.kill('SIGKILL');
  await ended;
}

async function tap(page: Page, key: string): Promise<void> {
  const handle = await page.waitForSelector(`[aria-label="${key}"]`);
  await handle!.tap();
}

const headed = (page: Page, title: string) =>
  page.waitForFunction(
    (wanted) => document.querySelector('[role="heading"]')?.textContent === wanted,
    { polling: 'raf' },
    title,
  );

/** What the page's script holds, bytes. */
async function heap(page: Page): Promise<number> {
  const session = await page.createCDPSession();
  await session.send('HeapProfiler.collectGarbage');
  const { usedSize } = await session.send('Runtime.getHeapUsage');
  await session.detach();
  return usedSize;
}

/** How many records the server has; 0 while it does not answer. */
async function countOf(facts: string): Promise<number> {
  const { body } = await request<{ end: number }>(`${facts}?limit=1`);
  return body.end;
}
