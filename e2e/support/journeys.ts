import type { Browser, Page } from 'puppeteer-core';
import {
  bareFolder,
  dataFolder,
  removeFolders,
  startServer,
  type ServerProcess,
} from '../../server/test/process';
import { openBrowser, openPage, type Light, type Size } from './browser';
import { firstProject } from './shelf';

/**
 * What journeys through the demo stand on: a browser for the file, a server with fresh data for each journey (or, with `each` false, for the file), and
 * pages whose troubles fail the journey.
 * @param site the closure at the site whose name starts so
 */
/** @param tonight the demo happens in the night of the test, made anew; else in its own, the same every day */
export function demoJourneys({
  site,
  each = true,
  tonight = false,
}: { site?: string; each?: boolean; tonight?: boolean } = {}) {
  let browser: Browser;
  let server: ServerProcess;
  let demo: Awaited<ReturnType<typeof firstProject>>;
  const troubles: string[] = [];

  const begin = async () => {
    server = tonight
      ? await startServer(bareFolder(), {}, undefined, ['--demo'])
      : await startServer(dataFolder('demo'));
    demo = await firstProject(server, site);
  };
  beforeAll(async () => {
    browser = await openBrowser();
    if (!each) await begin();
  }, 120_000);
  afterAll(async () => {
    await browser.close();
    if (!each) await server.stop();
    removeFolders();
  });
  if (each) beforeEach(begin, 60_000);
  afterEach(async () => {
    if (each) await server.stop();
    expect(troubles.splice(0)).toEqual([]);
  });

  return {
    get server() {
      return server;
    },
    get demo() {
      return demo;
    },
    /** A device of its own. */
    async open(options: { size?: Size; light?: Light; askForGear?: boolean } = {}): Promise<Page> {
      const opened = await openPage(browser, options);
      opened.page.on('close', () => troubles.push(...opened.troubles));
      return opened.page;
    },
  };
}
