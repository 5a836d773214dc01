import { launch, type Browser, type ElementHandle, type Page } from 'puppeteer-core';

const sizes = {
  phone: { width: 390, height: 844, isMobile: true, hasTouch: true },
  wide: { width: 1280, height: 800 },
} as const;
export type Size = keyof typeof sizes;
export type Light = 'day' | 'night';

export function openBrowser(): Promise<Browser> {
  return launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
    ],
  });
}

/**
 * A page with a storage of its own, as a device of its own. What goes wrong inside it lands in `troubles`. Unless `askForGear`, somebody said on
 * this device that no gear is on record tonight, so that the bench goes straight to the pad.
 */
export async function openPage(
  browser: Browser,
  {
    size = 'phone',
    light = 'day',
    askForGear = false,
  }: { size?: Size; light?: Light; askForGear?: boolean } = {},
): Promise<{ page: Page; troubles: string[] }> {
  const context = await browser.createBrowserContext();
  const page = await context.newPage();
  const troubles: string[] = [];
  page.on('pageerror', (error) => troubles.push(String(error)));
  page.on('console', (message) => {
    // A server that is away is part of some journeys, and the browser notes each such request.
    if (message.type() === 'error' && !/Failed to load resource/.test(message.text()))
      troubles.push(message.text());
  });
  await page.setViewport(sizes[size]);
  await setLight(page, light);
  if (!askForGear)
    await page.evaluateOnNewDocument(() => {
      if (localStorage.getItem('askForGear') === null)
        localStorage.setItem('cordel.gear-tonight', JSON.stringify({ pickedAt: Date.now() }));
    });
  return { page, troubles };
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
  const handle = await page.waitForFunction(
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
      return still && top && found.contains(top) ? found : null;
    },
    { polling: 'raf', timeout: 20_000 },
    typeof name === 'string' ? name : name.source,
    typeof name === 'string',
    role ?? null,
  );
  await (handle.asElement() as ElementHandle<HTMLElement>).click();
}

/** Waits until the page shows this text. */
export async function see(page: Page, text: string | RegExp): Promise<void> {
  try {
    await page.waitForFunction(
      (pattern, exact) => {
        const shown = document.body.innerText.replace(/\s+/g, ' ');
        return exact ? shown.includes(pattern) : new RegExp(pattern).test(shown);
      },
      { polling: 'raf', timeout: 20_000 },
      typeof text === 'string' ? text : text.source,
      typeof text === 'string',
    );
  } catch (error) {
    const shown = await page.evaluate(() => document.body.innerText);
    throw new Error(`Did not see ${String(text)}. The page shows:\n${shown}`, { cause: error });
  }
}

/** Types into a labelled field, replacing what stands there. */
export async function fill(page: Page, label: string, text: string): Promise<void> {
  const field = await page.waitForSelector(`input[aria-label="${label}"], textarea[aria-label="${label}"]`, {
    timeout: 20_000,
  });
  await field!.focus();
  await field!.evaluate((element) => (element as HTMLInputElement).select());
  await page.keyboard.press('Backspace');
  await field!.type(text);
}

/** A reading as the pad's key says it. */
export const padKey = (hundredths: number) => `0.0${hundredths} dB`;
