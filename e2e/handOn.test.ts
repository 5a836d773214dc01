import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import { fill, padKey, press, see } from './support/browser';
import { catchSaved, documentsKept, limitsKept, onDevice } from './support/device';
import { demoJourneys } from './support/journeys';

/** A project goes from phone to phone as a file, with no network: what both did is there on both, and on the server once it answers. */

const night = demoJourneys();
let files: string;

beforeAll(() => (files = mkdtempSync(join(tmpdir(), 'cordel-files-'))));
afterAll(() => rmSync(files, { recursive: true, force: true }));

/** A phone on which the project, or only the application, is. */
async function phone(address: string): Promise<Page> {
  const page = await night.open();
  await page.goto(address);
  await onDevice(page);
  if (address !== night.server.url) await documentsKept(page, '', 6, 6);
  return page;
}

/** What the page hands on, as a file. */
async function handedOn(page: Page): Promise<string> {
  await page.goto(`${night.demo.line}/losses`);
  await catchSaved(page);
  await press(page, /^Hand to another device/);
  await see(page, 'Saved. Send the file to the other device, and import it there on the shelf.');
  const path = join(files, `${Date.now()}.json`);
  writeFileSync(path, await page.evaluate(() => window.saved!));
  return path;
}

async function take(page: Page, path: string): Promise<void> {
  await page.goto(night.server.url);
  const chooser = page.waitForFileChooser();
  await press(page, 'Import a project file');
  await (await chooser).accept([path]);
}

async function limit(page: Page, label: string, value: string): Promise<void> {
  await page.goto(`${night.demo.line}/limits`);
  await fill(page, label, value);
  await press(page, 'Save and judge again');
  // What waits says nothing here, a reading waits already.
  await limitsKept(page);
  await see(page, '2 to send', 'head');
}

const single = 'Single splice, at most (dB)';

test('two phones that both worked on a project are brought together through a file, and a third that never had it works on it from there', async () => {
  const third = await phone(night.server.url);
  const first = await phone(night.demo.bench(3, 6));
  const second = await phone(night.demo.bench(4, 1));
  const before = (await night.facts()).length;
  await night.kill();

  await press(first, padKey(2));
  await see(first, 'Slot 6 holds: 0.02 of 0.10 dB.');
  await limit(first, single, '0.21');
  await limit(first, 'Tray mean, at most (dB)', '0.04');
  await press(second, padKey(3));
  await see(second, 'Slot 1 holds: 0.03 of 0.10 dB.');
  await limit(second, single, '0.25');

  await take(second, await handedOn(first));
  await see(second, 'Brought together with what was here: 1 record was new, 1 change came along.');
  await press(second, 'Decide');
  await press(second, 'Decide: Settings and limits changed');
  const group = { role: 'radiogroup', name: 'Single splice, at most' } as const;
  await see(second, '0.25 dB', group);
  await press(second, 'Theirs: 0.21 dB', 'radio');
  await press(second, 'Save what is chosen');
  // Kept: back among what waits, with nothing left to decide.
  await see(second, /\d to send, the oldest first/);
  await second.goto(night.demo.closure);
  await see(second, '63 of 107 settled');
  // Taken once more it changes nothing.
  const file = await handedOn(first);
  await take(second, file);
  await see(second, 'no record');

  await take(third, file);
  await see(third, 'On this device now: ');
  await press(third, 'Open the project');
  await see(third, 'Vale do Umbu ring, section 2', 'head');
  await see(third, '62 of 107');
  await third.goto(night.demo.bench(3, 8));
  await press(third, padKey(2));
  await see(third, 'Slot 8 holds: 0.02 of 0.21 dB.');

  await night.startAgain();
  for (const page of [second, first, third]) {
    await page.goto(`${night.server.url}/waiting`);
    await see(page, 'Everything is on the server');
  }
  const facts = await night.facts();
  expect(facts).toHaveLength(before + 3);
  expect(new Set(facts.map((fact) => fact.id)).size).toBe(facts.length);
  const { project } = await night.definition();
  expect(project.limits).toMatchObject({ singleMax: 0.21, trayMean: 0.04 });
  await first.goto(night.demo.closure);
  await see(first, '64 of 107 settled');
}, 180_000);
