import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import sharp from 'sharp';

/** A made-up photo of so many pixels, with grain and with the position where it was taken, each one another. */
export function makePhoto(width: number, height: number, n = 0): Promise<Buffer> {
  const grain = { type: 'gaussian' as const, mean: 100 + 10 * (n % 10), sigma: 12 };
  return sharp({ create: { width, height, channels: 3, background: '#806040', noise: grain } })
    .jpeg({ quality: 85 })
    .withExif({ IFD3: { GPSLatitudeRef: 'S', GPSLatitude: `${20 + n}/1 30/1 0/1` } })
    .toBuffer();
}

/** Gives files to the field of this name, as the camera or the gallery does. */
export async function attach(
  page: Page,
  field: string,
  files: readonly (Buffer | string)[],
  name?: string,
): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'cordel-photos-'));
  const paths = files.map((_, index) => join(folder, name ?? `IMG_${index}.jpg`));
  files.forEach((bytes, index) => writeFileSync(paths[index]!, bytes));
  const input = await page.waitForSelector(`input[type=file][aria-label="${field}"]`);
  await (input as unknown as { uploadFile: (...of: string[]) => Promise<void> }).uploadFile(...paths);
  // The page reads them a moment later.
  page.once('close', () => rmSync(folder, { recursive: true, force: true }));
}
