import type { Browser } from 'puppeteer-core';
import { connect } from 'puppeteer-core';
import { startServer, type ServerProcess } from '../../server/test/process';
import { openBrowser } from './browser';
import { Device } from './deviceOfJourneys';

/**
 * Devices for the journeys of all files that one worker of this run goes through: in a browser that prepareJourneys.mjs
 * began, at an address that each file's server takes over from the one before. So the application is on them, read and
 * compiled, which takes as long as several journeys.
 */

const worker = Number(process.env.JEST_WORKER_ID ?? 1);
/**
 * So many ports apart from those of other runs on this machine, most often; where one is taken any other does, and its
 * devices are new.
 */
const port = 20_000 + (process.ppid % 1500) * 8 + (worker % 8);

let browser: Browser | null = null;
let free: Device[] = [];

/** A server at this worker's address, or at another one where that is taken. */
export const startServerOfWorker = (
  folder: string,
  environment: Record<string, string> = {},
): Promise<ServerProcess> =>
  startServer(folder, { ...environment, PORT: String(port) }).catch((error: Error) => {
    if (!/is in use/.test(error.message)) throw error;
    return startServer(folder, environment);
  });

/**
 * @param unused on which Cordel never was; else it may be one that others used, with nothing left of what they entered
 */
export async function takeDevice(unused: boolean): Promise<Device> {
  browser ??= await browserOfWorker();
  return (unused ? undefined : free.pop()) ?? Device.made(browser);
}

/** For whoever needs one next at this server. */
export async function giveBack(device: Device, server: string): Promise<void> {
  if (await device.clear(server)) free.push(device);
}

/** At the end of a file: its devices stay for the next one. */
export async function leaveBrowser(): Promise<void> {
  free = [];
  await browser?.disconnect();
  browser = null;
}

async function browserOfWorker(): Promise<Browser> {
  const addresses = JSON.parse(process.env.CORDEL_TEST_BROWSERS!) as string[];
  const found = await connect({
    browserWSEndpoint: addresses[(worker - 1) % addresses.length]!,
    defaultViewport: null,
  }).catch(() => openBrowser());
  for (const context of found.browserContexts().slice(1)) {
    const [page, ...others] = await context.pages();
    if (page && others.length === 0 && page.url().startsWith(`http://127.0.0.1:${port}/`))
      free.push(new Device(page));
    else await context.close();
  }
  return found;
}
