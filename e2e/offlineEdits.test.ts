import type { Gear } from '@cordel/core/gear';
import type { Page } from 'puppeteer-core';
import { everyFact, request } from '../server/test/process';
import { fill, padKey, press, see, seeGone } from './support/browser';
import { setOffline } from './support/network';
import { documentsKept, onDevice } from './support/device';
import { demoJourneys } from './support/journeys';

/** Documents are edited with no network: what is saved waits on the device, is shown everywhere, and is sent; nobody's work is lost. */

const night = demoJourneys();
let page: Page;

beforeEach(async () => {
  page = await night.open();
  await page.goto(night.demo.line);
  await onDevice(page);
  await documentsKept(page, '', 6, 6);
}, 120_000);

const siteId = (name: string) => night.demo.definition.sites.find((one) => one.name.startsWith(name))!.id;

test('limits, route, plan and gear are edited and a project is made with no network; all of it is sent', async () => {
  await page.goto(`${night.server.url}/gear`);
  await see(page, 'Warm jaws');
  await night.kill();

  await page.goto(`${night.demo.line}/limits`);
  await fill(page, 'Single splice, at most (dB)', '0.21');
  await press(page, 'Save and judge again');
  await see(page, '1 to send', 'head');
  await page.goto(`${night.demo.line}/s/${siteId('U4')}`);
  await fill(page, 'Name', 'U4 moved');
  await press(page, 'Save the site');
  await see(page, '2 to send', 'head');
  // In sight where it was not typed, after the page was loaded anew.
  await page.goto(night.demo.line);
  await see(page, 'U4 moved');
  await page.goto(`${night.demo.closureAt('U4')}/plan`);
  await see(page, 'Plan · U4 moved', 'head');
  await fill(page, 'Order, one line for each assignment', 'A T1 > B 1-12');
  await see(page, '12 splices, all with a slot.');
  await press(page, 'Save the plan');
  await see(page, 'Saved');
  await see(page, '3 to send', 'head');
  await page.goto(`${night.server.url}/gear`);
  await press(page, /^Warm jaws/);
  await fill(page, 'Label', 'Warmer jaws');
  await press(page, 'Save it');
  await see(page, 'Warmer jaws');

  await page.goto(night.server.url);
  await press(page, 'New project');
  await fill(page, 'Project name', 'Night job');
  await fill(page, 'Cable A comes from', 'Hub');
  await fill(page, 'Cable B goes to', 'Cabinet');
  await fill(page, 'Closure name', 'Joint 1');
  await see(page, '96 splices, fiber 1 to fiber 1, in 96 slots.');
  await press(page, 'Make the project');
  await see(page, '0 of 96 settled');
  await press(page, 'Splice tray 1, slot 1');
  await press(page, padKey(3));
  await see(page, 'Slot 1 holds: 0.03 of 0.10 dB.');
  const bench = page.url();
  await page.reload();
  await see(page, '1 of 96', 'head');
  await page.goto(night.server.url);
  await see(page, 'Night job');
  await see(page, '1 of 96 splices');
  // What truly needs the server says so.
  await page.goto(`${night.demo.line}/losses`);
  await press(page, 'Delete this project');
  await press(page, 'Delete it');
  await see(
    page,
    'This needs the server, and it does not answer. Nothing was changed; try again with a network.',
  );
  await page.goto(`${night.server.url}/waiting`);
  await see(page, 'Settings and limits changed');
  await see(page, 'Sites and cables changed');
  await see(page, 'Closure U4 moved changed');
  await see(page, 'Warmer jaws changed');
  await see(page, 'Project Night job made');
  await see(page, '6 to send, the oldest first.');

  await night.startAgain();
  await page.reload();
  await see(page, 'Everything is on the server');
  const stored = await night.definition();
  expect(stored.project.limits.singleMax).toBe(0.21);
  expect(stored.sites.some((site) => site.name === 'U4 moved')).toBe(true);
  expect(stored.closures.find((one) => one.siteId === siteId('U4'))!.order).toHaveLength(1);
  const { gear } = (await request<{ gear: Gear[] }>(`${night.server.url}/api/gear`)).body;
  expect(gear.map((one) => one.label)).toContain('Warmer jaws');
  const made = /p\/([^/]+)/.exec(bench)![1]!;
  expect(await everyFact(`${night.server.url}/api/projects/${made}/facts`)).toHaveLength(1);
}, 180_000);

test('what somebody else changed meanwhile is decided field by field, and both changes stand where they do not touch', async () => {
  await page.goto(`${night.demo.line}/limits`);
  await see(page, 'Save and judge again');
  await setOffline(page, true);
  await fill(page, 'Single splice, at most (dB)', '0.21');
  await fill(page, 'Tray mean, at most (dB)', '0.04');
  await press(page, 'Save and judge again');
  await see(page, '1 to send', 'head');
  const { id: _, lineVersion: __, ...settings } = (await night.definition()).project;
  await request(`${night.server.url}/api/projects/${night.demo.projectId}/settings`, 'PUT', {
    ...settings,
    name: 'Renamed meanwhile',
    limits: { ...settings.limits, singleMax: 0.33 },
  });
  await setOffline(page, false);
  await seeGone(page, '1 to send', 'head');
  await page.goto(night.demo.line);
  await press(page, '1 changed by somebody else too: decide');
  await see(page, 'Somebody else changed it too. Neither is lost: decide.');
  await press(page, 'Decide: Settings and limits changed');
  const group = { role: 'radiogroup', name: 'Single splice, at most' } as const;
  await see(page, /Before: 0.\d+ dB/, group);
  await see(page, '0.21 dB', group);
  await see(page, '0.33 dB', group);
  await see(page, '1 to decide');
  await press(page, 'Yours: 0.21 dB', 'radio');
  await press(page, 'Save what is chosen');
  await see(page, 'Everything is on the server');
  expect((await night.definition()).project).toMatchObject({
    name: 'Renamed meanwhile',
    limits: { singleMax: 0.21, trayMean: 0.04 },
  });
  await page.goto(`${night.demo.line}/limits`);
  await see(page, 'Renamed meanwhile', 'head');
}, 120_000);

test('somebody else was quicker while the form was open: both are brought together from there', async () => {
  await page.goto(`${night.demo.line}/limits`);
  await fill(page, 'Single splice, at most (dB)', '0.21');
  const { id: _, lineVersion: __, ...settings } = (await night.definition()).project;
  const put = (limits: Partial<typeof settings.limits>, version = settings.version) =>
    request(`${night.server.url}/api/projects/${night.demo.projectId}/settings`, 'PUT', {
      ...settings,
      version,
      limits: { ...settings.limits, ...limits },
    });
  await put({ trayMean: 0.03 });
  await press(page, 'Save and judge again');
  await see(page, /Somebody changed these/);
  await press(page, 'Bring both together');
  await seeGone(page, /Somebody changed these/);
  await page.waitForFunction(
    () => document.querySelector<HTMLInputElement>('input[aria-label^="Tray mean"]')?.value === '0.03',
    { polling: 'raf' },
  );
  expect((await night.definition()).project.limits).toMatchObject({ singleMax: 0.21, trayMean: 0.03 });
}, 120_000);
