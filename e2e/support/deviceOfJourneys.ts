import type { Browser, HTTPRequest, Page } from 'puppeteer-core';
import { setUp, troublesOf, type Prepared } from './browser';
import { leaveNetworkAlone } from './network';

/** Where Cordel is not, in the browser's process for this server. */
const atRest = '/api/health';
const soon = { timeout: 10_000 };

/**
 * A device that one journey after the other uses, in the same page: a new one has to read and compile the application
 * first, which takes longer than many a journey. Between them everything that was entered or set on it is removed; the
 * application stays.
 */
export class Device {
  /** Under which identifiers it told the server at which splice it stands. */
  readonly stood = new Set<string>();
  /** What went wrong in it, from when it was taken until it was left. */
  get troubles(): readonly string[] {
    return this.troublesUntilLeft ?? this.heard;
  }
  private readonly heard: string[];
  private troublesUntilLeft: readonly string[] | null = null;
  /** What it asked the server to store, and is not answered. */
  private readonly underWay = new Set<HTTPRequest>();
  /** Identifiers of what runs in each document of the journey. */
  private scripts: string[] = [];

  constructor(private readonly page: Page) {
    this.heard = troublesOf(page);
    page.on('request', (request) => {
      if (request.method() === 'GET') return;
      this.underWay.add(request);
      if (request.url().endsWith('/here'))
        this.stood.add((JSON.parse(request.postData() ?? '{}') as { device: string }).device);
    });
    page.on('requestfinished', (request) => void this.underWay.delete(request));
    page.on('requestfailed', (request) => void this.underWay.delete(request));
    const evaluate = page.evaluateOnNewDocument.bind(page);
    page.evaluateOnNewDocument = async (...given) => {
      const script = await evaluate(...given);
      this.scripts.push(script.identifier);
      return script;
    };
    page.close = () => this.leave();
  }

  static async made(browser: Browser): Promise<Device> {
    const context = await browser.createBrowserContext();
    return new Device(await context.newPage());
  }

  async take(how: Prepared): Promise<Page> {
    this.stood.clear();
    this.heard.length = 0;
    this.troublesUntilLeft = null;
    await setUp(this.page, how);
    return this.page;
  }

  /**
   * Removes what the journey left.
   * @param server its address
   * @returns whether it can be used again
   */
  async clear(server: string): Promise<boolean> {
    const context = this.page.browserContext();
    try {
      await leaveNetworkAlone(this.page);
      await this.leave();
      if (!this.page.url().startsWith(server)) await this.page.goto(server + atRest, soon);
      for (const page of await context.pages()) if (page !== this.page) await page.close();
      for (const script of this.scripts.splice(0))
        await this.page.removeScriptToEvaluateOnNewDocument(script);
      await this.page.emulateMediaType();
      if (!(await this.page.evaluate(removeEntered))) throw new Error('What was kept is shut.');
      const devtools = await this.page.createCDPSession();
      await devtools.send('Page.resetNavigationHistory');
      await devtools.detach();
      return true;
    } catch {
      await this.discard();
      return false;
    }
  }

  /** Where its server or its page is gone. */
  async discard(): Promise<void> {
    this.troublesUntilLeft ??= [...this.heard];
    await this.page
      .browserContext()
      .close()
      .catch(() => undefined);
  }

  /** Goes away from Cordel, when nothing is on its way to the server any more. */
  private async leave(): Promise<void> {
    const until = Date.now() + 5000;
    while (this.underWay.size > 0 && Date.now() < until) await new Promise((go) => setTimeout(go, 5));
    this.troublesUntilLeft ??= [...this.heard];
    const { origin } = new URL(this.page.url());
    // Where no server is, or the page was on its way to another address itself.
    await this.page.goto(origin + atRest, soon).catch(() => this.page.goto('about:blank', soon));
  }
}

/**
 * What the page's document runs. The databases themselves stay: one that is being made when its page goes away may be
 * shut to the next page for long; then it gives up, and false.
 */
async function removeEntered(): Promise<boolean> {
  sessionStorage.clear();
  localStorage.clear();
  // A file that another application handed over.
  await caches.delete('cordel-shared');
  const done = (request: IDBRequest | IDBTransaction, event: 'success' | 'complete') =>
    new Promise((go, fail) => {
      request.addEventListener(event, go);
      request.addEventListener('error', () => fail(request.error));
    });
  const removed = async () => {
    for (const { name } of await indexedDB.databases()) {
      const opened = indexedDB.open(name!);
      await done(opened, 'success');
      const database = opened.result;
      const work = database.transaction([...database.objectStoreNames], 'readwrite');
      for (const store of database.objectStoreNames) work.objectStore(store).clear();
      await done(work, 'complete');
      database.close();
    }
    return true;
  };
  const late = new Promise<boolean>((go) => setTimeout(() => go(false), 10_000));
  return Promise.race([removed(), late]);
}
