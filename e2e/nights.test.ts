import type { NightsSetup, ProjectDefinition } from '@cordel/core';
import type { Page } from 'puppeteer-core';
import { request } from '../server/test/process';
import { catchSaved } from './support/device';
import { fill, patience, press, see, seeGone } from './support/browser';
import { demoJourneys } from './support/journeys';
import { setOffline } from './support/network';

/** The nights of the demo: planned, pinned, kept, replanned when an hour goes by with nothing done, printed, handed to a calendar. */

const at = demoJourneys({ tonight: true });

declare global {
  interface Window {
    printed?: number;
  }
}

const project = () => `${at.server.url}/api/projects/${at.demo.projectId}`;
const nightsOf = async () => (await request<{ definition?: ProjectDefinition }>(project(), 'GET')).body;

async function definition(): Promise<ProjectDefinition> {
  const body = await nightsOf();
  return (body.definition ?? body) as ProjectDefinition;
}

/** "Sat 28 Nov": what a night is called. */
function nameOf({ opens }: { readonly opens: string }, zone: string): string {
  const parts = { weekday: 'short', day: 'numeric', month: 'short', timeZone: zone } as const;
  return new Intl.DateTimeFormat('en-GB', parts).format(new Date(opens)).replace(',', '');
}

async function names(): Promise<string[]> {
  const { project: own } = await definition();
  return own.nights!.nights.map((night) => nameOf(night, own.timeZone!));
}

/** Everything of the plan an hour sooner: as if an hour had gone by in which nothing was done. */
async function anHourGoesBy(): Promise<void> {
  const { project: own } = await definition();
  const sooner = (time: string) => new Date(Date.parse(time) - 3_600_000).toISOString();
  const { id: _, lineVersion: __, ...settings } = own;
  const nights: NightsSetup = {
    ...own.nights!,
    nights: own.nights!.nights.map((night) => ({
      ...night,
      opens: sooner(night.opens),
      closes: sooner(night.closes),
    })),
    rules: own.nights!.rules.map((rule) => ({
      ...rule,
      backBy: rule.backBy === null ? null : (rule.backBy + 23 * 60) % (24 * 60),
    })),
    kept: own.nights!.kept && {
      ...own.nights!.kept,
      places: own.nights!.kept.places.map((place) => ({
        ...place,
        stops: place.stops.map((stop) => ({ ...stop, begins: sooner(stop.begins), ends: sooner(stop.ends) })),
      })),
    },
  };
  expect((await request(`${project()}/settings`, 'PUT', { ...settings, nights })).status).toBe(200);
}

const open = async (size: 'phone' | 'wide'): Promise<Page> => {
  const page = await at.open({ size });
  await page.goto(`${at.server.url}/p/${at.demo.projectId}/nights`);
  await see(page, 'Proven: there is no better plan.');
  return page;
};

test('on the phone: the nights are planned, one closure is pinned, the plan is kept, and replanned after an hour in which nothing was done', async () => {
  // The shelf says what is on tonight, and leads there.
  const page = await at.open({ size: 'phone' });
  await page.goto(at.server.url);
  await see(page, 'Now the window is open until');
  await press(page, /^Nights of Vale do Umbu/);
  await see(page, 'Proven: there is no better plan.');
  const [tonight, second, third] = await names();
  await see(page, '5 closures left · 2 of 3 nights', 'head');
  await see(page, 'U2 Curva do Rio ends', { role: 'group', name: 'Iara and Davi now' });
  await see(page, 'begun', { role: 'group', name: `Iara and Davi, ${tonight}` });

  await press(page, second!, 'radio');
  await press(page, /^U4 Mirante/);
  await see(page, 'Why here');
  await see(page, `Not on ${tonight}: `);
  await press(page, `${third}, Noa`, 'radio');
  await see(page, `U4 Mirante is pinned to ${third}, Noa.`);
  await see(page, '3 of 3 nights', 'head');
  await press(page, third!, 'radio');
  await see(page, 'pinned', { role: 'group', name: `Noa, ${third}` });
  await press(page, /^U4 Mirante/);
  await see(page, 'Pinned here by somebody');
  await press(page, 'Close');

  await press(page, 'Undo');
  await see(page, '2 of 3 nights', 'head');
  await see(page, 'Nothing planned.', { role: 'group', name: `Noa, ${third}` });
  await press(page, 'Keep this plan');
  await see(page, 'The plan is kept.');
  await see(page, 'This plan is kept');
  expect((await definition()).project.nights!.kept!.places.length).toBeGreaterThan(2);

  await anHourGoesBy();
  await page.reload();
  await see(page, /(59 min|1 h 0\d min) behind the plan/, { role: 'group', name: 'Iara and Davi now' });
  await see(page, 'Make ribbons of the 44 single fibers', { role: 'group', name: 'Iara and Davi now' });

  // Kit and time follow the plan that was kept.
  await page.goto(`${at.server.url}/p/${at.demo.projectId}/kit`);
  await press(page, `${second}, Noa`, 'radio');
  await see(page, `Kit · ${second}, Noa`, 'head');
  await page.goto(`${at.server.url}/p/${at.demo.projectId}/time`);
  await press(page, `${second}, Noa`, 'radio');
  await see(page, 'By the plan that was kept it ends at');
  await page.close();
}, 180_000);

test('a crew’s sheet goes to paper whole, with its closures, cautions, kit and contacts', async () => {
  const page = await open('phone');
  const [, second] = await names();
  await press(page, second!, 'radio');
  await press(page, `Sheet of Iara and Davi, ${second}`);
  await see(page, `Iara and Davi, ${second}`, 'head');
  await see(page, 'Leave Moinho by');
  await see(page, 'Single sleeve, 60 mm', { role: 'group', name: 'Kit' });
  await page.evaluate(() => (window.print = () => (window.printed = (window.printed ?? 0) + 1)));
  await press(page, 'Print');
  await page.waitForFunction(() => window.printed === 1, { polling: 'raf' });
  await page.emulateMediaType('print');
  const paper = await page.evaluate(() => document.body.innerText.replace(/\s+/g, ' '));
  for (const words of [
    'M1 Fazenda',
    '48 Vila: 48 fibers, window; live:',
    'A manhole is a confined space',
    'Night desk of the district',
  ])
    expect(paper).toContain(words);
  expect(paper).not.toContain('Print');
  await page.close();
}, 120_000);

test('the board goes to paper with all nights, each closure and its times, from the phone too', async () => {
  const page = await open('phone');
  const all = await names();
  await see(page, new RegExp(all[0]!));
  const paper = () => page.evaluate(() => document.body.innerText.replace(/\s+/g, ' '));
  await press(page, all[1]!, 'radio');
  await see(page, 'T1 Escola');
  await page.evaluate(() => window.dispatchEvent(new Event('beforeprint')));
  await page.emulateMediaType('print');
  for (const night of all) expect(await paper()).toMatch(new RegExp(`${night} \\d\\d:\\d\\d to`));
  for (const closure of ['U2 Curva do Rio', 'M1 Fazenda', 'U4 Mirante', 'T1 Escola'])
    expect(await paper()).toMatch(new RegExp(`${closure} \\d\\d:\\d\\d to \\d\\d:\\d\\d`));
  for (const key of ['Keep this plan', 'Sheet', 'Calendar file']) expect(await paper()).not.toContain(key);
  await page.emulateMediaType('screen');
  await page.evaluate(() => window.dispatchEvent(new Event('afterprint')));
  await seeGone(page, 'U2 Curva do Rio', { role: 'group', name: `Iara and Davi, ${all[0]}` });
  await page.close();
}, 120_000);

test('wide: a closure is moved by keys from one crew to the other, with no network too, and everything is saved as a table and a calendar', async () => {
  const page = await open('wide');
  const [, second] = await names();
  const crews = ['Iara and Davi', 'Noa'];
  const of = (crew: string) => ({ role: 'group', name: `${crew}, ${second}` });
  const holders = await Promise.all(
    crews.map((crew) =>
      page.$eval(
        `[role=group][aria-label="${crew}, ${second}"]`,
        (group) => (group as HTMLElement).innerText,
      ),
    ),
  );
  const from = holders.findIndex((text) => text.includes('T1 Escola'));
  const [own, other] = [crews[from]!, crews[1 - from]!];
  await setOffline(page, true);
  const handle = await page.waitForSelector('[aria-label="Move T1 Escola"]');
  await handle!.focus();
  await page.keyboard.press('Enter');
  const said = (words: string) =>
    page.waitForFunction(
      (wanted) =>
        [...document.querySelectorAll('[aria-live]')].some((one) => one.textContent!.includes(wanted)),
      { polling: 'raf', timeout: patience },
      words,
    );
  await said(`T1 Escola is over ${second}, ${own}.`);
  await page.keyboard.press(from === 1 ? 'ArrowLeft' : 'ArrowRight');
  await said(`T1 Escola is over ${second}, ${other}.`);
  await page.keyboard.press('Enter');
  await see(page, `T1 Escola is pinned to ${second}, ${other}.`);
  await see(page, 'pinned', of(other));
  await seeGone(page, 'T1 Escola', of(own));
  await setOffline(page, false);
  await seeGone(page, 'to send', 'head');

  await catchSaved(page);
  const savedBy = async (key: string) => {
    await page.evaluate(() => delete window.saved);
    await press(page, key);
    await page.waitForFunction(() => window.saved !== undefined, { polling: 'raf' });
    return page.evaluate(() => window.saved!);
  };
  const table = await savedBy('Save as CSV');
  expect(table.split('\r\n').filter((row) => row.includes('T1 Escola'))).toHaveLength(1);
  const calendar = await savedBy('Calendar file');
  expect(calendar).toContain('BEGIN:VCALENDAR');
  expect(calendar.match(/BEGIN:VEVENT/g)!.length).toBeGreaterThan(4);
  expect((await definition()).project.nights!.pins).toMatchObject([{ crewId: expect.any(String) }]);
  await page.close();
}, 120_000);

test('what the nights are made from: crews, rules and reserve are changed, a wrong entry is told, and what cannot be done says what would help', async () => {
  const page = await open('phone');
  await press(page, 'What it is made from');
  await fill(page, 'Each night ends in its window with at least (%)', '100');
  await press(page, 'Save and plan');
  await see(page, 'Not saved yet: At most 99 %.');
  await fill(page, 'Each night ends in its window with at least (%)', '75');
  // Nobody carries a machine for ribbons any more.
  await press(page, 'Take out Ribbon 1');
  await press(page, 'Save and plan');
  await see(page, 'One closure has no place');
  await see(page, 'Nobody carries a machine for ribbons: give a crew one.', {
    role: 'group',
    name: 'U2 Curva do Rio',
  });
  await see(page, 'with 75 %, by the times of the closures');
  await page.close();
}, 120_000);

test('where the nights are too few, as many as are enough are added by one tap, and taken back', async () => {
  const page = await open('phone');
  await press(page, 'What it is made from');
  for (const number of [3, 2]) await press(page, new RegExp(`^Take out night ${number},`));
  await press(page, 'Save and plan');
  await see(page, /\d closures have no place/);
  // U2 is the one that no night helps: nobody makes ribbons.
  await see(
    page,
    /With (one more night|\d more nights), a day after each other, all that fit into a night have a place\./,
  );
  await press(page, /^Add (a night|\d nights)$/);
  await see(page, 'One closure has no place');
  await see(page, /(A night is|\d nights are) added\./);
  const { nights } = (await definition()).project.nights!;
  expect(nights.length).toBeGreaterThan(1);
  const day = 24 * 3_600_000;
  expect(Date.parse(nights[1]!.opens) - Date.parse(nights[0]!.opens)).toBe(day);
  await press(page, 'Undo');
  await see(page, /\d closures have no place/);
  await page.close();
}, 120_000);
