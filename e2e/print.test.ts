import type { Page } from 'puppeteer-core';
import { press, see } from './support/browser';
import { demoJourneys } from './support/journeys';

/** What comes out on paper: all of the page, without the ways to other pages, and what a tap shows on the screen written out. */

const at = demoJourneys({ site: 'U3', each: false });

declare global {
  interface Window {
    /** How often the page asked the browser to print. */
    printed?: number;
  }
}

/** Taps Print, and shows the page as it goes to paper. */
async function print(page: Page): Promise<void> {
  await page.evaluate(() => (window.print = () => (window.printed = (window.printed ?? 0) + 1)));
  await press(page, 'Print');
  await page.waitForFunction(() => window.printed === 1, { polling: 'raf' });
  await page.emulateMediaType('print');
}

/** What would be missing on paper: parts that are longer than what is seen of them. */
const cutOff = (page: Page) =>
  page.evaluate(() =>
    [...document.querySelectorAll<HTMLElement>('#root *:not(#as-drawn *)')]
      .filter((element) => element.getClientRects().length > 0)
      .filter((element) => getComputedStyle(element).overflowY !== 'visible')
      .filter((element) => element.scrollHeight > element.clientHeight + 1)
      .map((element) => element.innerText.slice(0, 40)),
  );
const onPaper = (page: Page) => page.evaluate(() => document.body.innerText.replace(/\s+/g, ' '));
const pages = async (page: Page) =>
  Buffer.from(await page.pdf({ format: 'A4' }))
    .toString('latin1')
    .match(/\/Type\s*\/Page\b/g)!.length;

test.each(['phone', 'wide'] as const)(
  'the cut sheet goes to paper with every mark, its place, tool and reason (%s)',
  async (size) => {
    const page = await at.open({ size });
    await page.goto(`${at.demo.closure}/prepare/${at.demo.cable('96 Mirante')}`);
    await see(page, '9 of 17 made');
    const marks = await page.$eval('[aria-label="Marks along the tape"]', (list) =>
      [...(list as HTMLElement).innerText.matchAll(/^\d+ · .+$/gm)].map(([mark]) => mark),
    );
    expect(marks).toHaveLength(17);
    // With its place behind it a mark stands on paper only.
    expect(await onPaper(page)).not.toContain(`${marks[0]}, `);
    await print(page);
    const paper = await onPaper(page);
    for (const mark of marks) expect(paper).toContain(`${mark}, `);
    // What a tap shows on the screen: why, and the caution.
    expect(paper).toContain('both stubs are alike');
    expect(paper).not.toContain('Take back');
    expect(paper).not.toContain('Follow');
    expect(await cutOff(page)).toEqual([]);
    expect(await pages(page)).toBeGreaterThanOrEqual(2);
    await page.close();
  },
  60_000,
);

test('the kit goes to paper whole, ticked as it is', async () => {
  const page = await at.open();
  await page.goto(`${at.demo.line}/kit`);
  await see(page, /\d+ of \d+ packed/, 'head');
  await print(page);
  const paper = await onPaper(page);
  expect(paper).toContain('Kit for the night');
  expect(paper).toContain('Single sleeve, 60 mm');
  expect(paper).toContain('Soap solution, bottle');
  // On the screen a line ends before it, until it is tapped.
  expect(paper).toMatch(/U4 Mirante: 48 single splices, one sleeve each; \d+ spare/);
  expect(paper).not.toContain('Untick all');
  expect(await cutOff(page)).toEqual([]);
  await page.close();
}, 60_000);

test.each(['phone', 'wide'] as const)(
  'the losses go to paper with every chart and the list for tomorrow (%s)',
  async (size) => {
    const page = await at.open({ size });
    await page.goto(`${at.demo.line}/losses/look`);
    await see(page, 'The list for tomorrow');
    await see(page, 'What deserves a measurement');
    await print(page);
    const paper = await onPaper(page);
    for (const part of [
      'Every fiber in its place',
      'In the order of time',
      'Ribbons by positions',
      'The worst',
      '□ U2 Curva do Rio, tray 2, slot 19',
    ])
      expect(paper).toContain(part);
    expect(paper).not.toContain('Choose what is looked at');
    // What is chosen is said, the choices themselves are not printed.
    expect(paper).toContain('Estimated losses · All that was spliced');
    expect(await cutOff(page)).toEqual([]);
    expect(await pages(page)).toBeGreaterThanOrEqual(2);
    await page.close();
  },
);
