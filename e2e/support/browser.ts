import { launch, TimeoutError, type Browser, type ElementHandle, type Page } from 'puppeteer-core';

import browserArguments from './chromium.json';

/**
 * How long a journey looks for something before it fails: on a machine that does much else, what takes a moment takes
 * many.
 */
export const patience = 40_000;

const sizes = {
  phone: { width: 390, height: 844, isMobile: true, hasTouch: true },
  wide: { width: 1280, height: 800 },
} as const;
export type Size = keyof typeof sizes;
export type Light = 'day' | 'night';

/** @param profile the folder in which the browser keeps what a device keeps; else one for each page, and nothing after it */
export function openBrowser(profile?: string): Promise<Browser> {
  return launch({
    ...(profile ? { userDataDir: profile } : {}),
    executablePath: (profile ? process.env.CHROMIUM_WHOLE : process.env.CHROMIUM) ?? '/usr/bin/chromium',
    args: browserArguments,
  });
}

/**
 * A page with a storage of its own, as a device of its own. What goes wrong inside it lands in `troubles`. Unless `askForGear`, somebody said on
 * this device that no gear is on record tonight, so that the bench goes straight to the pad.
 */
export async function openPage(
  browser: Browser,
  how: Prepared = {},
): Promise<{ page: Page; troubles: string[] }> {
  const context = await browser.createBrowserContext();
  const page = await context.newPage();
  return { page, troubles: await preparePage(page, how) };
}

export interface Prepared {
  readonly size?: Size;
  readonly light?: Light;
  readonly askForGear?: boolean;
}

/** Makes a page one as `openPage` does, in a browser's own profile. Returns what will go wrong in it. */
export async function preparePage(page: Page, how: Prepared = {}): Promise<string[]> {
  const troubles = troublesOf(page);
  await setUp(page, how);
  return troubles;
}

/** What goes wrong in a page from now on. */
export function troublesOf(page: Page): string[] {
  const troubles: string[] = [];
  page.on('pageerror', (error) => troubles.push(String(error)));
  page.on('console', (message) => {
    // A server that is away is part of some journeys, and the browser notes each such request.
    if (
      message.type() === 'error' &&
      !/Failed to load resource|when fetching the script/.test(message.text())
    )
      troubles.push(message.text());
  });
  return troubles;
}

export async function setUp(
  page: Page,
  { size = 'phone', light = 'day', askForGear = false }: Prepared,
): Promise<void> {
  await page.setViewport(sizes[size]);
  await setLight(page, light);
  if (!askForGear)
    await page.evaluateOnNewDocument(() => {
      if (localStorage.getItem('askForGear') === null)
        localStorage.setItem('cordel.gear-tonight', JSON.stringify({ pickedAt: Date.now() }));
    });
}

/** What the device asks for: an open page of the app follows at once, without being loaded again. */
export async function setLight(page: Page, light: Light): Promise<void> {
  await page.emulateMediaFeatures([
    { name: 'prefers-color-scheme', value: light === 'day' ? 'light' : 'dark' },
  ]);
}

declare global {
  interface Window {
    /** Where a control stood one frame ago. */
    stoodAt?: WeakMap<Element, string>;
    /** What `press` taps just now. */
    aim?: { missed: boolean; end: () => void };
  }
}

/**
 * Waits for a control by its accessible name, and taps or clicks it as soon as a hand could: it stands still, and nothing (a dialog that
 * is still leaving, say) lies over it.
 */
export async function press(
  page: Page,
  name: string | RegExp,
  role?: 'button' | 'link' | 'radio' | 'checkbox',
): Promise<void> {
  const waited = page.waitForFunction(
    (pattern, exact, wanted) => {
      const matches = (text: string) => (exact ? text === pattern : new RegExp(pattern).test(text));
      const found = [...document.querySelectorAll<HTMLElement>('[role]')].find(
        (element) =>
          (wanted
            ? element.getAttribute('role') === wanted
            : /^(button|link|radio|checkbox)$/.test(element.getAttribute('role')!)) &&
          matches(element.getAttribute('aria-label') ?? element.innerText.replace(/\s+/g, ' ').trim()) &&
          element.getAttribute('aria-disabled') !== 'true' &&
          element.getClientRects().length > 0,
      );
      if (!found) return null;
      const stoodAt = (window.stoodAt ??= new WeakMap());
      found.scrollIntoView({ block: 'nearest', behavior: 'instant' });
      const { x, y, width, height } = found.getBoundingClientRect();
      const stands = [x, y, width, height].join();
      const still = stoodAt.get(found) === stands;
      stoodAt.set(found, stands);
      const top = document.elementFromPoint(x + width / 2, y + height / 2);
      if (!still || !top || !found.contains(top)) return null;
      // What comes in above a control moves it away between the look and the tap, where a hand would see it go. Until the tap is over whatever hits anything else is held back.
      window.aim?.end();
      const aim = { missed: false, end: () => undefined as void };
      const events = ['pointerdown', 'mousedown', 'pointerup', 'mouseup', 'click'] as const;
      const hold = (event: Event) => {
        // The application may click a link of its own, to save a file.
        if (!event.isTrusted || found.contains(event.target as Node)) return;
        event.stopImmediatePropagation();
        event.preventDefault();
        aim.missed = true;
      };
      events.forEach((event) => window.addEventListener(event, hold, true));
      aim.end = () => events.forEach((event) => window.removeEventListener(event, hold, true));
      window.aim = aim;
      return found;
    },
    { polling: 'raf', timeout: patience },
    typeof name === 'string' ? name : name.source,
    typeof name === 'string',
    role ?? null,
  );
  const handle = await waited.catch(async (error: unknown) => {
    if (!(error instanceof TimeoutError)) throw error;
    throw new Error(`Could not press ${String(name)}. ${await controls(page)} ${await shown(page)}`);
  });
  const found = handle.asElement() as ElementHandle<HTMLElement>;
  try {
    await found.click();
  } catch (error) {
    // It was drawn anew in this very moment, and nothing was tapped.
    if (!/detached/.test((error as Error).message)) throw error;
    return press(page, name, role);
  }
  // Where the tap led to another document, it was on it.
  if (await page.evaluate(missed).catch(() => false)) await press(page, name, role);
}

/** Whether the tap hit something else. */
function missed(): boolean {
  const { aim } = window;
  aim?.end();
  delete window.aim;
  return aim?.missed ?? false;
}

/**
 * Where a text is looked for: in what lies in front (an open sheet, else the page itself, without the cord and the ledger beside it), in one of
 * those two, in the page's head, or in a row, card or group by its role and name.
 */
type Place = 'front' | 'cord' | 'ledger' | 'head' | { readonly role: string; readonly name: string };

/** Waits until this text is shown there. A text that begins with a digit is a number from its first one: “1 of 12” is not in “11 of 12”. */
export async function see(page: Page, text: string | RegExp, place: Place = 'front'): Promise<void> {
  if (!(await waitForText(page, text, place, true)))
    throw new Error(`Did not see ${String(text)} in ${nameOf(place)}. ${await shown(page)}`);
}

/** Waits until this text is not shown there any more. */
export async function seeGone(page: Page, text: string | RegExp, place: Place = 'front'): Promise<void> {
  if (!(await waitForText(page, text, place, false)))
    throw new Error(`Still saw ${String(text)} in ${nameOf(place)}. ${await shown(page)}`);
}

const nameOf = (place: Place) => (typeof place === 'string' ? place : `${place.role} “${place.name}”`);

/** Controls as they stand, and what lies over the middle of each. */
async function controls(page: Page): Promise<string> {
  const there = await page.evaluate(() =>
    [...document.querySelectorAll<HTMLElement>('[role=button],[role=link],[role=radio],[role=checkbox]')].map(
      (element) => {
        const { x, y, width, height } = element.getBoundingClientRect();
        const top = document.elementFromPoint(x + width / 2, y + height / 2);
        const over = !top || element.contains(top) ? '' : ` under ${top.outerHTML.slice(0, 80)}`;
        const off = element.getAttribute('aria-disabled') === 'true' ? ' disabled' : '';
        const name = element.getAttribute('aria-label') ?? element.innerText.replace(/\s+/g, ' ');
        return `${name}${off} at ${[x, y, width, height].map(Math.round).join(',')}${top ? '' : ' out of sight'}${over}`;
      },
    ),
  );
  return `Controls:\n${there.join('\n')}\n`;
}

async function shown(page: Page): Promise<string> {
  return `The page shows:\n${await page.evaluate(() => document.body.innerText)}`;
}

async function waitForText(
  page: Page,
  text: string | RegExp,
  place: Place,
  there: boolean,
): Promise<boolean> {
  try {
    await page.waitForFunction(
      (pattern, exact, where, wanted) => {
        const visible = (selector: string) =>
          [...document.querySelectorAll<HTMLElement>(selector)].filter(
            (element) => element.getClientRects().length > 0,
          );
        const found = () => {
          switch (where) {
            case 'front':
              // A page without the app's frame is all there is.
              return (
                visible('[role="dialog"]').at(-1) ??
                visible('[role="main"]').at(-1)?.parentElement ??
                document.body
              );
            case 'cord':
              return visible('[role="navigation"][aria-label="Cord"]').at(-1);
            case 'ledger':
              return visible('[role="complementary"][aria-label="Ledger"]').at(-1);
            case 'head':
              return visible('[role="banner"]').at(-1);
            default:
              return visible(`[role="${where.role}"]`).find(
                (element) => element.getAttribute('aria-label') === where.name,
              );
          }
        };
        const words = found()?.innerText.replace(/\s+/g, ' ');
        if (words === undefined) return !wanted;
        const start = /^\d/.test(pattern) ? '(?<![\\d.,])' : '';
        const escaped = exact ? start + pattern.replace(/[.*+?^${}()|[\]\\]/g, '\\$&') : pattern;
        return new RegExp(escaped).test(words) === wanted;
      },
      { polling: 'raf', timeout: patience },
      typeof text === 'string' ? text : text.source,
      typeof text === 'string',
      place,
      there,
    );
    return true;
  } catch (error) {
    if (error instanceof TimeoutError) return false;
    throw error;
  }
}

/** Types into a labelled field, replacing what stands there. */
export async function fill(page: Page, label: string, text: string): Promise<void> {
  const field = await page.waitForSelector(`input[aria-label="${label}"], textarea[aria-label="${label}"]`, {
    timeout: 20_000,
  });
  // A sheet takes the focus a little after it is shown, in the frame after it became a dialog, and would take it away from the field.
  await page.waitForFunction(
    (element) => {
      const sheet = element!.closest<HTMLElement>('[aria-modal]');
      if (!sheet) return true;
      if (sheet.getAttribute('role') !== 'dialog') return false;
      const frames = Number(sheet.dataset.frames ?? 0) + 1;
      sheet.dataset.frames = String(frames);
      return frames > 2;
    },
    { polling: 'raf' },
    field,
  );
  await field!.focus();
  await field!.evaluate((element) => (element as HTMLInputElement).select());
  await page.keyboard.press('Backspace');
  await field!.type(text);
}

/** A reading as the pad's key says it. */
export const padKey = (hundredths: number) => `0.0${hundredths} dB`;
