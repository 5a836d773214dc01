import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Browser, type Page } from 'puppeteer-core';
import { openBrowser, preparePage, padKey, press, see, seeGone } from './support/browser';
import { catchSaved, documentsKept, onDevice } from './support/device';
import { demoJourneys } from './support/journeys';

/** The night in a manhole: no network from the beginning, a browser that dies, a server that dies in the middle. */

const night = demoJourneys();
let profile: string;
let browser: Browser;
let page: Page;

beforeEach(async () => {
  profile = mkdtempSync(join(tmpdir(), 'cordel-profile-'));
  await openAgain();
}, 120_000);
afterEach(async () => {
  await browser.close();
  rmSync(profile, { recursive: true, force: true });
});

/** The browser of one device, started anew: everything that it kept is there. */
async function openAgain(): Promise<void> {
  browser = await openBrowser(profile);
  page = await browser.newPage();
  await preparePage(page);
}
const killBrowser = async () => {
  const ended = new Promise((done) => browser.process()!.once('exit', done));
  browser.process()!.kill('SIGKILL');
  await ended;
};

test('the bench opens with no network and all that was recorded, a killed browser loses nothing, and it is sent when the server is back', async () => {
  await page.goto(night.demo.bench(3, 6));
  await see(page, 'U2 Curva do Rio · 60 of 107', 'head');
  await onDevice(page);
  // The rest of the project came along.
  await documentsKept(page, '', 6, 6);
  const before = await night.facts();
  await night.kill();

  await page.reload();
  await see(page, 'U2 Curva do Rio · 60 of 107', 'head');
  await press(page, padKey(2));
  await see(page, 'Slot 6 holds: 0.02 of 0.10 dB.');
  await press(page, padKey(3));
  await see(page, 'U2 Curva do Rio · 62 of 107', 'head');
  await see(page, '2 to send', 'head');
  await killBrowser();

  await openAgain();
  await page.goto(night.demo.bench(3, 8));
  await see(page, 'U2 Curva do Rio · 62 of 107', 'head');
  await press(page, padKey(4));
  await see(page, 'U2 Curva do Rio · 63 of 107', 'head');
  await page.goto(night.demo.closure);
  await see(page, '63 of 107 settled');
  await press(page, '3 to send', 'link');
  await see(page, '3 to send, the oldest first. The server does not answer; it is tried again by itself.');
  await see(page, 'Reading 0.02 dB');
  await see(page, 'U2 Curva do Rio, Vale do Umbu ring');

  // The rest of the project is there too, in a browser that never had a server in this run.
  for (const [address, shows] of [
    // With what the server has not counted yet.
    [night.demo.line, '63 of 107'],
    [`${night.demo.line}/losses`, '63 of 107'],
    [night.demo.closure, 'tray 3'],
    [`${night.demo.line}/kit`, 'Single sleeve, 60 mm'],
    [`${night.demo.line}/limits`, 'Save and judge again'],
    [night.server.url, 'Vale do Umbu ring'],
  ] as const) {
    await page.goto(address);
    await see(page, new RegExp(shows, 'i'));
  }

  await night.startAgain();
  await page.goto(`${night.server.url}/waiting`);
  await see(page, 'Everything is on the server');
  const after = await night.facts();
  expect(after).toHaveLength(before.length + 3);
  expect(new Set(after.map((fact) => fact.id)).size).toBe(after.length);
  await seeGone(page, 'to send', 'head');
}, 180_000);

test('a project is taken along with one tap on the shelf, opens with no network, and is removed only when nothing of it waits', async () => {
  const name = 'Vale do Umbu ring, section 2';
  const row = { role: 'group', name: `${name} on this device` } as const;
  await page.goto(night.server.url);
  await see(page, 'Not on this device as a whole', row);
  await press(page, `Take along ${name}`);
  await see(page, /Along: \d+ records, [\d.]+ [kM]B, in [\d.]+ s\./, row);
  await see(page, 'On this device, as of', row);
  await documentsKept(page, night.demo.projectId, 2, 2);
  await onDevice(page);
  const ofServer = await Promise.all(
    ['loss-sheet.csv', 'project.json'].map(async (name) =>
      (await fetch(`${night.server.url}/api/projects/${night.demo.projectId}/${name}`)).text(),
    ),
  );
  await night.kill();

  // What is handed over is made on the device, and is what the server made.
  await page.goto(`${night.demo.line}/losses`);
  await see(page, 'dB mean');
  await catchSaved(page);
  const saved = async (label: string) => {
    await press(page, label);
    await page.waitForFunction(() => window.saved !== undefined);
    const text = await page.evaluate(() => window.saved!);
    await page.evaluate(() => void (window.saved = undefined));
    return text;
  };
  // Reading a blob as text leaves its mark at the start out, as fetch does.
  expect(await saved('Loss sheet (CSV)')).toBe(ofServer[0]);
  await see(page, 'Made from the records on this device, since the server does not answer.');
  const timeless = (text: string) => text.replaceAll(/"receivedAt": "[^"]*"/g, '');
  expect(timeless(await saved('Whole project (JSON)'))).toBe(timeless(ofServer[1]!));

  await page.goto(night.demo.bench(3, 6));
  await see(page, 'U2 Curva do Rio · 60 of 107', 'head');
  await press(page, padKey(2));
  await see(page, 'Slot 6 holds: 0.02 of 0.10 dB.');
  await page.goto(night.server.url);
  await see(page, '1 to send', row);
  await press(page, `Remove ${name} from this device`);
  await press(page, `Remove it: ${name}`);
  await see(page, 'Not removed: something of it is not on the server yet.', row);
  await page.goto(night.demo.bench(3, 6));
  await see(page, 'U2 Curva do Rio · 61 of 107', 'head');

  await night.startAgain();
  await page.goto(night.server.url);
  await see(page, 'On this device, as of', row);
  await seeGone(page, 'to send', row);
  await press(page, `Remove ${name} from this device`);
  await press(page, `Remove it: ${name}`);
  await see(page, 'Not on this device as a whole', row);
  // Nor are its documents, which this page never showed.
  await documentsKept(page, night.demo.projectId, 0, 0);
  await night.kill();
  await page.goto(night.demo.bench(3, 6));
  await see(page, 'The server does not answer. What you enter is kept on this device.');
}, 180_000);
