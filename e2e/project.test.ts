import type { Page } from 'puppeteer-core';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fill, padKey, press, see } from './support/browser';
import { demoJourneys } from './support/journeys';
import { savedBy } from './support/saved';
import { firstProject } from './support/shelf';

/** Journeys around a project: made by hand, its limits changed, handed over and taken in again; and the bench by keyboard. */

const at = demoJourneys();
const bare = demoJourneys({ shelf: 'empty' });
let folder: string;
beforeAll(() => (folder = mkdtempSync(join(tmpdir(), 'cordel-files-'))));
afterAll(() => rmSync(folder, { recursive: true }));

/** The answer is waited for before the tap that asks for it: on a quick server it is there before the tap returns. */
async function saved(page: Page, act: () => Promise<void>): Promise<void> {
  await Promise.all([
    page.waitForResponse((response) => response.url().endsWith('/settings') && response.ok()),
    act(),
  ]);
}

test('a project is made by hand, wrong input is told in place, and its first splice is recorded', async () => {
  const page = await bare.open();
  await page.goto(bare.server.url);
  await see(page, 'The shelf is empty');
  await press(page, 'New project');
  await press(page, 'Make the project');
  await see(page, 'Give it a name.');
  await fill(page, 'Project name', 'Yard job');
  await fill(page, 'Cable A comes from', 'Hub');
  await fill(page, 'Cable B goes to', 'Cabinet');
  await fill(page, 'Closure name', 'Joint 1');
  await press(page, 'Feet, inches');
  await fill(page, 'Distance along the route (ft)', '1200');
  await fill(page, 'Trays', '0');
  await press(page, 'Make the project');
  await see(page, 'At least 1 tray.');
  await fill(page, 'Trays', '4');
  await see(page, '96 splices, fiber 1 to fiber 1, in 96 slots.');
  await press(page, 'Make the project');
  await see(page, '0 of 96 settled');
  await see(page, /1.200.ft/);
  await press(page, 'Splice tray 1, slot 1');
  await press(page, padKey(3));
  await see(page, 'Slot 1 holds: 0.03 of 0.10 dB.');
  await page.close();
}, 120_000);

test('changing a limit judges everything anew', async () => {
  const { demo } = at;
  const page = await at.open();
  await page.goto(`${demo.line}/limits`);
  await fill(page, 'Single splice, at most (dB)', '0');
  await press(page, 'Save and judge again');
  await see(page, 'A limit is above 0 dB.');
  await fill(page, 'Single splice, at most (dB)', '0.16');
  await saved(page, () => press(page, 'Save and judge again'));
  await page.goto(demo.closure);
  await see(page, '61 of 107 settled');
  await page.goto(demo.bench(2, 19));
  await see(page, 'This splice holds.');
  await page.goto(`${demo.line}/limits`);
  await press(page, /^Feeder, tight/);
  await saved(page, () => press(page, 'Save and judge again'));
  await page.goto(demo.closure);
  await see(page, '60 of 107 settled');
  await see(page, '1 to redo');
  await page.close();
}, 120_000);

test('two people change the limits: the later one is told and sees the newer ones', async () => {
  const { demo } = at;
  const page = await at.open();
  await page.goto(`${demo.line}/limits`);
  await fill(page, 'Single splice, at most (dB)', '0.2');
  const { id: _, lineVersion: __, ...settings } = (await at.definition()).project;
  await fetch(`${at.project}/settings`, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ ...settings, limits: { ...settings.limits, tries: 5 } }),
  });
  await press(page, 'Save and judge again');
  await see(page, 'Somebody changed these settings while you did.');
  await press(page, 'Show the newer ones');
  await page.waitForFunction(
    () => document.querySelector<HTMLInputElement>('input[aria-label^="Tries"]')?.value === '5',
    { polling: 'raf' },
  );
  await page.close();
}, 120_000);

test('a project is handed over as a file, taken in by an empty server, and a broken file says where', async () => {
  const { demo } = at;
  const text = await (await fetch(`${at.project}/project.json`)).text();

  const page = await bare.open();
  await page.goto(bare.server.url);
  const take = async (name: string, content: string) => {
    writeFileSync(join(folder, name), content);
    const chooser = page.waitForFileChooser();
    await press(page, 'Import a project file');
    await (await chooser).accept([join(folder, name)]);
  };
  await take('broken.json', text.replace('"tries": 3', '"tries": 0'));
  await see(page, /Line \d+, project\.limits\.tries: At least 1 try\. Nothing was changed\./);
  await press(page, 'Close');
  await take('whole.json', text);
  await see(page, 'U2 Curva do Rio');
  await see(page, '60 of 107 · 1 redo · 1 owner’s call');
  expect((await firstProject(bare.server)).rollUp).toEqual(demo.rollUp);
  const again = await (await fetch(`${bare.server.url}/api/projects/${demo.projectId}/project.json`)).text();
  expect(again).toBe(text);
  await page.close();
}, 120_000);

test('the loss sheet is saved by the browser, and a deleted project leaves the shelf and is put back', async () => {
  const { demo } = at;
  const page = await at.open();
  await page.goto(`${demo.line}/losses`);
  // They stand above the key, and move it when they come.
  await see(page, 'dB mean');
  const sheet = await savedBy(page, () => press(page, 'Loss sheet (CSV)'));
  expect(sheet.name).toBe('Vale do Umbu ring, section 2 losses.csv');
  // 96 fibers at U1; 96 and 11 ribbons of 12 at U2; 24, 48, 8 and 4 at the others; the header, and the end of the last row.
  expect(sheet.bytes.toString().split('\r\n')).toHaveLength(408 + 2);
  await press(page, 'Delete this project');
  await see(page, 'For 30 days it can be put back');
  await press(page, 'Delete it');
  await see(page, 'The shelf is empty');
  await press(page, 'Put back Vale do Umbu ring, section 2');
  await see(page, '156 of 287 splices');
  await page.close();
}, 120_000);

test('a wide bench works by keyboard, beside the cord and the ledger', async () => {
  const { demo } = at;
  const page = await at.open({ size: 'wide' });
  await page.goto(demo.bench(3, 6));
  await see(page, 'Digits enter');
  await page.keyboard.type('4');
  await see(page, '0.04 dB · Enter confirms');
  await page.keyboard.press('Enter');
  await see(page, 'Tray 3 · slot 7');
  await page.keyboard.type('14');
  await page.keyboard.press('Enter');
  await see(page, 'Redo. Try 2 of 3');
  await page.keyboard.type('1400');
  await page.keyboard.press('Enter');
  await see(page, 'A reading over 10 dB is not a splice.');
  await page.keyboard.press('s');
  await see(page, 'Tray 3 · slot 8');
  await page.keyboard.press('ArrowUp');
  await see(page, 'Tray 3 · slot 7');
  await page.keyboard.press('?');
  await see(page, 'Keys at the bench');
  // A sheet listens to Escape from the moment in which it takes the focus, a little after its words are there.
  await page.waitForFunction(() => document.activeElement?.closest('[role=dialog]'), { polling: 'raf' });
  await page.keyboard.press('Escape');
  await see(page, 'Tray mean');
  // The address follows a move once one has stood still for a moment; it is what the way back leads to.
  await page.waitForFunction(() => location.pathname.endsWith('/t/3/7'), { polling: 'raf' });
  await press(page, /^Tray 2 /);
  await see(page, 'Tray 2 · slot 19');
  await page.goBack();
  await see(page, 'Tray 3 · slot 7');
  await page.close();
}, 120_000);
