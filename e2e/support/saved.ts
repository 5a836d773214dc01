import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';

/** What the browser saves when something is done: the name of the file, and what is in it. */
export async function savedBy(
  page: Page,
  act: () => Promise<unknown>,
): Promise<{ name: string; bytes: Buffer }> {
  const folder = mkdtempSync(join(tmpdir(), 'cordel-saved-'));
  const devtools = await page.createCDPSession();
  await devtools.send('Browser.setDownloadBehavior', {
    behavior: 'allow',
    downloadPath: folder,
    browserContextId: page.browserContext().id!,
    eventsEnabled: true,
  });
  const saved = new Promise<void>((done) =>
    devtools.on('Browser.downloadProgress', ({ state }) => state === 'completed' && done()),
  );
  await act();
  await saved;
  const [name] = readdirSync(folder);
  const bytes = readFileSync(join(folder, name!));
  rmSync(folder, { recursive: true });
  await devtools.detach();
  return { name: name!, bytes };
}
