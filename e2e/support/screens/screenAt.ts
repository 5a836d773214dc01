import type { Page } from 'puppeteer-core';

/** One screen that is looked at, and how it is reached. */
export interface ScreenAt {
  readonly name: string;
  readonly path: () => string;
  /** What shows that the screen is there. */
  readonly shows: string | RegExp;
  /** That stands beside the page where there is room. */
  readonly aside?: boolean;
  readonly then?: (page: Page) => Promise<void>;
  /** What is done once more where the page becomes wide, or what shows that it need not be. */
  readonly onWide?: (page: Page) => Promise<void>;
}

/** Where what follows from the page stands: beside it on a wide screen, else below it or over it. */
export const asideOn = (page: Page) => (page.viewport()!.width >= 1000 ? 'ledger' : 'front');
