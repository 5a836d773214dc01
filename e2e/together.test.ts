import type { Page } from 'puppeteer-core';
import { request } from '../server/test/process';
import { padKey, press, see, seeGone, type Size } from './support/browser';
import { demoJourneys } from './support/journeys';

/** The bench in the rhythm of the work: two people at one tray, sleeves in the heater, what comes next. */

const at = demoJourneys();

async function device(size: Size, person = ''): Promise<Page> {
  const page = await at.open({ size });
  await page.evaluateOnNewDocument((name) => {
    localStorage.setItem('cordel.preferences', JSON.stringify({ person: name }));
    // A clock that the journey can set forward, over a reload too.
    const real = Date.now.bind(Date);
    Date.now = () => real() + Number(localStorage.getItem('ahead') ?? 0);
  }, person);
  return page;
}

test('two people at one tray see each other’s splices appear and are warned before they take the same one', async () => {
  const ana = await device('phone', 'Ana');
  const bia = await device('wide', 'Bia');
  await ana.goto(at.demo.bench(3, 6));
  await see(ana, 'Tap what the machine reads.');
  await bia.goto(at.demo.bench(3, 6));
  await see(bia, 'Ana stands at this splice. Agree on who takes it.');
  await press(bia, 'The next free one');
  await see(bia, 'Tray 3 · slot 7');
  await see(bia, /Ana here/, 'ledger');
  await see(ana, /Bia here/);
  await press(ana, padKey(4));
  // Bia stands at 7: the bench goes past it.
  await see(ana, 'Tray 3 · slot 8');
  await see(bia, /54 · 6 WH 0\.04 est\. Holds/, 'ledger');
  await see(bia, /Ana here/, 'ledger');
  await press(bia, /\.03 dB$/);
  await see(bia, 'Tray 3 · slot 9');
  await see(ana, /57 · 9 YL Bia here/);
  await press(ana, padKey(1));
  await see(ana, 'Tray 3 · slot 10');
  // Who leaves the bench frees the splice.
  await press(bia, /^Up to/);
  await seeGone(ana, 'Bia here');
  await ana.close();
  await bia.close();
}, 120_000);

test('the sleeves go from the heater to the cooling tray by their clocks, also over a reload', async () => {
  const page = await device('phone');
  await page.goto(at.demo.bench(3, 6));
  const ahead = (seconds: number) =>
    page.evaluate((more) => localStorage.setItem('ahead', String(more)), seconds * 1000);
  await press(page, padKey(2));
  await see(page, /Slot 6 heater 0:3\d/);
  await press(page, padKey(2));
  // One heater: the second sleeve waits for the first.
  await see(page, /Slot 7 waits 0:3\d/);
  await ahead(40);
  await see(page, /Slot 6 cools 0:2\d/);
  await see(page, /Slot 7 heater 0:[23]\d/);
  await page.reload();
  await see(page, /Slot 6 cools 0:2\d/);
  await see(page, /Slot 7 heater 0:[23]\d/);
  await ahead(75);
  await see(page, 'Slot 6 ready');
  await see(page, /Slot 7 cools/);
  // It went in late: its clock begins again.
  await press(page, /^Slot 7 cools.*Into the heater now/);
  await see(page, /Slot 7 heater 0:3\d/);
  await page.reload();
  await see(page, /Slot 7 heater 0:3\d/);
  await page.close();
}, 120_000);

test('the order of work is chosen at the bench, kept, and decides what comes next', async () => {
  const page = await device('phone');
  await page.goto(at.demo.bench(3, 6));
  await press(page, 'Details');
  await press(page, 'Order of work');
  await press(page, 'Only what is to be redone', 'radio');
  await see(page, 'Next: tray 2, slot 19');
  await press(page, 'Go to tray 2, slot 19');
  await see(page, 'Redo. Try 2 of 3');
  await page.goto(at.demo.closure);
  await press(page, 'Splice tray 2, slot 19');
  await see(page, 'Redo. Try 2 of 3');
  await press(page, 'Details');
  await press(page, 'Order of work');
  await press(page, 'Tube after tube', 'radio');
  await see(page, 'Next: tray 3, slot 6');
  await press(page, 'Close');
  await press(page, 'Skip');
  await see(page, 'Tray 3 · slot 6');
  await page.close();
}, 120_000);

test('the pace is told against the end of the window', async () => {
  const { name, units, limits, version } = at.demo.definition.project;
  const from = (hours: number) => new Date(Date.now() + hours * 3600_000).toISOString();
  const window = { opens: from(-1), closes: from(2) };
  await request(`${at.server.url}/api/projects/${at.demo.projectId}/settings`, 'PUT', {
    name,
    units,
    limits,
    version,
    window,
  });
  const page = await device('phone');
  await page.goto(at.demo.bench(3, 6));
  // 47 splices at 15 an hour do not go into two hours.
  await see(
    page,
    /15 splices an hour · tray 1 h \d\d min · closure \d h \d\d min · 1 h \d\d min too long for the window/,
  );
  await page.goto(at.demo.bench(5, 9));
  await see(page, /usual pace · tray .* too long for the window/);
  await page.close();
}, 120_000);

test('who knows the steps is not asked for the sleeve, and sees no clocks', async () => {
  const page = await device('phone');
  await page.evaluateOnNewDocument(() =>
    localStorage.setItem('cordel.preferences', JSON.stringify({ sleeveReminder: false, heaterLane: false })),
  );
  await page.goto(at.demo.bench(3, 6));
  await press(page, padKey(2));
  await see(page, 'Slot 6 holds: 0.02 of 0.10 dB.');
  await see(page, 'Take back');
  await seeGone(page, /Sleeve on\?|heater/);
  await page.close();
}, 120_000);

test.each(['phone', 'wide'] as const)(
  'every target at the bench is at least 56 px: %s',
  async (size) => {
    const page = await device(size);
    const small = () =>
      page.evaluate(() =>
        [...document.querySelectorAll<HTMLElement>('[role=button], [role=link], [role=radio], input')]
          .filter((element) => element.getClientRects().length > 0)
          .map((element) => ({ element, box: element.getBoundingClientRect() }))
          .filter(({ box }) => Math.round(Math.min(box.width, box.height)) < 56)
          .map(
            ({ element, box }) => `${element.ariaLabel ?? element.innerText} ${box.width} × ${box.height}`,
          ),
      );
    for (const [tray, slot, shows] of [
      [3, 6, /Tray mean/],
      [2, 19, /Redo\. Try 2/],
      [2, 22, /Owner allows it/],
      [5, 9, /lie at the hinge/],
    ] as const) {
      await page.goto(at.demo.bench(tray, slot));
      await see(page, shows);
      expect(await small()).toEqual([]);
    }
    // The holder is looked at, and the ribbon's own panels come up.
    await press(page, 'BL BL: blue left, blue right');
    await see(page, 'Straight: 1 meets 1');
    expect(await small()).toEqual([]);
    await press(page, 'Before arc');
    await see(page, 'Axis offset');
    expect(await small()).toEqual([]);
    await press(page, 'Back to the pad');
    await press(page, 'Details');
    await see(page, 'Sleeve forgotten');
    expect(await small()).toEqual([]);
    for (const [sheet, has] of [
      ['Paste a column', 'Record them'],
      ['Order of work', 'Tube after tube'],
      ['Gear tonight', 'By hand'],
    ] as const) {
      await press(page, sheet);
      await see(page, has);
      expect(await small()).toEqual([]);
      await press(page, 'Close');
      await press(page, 'Details');
    }
    await page.close();
  },
  120_000,
);
