import type { ProjectDefinition } from '@cordel/core';
import type { Gear } from '@cordel/core/gear';
import type { Page } from 'puppeteer-core';
import { request } from '../server/test/process';
import { fill, patience, press, see, seeGone } from './support/browser';
import { demoJourneys } from './support/journeys';

/** Two people edit the same thing: what is typed stays, somebody else's save is told beside it, and the newer one is shown when the person wants it. */

const at = demoJourneys({ site: 'U3', each: false });

const api = () => `${at.server.url}/api`;
const project = () => `${api()}/projects/${at.demo.projectId}`;
const definition = async () => (await request<ProjectDefinition>(project())).body;
const valueOf = async (page: Page, label: string) =>
  (await page.waitForSelector(`input[aria-label="${label}"]`))!.evaluate(
    (input) => (input as HTMLInputElement).value,
  );

interface Edited {
  /** Address of the form. */
  path: () => string;
  /** A field of it. */
  field: string;
  typed: string;
  /** Somebody else saves. Returns what the field shows of it. */
  other: () => Promise<string>;
  save: string;
  newer?: string;
}

const forms: [string, Edited][] = [
  [
    'the limits',
    {
      path: () => `${at.demo.line}/limits`,
      field: 'Single splice, at most (dB)',
      typed: '0.21',
      async other() {
        const { id: _, lineVersion: __, ...settings } = (await definition()).project;
        await request(`${project()}/settings`, 'PUT', {
          ...settings,
          limits: { ...settings.limits, singleMax: 0.33 },
        });
        return '0.33';
      },
      save: 'Save and judge again',
      newer: 'Show the newer ones',
    },
  ],
  [
    'the settings',
    {
      path: () => `${at.demo.line}/settings`,
      field: 'Project name',
      typed: 'Typed here',
      async other() {
        const { id: _, lineVersion: __, ...settings } = (await definition()).project;
        await request(`${project()}/settings`, 'PUT', { ...settings, name: 'Theirs' });
        return 'Theirs';
      },
      save: 'Save the settings',
    },
  ],
  [
    'a site',
    {
      path: () =>
        `${at.demo.line}/s/${at.demo.definition.sites.find((one) => one.name.startsWith('U4'))!.id}`,
      field: 'Name',
      typed: 'U4 typed here',
      async other() {
        const { project: own, sites, cables } = await definition();
        const renamed = sites.map((one) => (one.name.startsWith('U4') ? { ...one, name: 'U4 theirs' } : one));
        await request(`${project()}/line`, 'PUT', { version: own.lineVersion, sites: renamed, cables });
        return 'U4 theirs';
      },
      save: 'Save the site',
    },
  ],
  [
    'a cable',
    {
      path: () => `${at.demo.line}/cable/${at.demo.cable('48 Ladeira')}/edit`,
      field: 'Label',
      typed: '48 typed here',
      async other() {
        const { project: own, sites, cables } = await definition();
        const renamed = cables.map((one) =>
          one.label === '48 Ladeira' ? { ...one, label: '48 theirs' } : one,
        );
        await request(`${project()}/line`, 'PUT', { version: own.lineVersion, sites, cables: renamed });
        return '48 theirs';
      },
      save: 'Save the cable',
    },
  ],
  [
    'a closure’s table',
    {
      path: () => `${at.demo.closure}/table`,
      field: 'Test pressure (kPa)',
      typed: '21',
      async other() {
        const closure = (await definition()).closures.find((one) => one.id === at.demo.closureId)!;
        await request(`${project()}/closures/${closure.id}`, 'PUT', { ...closure, testPressure: 12 });
        return '12';
      },
      save: 'Save the table',
    },
  ],
  [
    'a closure model',
    {
      path: () => `${at.server.url}/models/${model.id}`,
      field: 'Name',
      typed: 'Typed here',
      async other() {
        await request(`${api()}/models/${model.id}`, 'PUT', { ...model, name: 'Theirs' });
        return 'Theirs';
      },
      save: 'Save the model',
    },
  ],
  [
    'a piece of gear',
    {
      path: () => `${at.server.url}/gear/${gear.id}`,
      field: 'Label',
      typed: 'Typed here',
      async other() {
        await request(`${api()}/gear/${gear.id}`, 'PUT', { ...gear, label: 'Theirs' });
        return 'Theirs';
      },
      save: 'Save it',
    },
  ],
];

let model: { id: string; name: string };
let gear: Gear;
beforeAll(async () => {
  model = (await request<{ models: (typeof model)[] }>(`${api()}/models`)).body.models[0]!;
  gear = (await request<{ gear: Gear[] }>(`${api()}/gear`)).body.gear.find(
    (one) => one.label === 'Warm jaws',
  )!;
});

test.each(forms)(
  '%s',
  async (_, { path, field, typed, other, save, newer = 'Show the newer one' }) => {
    const page = await at.open();
    await page.goto(path());
    await fill(page, field, typed);
    const theirs = await other();
    await press(page, save);
    await see(page, /Somebody changed this|Somebody changed these/);
    expect(await valueOf(page, field)).toBe(typed);
    await press(page, newer);
    await page.waitForFunction(
      (label, wanted) =>
        document.querySelector<HTMLInputElement>(`input[aria-label="${label}"]`)?.value === wanted,
      { polling: 'raf' },
      field,
      theirs,
    );
    // From there it can be saved.
    await fill(page, field, typed);
    await press(page, save);
    await seeGone(page, 'Somebody changed');
    await page.close();
  },
  60_000,
);

test('a plan: what was typed stands on top of what somebody else saved, and both are stored', async () => {
  const order = 'Order, one line for each assignment';
  const closure = (await definition()).closures.find(
    ({ siteId }) => siteId === at.demo.definition.sites.find((one) => one.name.startsWith('U4'))!.id,
  )!;
  const read = async () => (await definition()).closures.find((one) => one.id === closure.id)!;
  const page = await at.open();
  await page.goto(`${at.demo.line}/c/${closure.id}/plan`);
  await see(page, 'splices, all with a slot');
  await fill(page, order, 'A T1 > B 1-12');
  await see(page, '12 splices, all with a slot.');
  const theirs = await read();
  await request(`${project()}/closures/${closure.id}`, 'PUT', { ...theirs, spareSlots: 3 });
  await press(page, 'Save the plan');
  await see(page, /Somebody changed this/);
  await press(page, /^Show the newer one/);
  await seeGone(page, /Somebody changed this/);
  expect(await page.$eval(`textarea[aria-label="${order}"]`, (box) => box.value)).toBe('A T1 > B 1-12');
  await see(page, '12 splices, all with a slot.');
  await press(page, 'Save the plan');
  await see(page, 'Saved');
  const stored = await read();
  expect([stored.version, stored.spareSlots, stored.order.length]).toEqual([theirs.version + 2, 3, 1]);
  await page.close();
}, 60_000);

test('what is typed stays when the page fetches what somebody else saved, and that is told beside it', async () => {
  const page = await at.open();
  await page.goto(`${at.demo.line}/limits`);
  await fill(page, 'Tries, before it is the owner’s call', '7');
  const { id: _, lineVersion: __, ...settings } = (await definition()).project;
  await request(`${project()}/settings`, 'PUT', { ...settings, limits: { ...settings.limits, tries: 4 } });
  // The browser comes back to the page, which asks what is new.
  await page.waitForFunction(
    () => {
      window.dispatchEvent(new Event('visibilitychange'));
      return document.body.innerText.includes(
        'Somebody else saved these settings meanwhile. What you typed is still here.',
      );
    },
    { polling: 200, timeout: patience },
  );
  expect(await valueOf(page, 'Tries, before it is the owner’s call')).toBe('7');
  await press(page, 'Show the newer ones');
  await page.waitForFunction(
    () => document.querySelector<HTMLInputElement>('input[aria-label^="Tries"]')?.value === '4',
    { polling: 'raf' },
  );
  await page.close();
}, 60_000);

/** As the browser's own chooser of dates sets it. */
async function setDate(page: Page, label: string, value: string): Promise<void> {
  await page.$eval(
    `input[aria-label="${label}"]`,
    (input, wanted) => {
      const { set } = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')!;
      set!.call(input, wanted);
      input.dispatchEvent(new Event('input', { bubbles: true }));
    },
    value,
  );
}

test('a project has a time zone of its own, in which its window is set and its times are shown', async () => {
  const page = await at.open();
  await page.goto(at.demo.line);
  // The demo's window ends at 08:00 UTC.
  await see(page, 'window closes 05:00 GMT-3', 'head');
  await press(page, 'Settings of the project');
  expect([await valueOf(page, 'Closes, day'), await valueOf(page, 'Closes, time')]).toEqual([
    '2026-04-15',
    '05:00',
  ]);
  await fill(page, 'Time zone', 'nowhere');
  await press(page, 'Save the settings');
  await see(page, 'No time zone has this name.');
  await fill(page, 'Time zone', 'toky');
  await press(page, 'Asia/Tokyo');
  // What a clock shows stays as it is typed, now of the other zone.
  await setDate(page, 'Closes, day', '2026-04-14');
  await press(page, 'Save the settings');
  await see(page, 'The window closes before it opens. Mend one of the two.');
  await setDate(page, 'Closes, day', '2026-04-15');
  await press(page, 'Save the settings');
  await see(page, 'window closes 05:00 GMT+9', 'head');
  const { window, timeZone } = (await definition()).project;
  expect({ timeZone, closes: window!.closes }).toEqual({
    timeZone: 'Asia/Tokyo',
    closes: '2026-04-14T20:00:00.000Z',
  });
  await page.close();
}, 60_000);
