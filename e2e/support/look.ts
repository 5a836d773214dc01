import axe from 'axe-core';
import type { Page } from 'puppeteer-core';
import { see, setLight } from './browser';
import { demoOfScreens, shown } from './demoOfScreens';
import type { Device } from './deviceOfJourneys';
import { giveBack, leaveBrowser, takeDevice } from './devices';
import { asideOn, type ScreenAt } from './screens/screenAt';

/**
 * Looks at every screen on a phone and on a laptop: axe by day, its colors by night, and whether text at 200 % loses
 * anything to the side.
 */

/** As openPage has it, and as wide as a laptop; still a touch screen, since a page that becomes none is loaded anew. */
const phone = { width: 390, height: 844, isMobile: true, hasTouch: true };
const wide = { ...phone, width: 1280, height: 800 };

/**
 * Rules of axe whose problems are never serious; and one about “!important” in a style of an element, which React
 * Native for Web cannot write.
 */
const leftOut = [
  'avoid-inline-spacing',
  'aria-allowed-role',
  'aria-deprecated-role',
  'empty-heading',
  'empty-table-header',
  'form-field-multiple-labels',
  'heading-order',
  'html-xml-lang-mismatch',
  'image-redundant-alt',
  'landmark-banner-is-top-level',
  'landmark-contentinfo-is-top-level',
  'landmark-main-is-top-level',
  'landmark-no-duplicate-banner',
  'landmark-no-duplicate-contentinfo',
  'landmark-no-duplicate-main',
  'landmark-one-main',
  'landmark-unique',
  'meta-viewport',
  'meta-viewport-large',
  'no-autoplay-audio',
  'page-has-heading-one',
  'presentation-role-conflict',
  'region',
  'scope-attr-valid',
  'server-side-image-map',
  'skip-link',
  'table-duplicate-name',
];
const everythingSerious: axe.RunOptions = {
  rules: Object.fromEntries(leftOut.map((rule) => [rule, { enabled: false }])),
};
const colors: axe.RunOptions = { runOnly: { type: 'rule', values: ['color-contrast'] } };

export function lookAt(screens: readonly ScreenAt[]): void {
  let device: Device;
  let page: Page;
  beforeAll(async () => {
    device = await takeDevice(false);
    page = await device.take({});
    await page.evaluateOnNewDocument(axe.source);
  }, 60_000);
  afterAll(async () => {
    await giveBack(device, shown.server.url);
    await leaveBrowser();
  });
  // After what stands above, which needs its server until the end.
  demoOfScreens();

  test.each(screens)(
    '$name has no serious problem, on phone and laptop, by day and by night, and loses nothing to the side at 200 %',
    async (screen) => {
      await page.setViewport(phone);
      await setLight(page, 'day');
      await goTo(page, screen);
      await expectNone('phone by day', serious(page, everythingSerious));
      await turn(page, 'night');
      await expectNone('phone by night', serious(page, colors));
      await setTextSize(page, 2);
      await expectNone('phone at 200 %', cutOff(page));
      await setTextSize(page, 1);

      await page.setViewport(wide);
      await drawn(page);
      await screen.onWide?.(page);
      await expectNone('laptop by night', serious(page, colors));
      await turn(page, 'day');
      await expectNone('laptop by day', serious(page, everythingSerious));
    },
    60_000,
  );
}

async function goTo(page: Page, { path, shows, aside = false, then }: ScreenAt): Promise<void> {
  await page.goto(path());
  await see(page, shows, aside ? asideOn(page) : 'front');
  await then?.(page);
}

/** Names where a problem is, beside what it is. */
async function expectNone(where: string, looked: Promise<readonly string[]>): Promise<void> {
  expect({ where, problems: await looked }).toEqual({ where, problems: [] });
}

async function turn(page: Page, light: 'day' | 'night'): Promise<void> {
  await setLight(page, light);
  const scheme = light === 'day' ? 'light' : 'dark';
  await page.waitForFunction((wanted) => document.documentElement.style.colorScheme === wanted, {}, scheme);
}

/** As somebody sets it in another tab. */
async function setTextSize(page: Page, textSize: number): Promise<void> {
  await page.evaluate((size) => {
    const key = 'cordel.preferences';
    const kept = JSON.parse(localStorage.getItem(key) ?? '{}') as object;
    localStorage.setItem(key, JSON.stringify({ ...kept, textSize: size }));
    window.dispatchEvent(new StorageEvent('storage', { key }));
  }, textSize);
  await drawn(page);
}

/** Until what follows from a change of the page stands. */
const drawn = (page: Page) =>
  page.evaluate(async () => {
    for (let frame = 0; frame < 3; frame += 1) await new Promise((go) => requestAnimationFrame(go));
  });

async function serious(page: Page, options: axe.RunOptions): Promise<string[]> {
  const { violations } = await page.evaluate(
    (given) =>
      (window as unknown as { axe: typeof axe }).axe.run(document, {
        ...given,
        // What passes is not asked for one by one; where a problem is says its own text; nothing of a page is in files
        // that axe would read first.
        resultTypes: ['violations'],
        selectors: false,
        preload: false,
      }),
    options,
  );
  return violations
    .filter((violation) => violation.impact === 'serious' || violation.impact === 'critical')
    .map(
      (violation) => `${violation.id}: ${violation.nodes.map((node) => node.html.slice(0, 160)).join('\n')}`,
    );
}

/** Texts that are cut off, or that reach over the side. */
const cutOff = (page: Page) =>
  page.evaluate(() =>
    [...document.querySelectorAll<HTMLElement>('[dir="auto"]')]
      .filter((element) => element.innerText.trim() !== '' && element.getClientRects().length > 0)
      // A pixel wide are the words that only a screen reader says.
      .filter((element) => element.offsetWidth > 1)
      .filter((element) => {
        const box = element.getBoundingClientRect();
        return (
          box.right > window.innerWidth + 1 || box.left < -1 || element.scrollWidth > element.clientWidth + 1
        );
      })
      .map((element) => element.innerText),
  );
