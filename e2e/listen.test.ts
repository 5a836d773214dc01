import type { Attempt, Fact } from '@cordel/core';
import type { Page } from 'puppeteer-core';
import { everyFact, request } from '../server/test/process';
import { fill, padKey, press, see, seeGone } from './support/browser';
import { cuttable } from './support/cuttable';
import { demoJourneys } from './support/journeys';
import { firstProject } from './support/shelf';

/** The bench without hands: a machine is listened to, and only what is certain is taken by itself. */

const at = demoJourneys({ movable: true });

declare global {
  interface Window {
    handTaps?: number;
  }
}

/** The page in which a machine is listened to, at a slot of a closure. */
const listening = (closure: string, tray: number, slot: number) => `${closure}/listen/${tray}/${slot}`;

/** Links a simulated machine, as it is set to be practised with. */
async function link(
  page: Page,
  which: RegExp,
  { speed = 'As fast as it goes', mine = false, night = '' } = {},
): Promise<void> {
  await press(page, 'Machine');
  await press(page, which);
  await press(page, speed, 'radio');
  if (night) await fill(page, 'Number of the night', night);
  if (mine) await press(page, 'Are mine: one key for each step', 'radio');
  await press(page, 'Close');
}

async function attempts(closureId: string): Promise<Attempt[]> {
  const facts = await everyFact<Fact>(`${at.server.url}/api/projects/${at.demo.projectId}/facts`);
  return facts.filter(
    (fact): fact is Attempt => fact.kind === 'attempt' && fact.subject.closureId === closureId,
  );
}

test('a tray of 24 singles is recorded without a tap, by a machine in the page that needs no network', async () => {
  const way = await cuttable(at.server.url);
  const page = await at.open({ size: 'phone' });
  const u3 = await firstProject(at.server, 'U3');
  await page.goto(listening(u3.closure, 1, 1).replace(at.server.url, way.url));
  await see(page, 'No machine');
  await press(page, 'Machine');
  await press(page, /single fibers.*in this page/);
  await see(page, 'What it reads is recorded as simulated, and counted for no gear.');
  await fill(page, 'Number of the night', '14');
  await press(page, 'As fast as it goes', 'radio');
  await page.evaluate(() => {
    window.handTaps = 0;
    for (const event of ['pointerdown', 'keydown'] as const)
      window.addEventListener(event, () => (window.handTaps! += 1), true);
  });
  way.cut();
  await press(page, 'Close');
  await see(page, 'Simulated machine, single fibers: no glass is involved');
  await see(page, 'Go on to what is left');
  await see(page, 'to send', 'head');
  // The one that closed the sheet.
  expect(await page.evaluate(() => window.handTaps)).toBe(1);
  way.mend();
  await seeGone(page, 'to send', 'head');
  const made = await attempts(u3.closureId);
  const slots = new Set(made.map(({ subject }) => JSON.stringify(subject)));
  expect(slots.size).toBe(24);
  expect(made.every(({ body }) => body.source === 'machine' && body.simulated && !body.gear)).toBe(true);
  expect(new Set(made.map(({ body }) => body.origin!.splice)).size).toBe(made.length);
  await page.close();
  way.close();
}, 120_000);

test('the link drops in the middle of a ribbon: it is said, the reading comes afterwards and is asked, and one by hand is not doubled', async () => {
  // Whatever the night brings holds: this is about where readings go.
  const project = `${at.server.url}/api/projects/${at.demo.projectId}`;
  const { id: _, lineVersion: __, ...settings } = at.demo.definition.project;
  const limits = { ...settings.limits, ribbonFiberMax: 3, cleaveAngleMax: 8 };
  expect((await request(`${project}/settings`, 'PUT', { ...settings, limits })).status).toBe(200);
  const way = await cuttable(at.server.url);
  const page = await at.open({ size: 'phone' });
  const there = (path: string) => path.replace(at.server.url, way.url);
  await page.goto(there(listening(at.demo.closure, 5, 9)));
  await press(page, 'BL BL: blue left, blue right');
  await link(page, /ribbons.*reached by the server/, { speed: 'As a real one', mine: true, night: '3' });
  const device = (await page.evaluate(() => JSON.parse(localStorage.getItem('cordel.device')!))) as string;
  // Asked anew each time: a machine that was set differently just now gets another id.
  const machineId = () =>
    page.evaluate(() => JSON.parse(localStorage.getItem('cordel.linked-machine')!).id as string);
  const status = async () =>
    (
      await request<{ status: { state: string } }>(
        `${at.server.url}/api/machines/${await machineId()}/status`,
        'GET',
        undefined,
        {
          'Cordel-Device': device,
        },
      )
    ).body.status.state;
  const isDone = async () => {
    const until = Date.now() + 30_000;
    while ((await status()) !== 'done') {
      if (Date.now() > until) throw new Error(`The machine is not done: ${await status()}.`);
      await new Promise((go) => setTimeout(go, 50));
    }
  };
  const board = (text: string) => see(page, text);

  await press(page, /^Lay in/);
  await board('Looks at the ends');
  at.passHalfMinute();
  await press(page, /^Fuse/);
  await board('Arc');
  way.cut();
  await board('Link lost');
  at.passHalfMinute();
  await isDone();
  way.mend();
  await see(page, 'was made while nobody listened; its fibers were laid in at tray 5, slot 9.');
  await press(page, /^It is tray 5, slot 9/);
  await see(page, 'Tray 5 · slot 10', 'head');

  // The next one is entered by hand while the link is down again; the machine's own is left out.
  await press(page, 'BL BL: blue left, blue right');
  await press(page, /^Take out/);
  await press(page, /^Lay in/);
  await board('Looks at the ends');
  at.passHalfMinute();
  await press(page, /^Fuse/);
  await board('Arc');
  way.cut();
  await board('Link lost');
  await press(page, 'By hand');
  for (let fiber = 1; fiber <= 12; fiber += 1) {
    await see(page, `Fiber ${fiber} of 12`);
    await press(page, padKey(fiber === 7 ? 3 : 2));
  }
  await see(page, 'Tray 5 · slot 11', 'head');
  at.passHalfMinute();
  await isDone();
  way.mend();
  await see(page, 'was made while nobody listened; its fibers were laid in at tray 5, slot 10.');
  await press(page, /^Leave it out/);
  await seeGone(page, 'was made while nobody listened');
  await seeGone(page, 'to send', 'head');
  const made = (await attempts(at.demo.closureId))
    .filter(({ body }) => body.readings.length === 12)
    .slice(-2);
  expect(made.map(({ body }) => body.source)).toEqual(['machine', 'hand']);
  await page.close();
  way.close();
}, 180_000);

test('a foot switch is paired, any key does what the big key says, and a splice entered by hand is not doubled', async () => {
  const page = await at.open({ size: 'phone' });
  const u3 = await firstProject(at.server, 'U3');
  await page.goto(listening(u3.closure, 1, 1));
  await press(page, 'Machine');
  await press(page, /^Skip/);
  await see(page, 'press it now');
  await page.keyboard.press('PageDown');
  await see(page, 'PageDown');
  await press(page, /single fibers.*in this page/);
  await press(page, 'Are mine: one key for each step', 'radio');
  await press(page, 'As fast as it goes', 'radio');
  await press(page, 'Close');
  await page.keyboard.press('PageDown');
  await see(page, 'Tray 1 · slot 2', 'head');
  // Any other key lays in, at this machine.
  await see(page, 'at the simulated machine');
  await page.keyboard.press('b');
  await see(page, /Fuse|Recleave/);
  await press(page, 'By hand');
  await press(page, padKey(2));
  await see(page, 'Tray 1 · slot 3', 'head');
  // Its fibers still lie in the machine: what it says of them is nothing of the next splice.
  await see(page, 'Which pair?');
  await press(page, /^Take out/);
  await see(page, '0.02 dB Holds Tray 1, slot 2.');
  await page.close();
}, 120_000);

test('two pages of one device do not both record what a machine says', async () => {
  const page = await at.open({ size: 'phone' });
  const u3 = await firstProject(at.server, 'U3');
  await page.goto(listening(u3.closure, 1, 1));
  await link(page, /single fibers.*reached by the server/, { mine: true });
  await see(page, 'at the simulated machine');
  const second = await page.browserContext().newPage();
  await second.goto(listening(u3.closure, 1, 1));
  await see(second, 'Another page of Cordel on this device listens to this machine.');
  await press(second, 'By hand');
  await see(second, 'By hand: tray 1, slot 1');
  await page.close();
  await press(second, 'Close');
  await see(second, 'at the simulated machine');
  await press(second, /^Lay in/);
  await see(second, /Fuse|Recleave/);
  await second.close();
}, 120_000);

test('which of the crews’ machines it is: what is set at it goes on record with its readings, and what is due is asked (wide)', async () => {
  const page = await at.open({ size: 'wide' });
  const u3 = await firstProject(at.server, 'U3');
  await page.goto(listening(u3.closure, 1, 1));
  await press(page, 'Machine');
  await press(page, /single fibers.*in this page/);
  await press(page, 'Single 1', 'radio');
  await see(page, 'are counted for this machine.');
  await press(page, 'As fast as it goes', 'radio');
  await press(page, 'Close');
  await see(page, 'Arc calibration is due');
  await press(page, /^Splice on without it/);
  await see(page, /Holds|Redo/);
  await see(page, 'Tray 1 · slot 4', 'head');
  await page.goto(`${u3.closure}/t/1`);
  await seeGone(page, 'to send', 'head');
  const [first] = await attempts(u3.closureId);
  expect(first!.body).toMatchObject({
    source: 'machine',
    simulated: true,
    gear: { machine: { label: 'Single 1' }, program: 'Single mode', heater: '60 mm' },
  });
  await page.close();
}, 120_000);
