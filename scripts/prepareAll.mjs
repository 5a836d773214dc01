/** Everything that a program of e2e/ needs: packages, browser, built server and app, prepared data. */
import { ensureInstalled } from './lib.mjs';

export async function prepareAll() {
  ensureInstalled();
  const { ensureChromium } = await import('./chromium.mjs');
  ensureChromium();
  const { default: prepareTests } = await import('./prepareTests.mjs');
  await prepareTests();
}
