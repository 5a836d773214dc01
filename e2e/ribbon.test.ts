import type { Page } from 'puppeteer-core';
import { fill, padKey, press, see, seeGone, type Size } from './support/browser';
import { demoJourneys } from './support/journeys';

/** Ribbons at the bench: how they lie, how they are read, and what a redo of one means. */

const at = demoJourneys();
const bothBlue = 'BL BL: blue left, blue right';

/** The first ribbon of U2 that is not spliced yet, at which nobody looked. */
async function atRibbon(size: Size): Promise<Page> {
  const page = await at.open({ size });
  await page.goto(at.demo.bench(5, 9));
  await see(page, 'Ribbon at slot 9: which colors lie at the hinge, left and right?');
  return page;
}

test('a ribbon is caught where it lies flipped, and with equal readings takes two taps', async () => {
  const page = await atRibbon('phone');
  await press(page, 'BL AQ: blue left, aqua right');
  await see(page, 'BL BL belong there: both sides begin with their first fiber.');
  await press(page, 'Answer again');
  await press(page, bothBlue);
  await press(page, padKey(2));
  await see(page, 'Fiber 1 of 12 reads 0.02.');
  await press(page, 'The other 11 read 0.02 too');
  await see(page, 'Slot 9 holds: 0.02 of 0.12 dB.');
  // The ribbon of the next holder may lie flipped too.
  await see(page, 'Tray 5 · slot 10');
  await see(page, 'Ribbon at slot 10: which colors lie at the hinge, left and right?');
  await press(page, bothBlue);
  await see(page, 'Straight: 1 meets 1, 12 meets 12');
  await seeGone(page, 'lie at the hinge');
  await page.close();
}, 60_000);

test('a ribbon is read from a pasted column; what is wrong with it is told at once and nothing is stored', async () => {
  const page = await atRibbon('wide');
  await press(page, bothBlue);
  await press(page, 'Details');
  await press(page, 'Paste a column');
  await fill(page, 'Losses', Array.from({ length: 13 }, () => '0,02').join('\n'));
  await see(page, '13 losses are pasted, and the splice has 12 fibers.');
  await fill(
    page,
    'Losses',
    ['0.02', '', 'x', '0.02 mm', ...Array.from({ length: 8 }, () => '0.01')].join('\n'),
  );
  await see(page, 'Row 2 is empty.');
  await see(page, 'Row 3, “x”, is not a loss.');
  await see(page, 'is in “mm”. Losses are in dB');
  await fill(page, 'Losses', ['0,02 dB', ...Array.from({ length: 10 }, () => '0,01'), '0,31'].join('\n'));
  await press(page, 'Record the 12 losses');
  await see(page, 'Slot 9, redo. Fiber 12: 0.31 dB is over 0.12 dB.');
  await see(page, 'The whole ribbon: new ends on both sides, and slack from all its fibers.');
  await see(page, /come out at 0\.12 or less; slack for 10\./);
  await page.close();
}, 60_000);

test('a ribbon is read fiber by fiber, a fiber is taken back, and it is judged when its last one is read', async () => {
  const page = await atRibbon('phone');
  await press(page, bothBlue);
  for (let fiber = 1; fiber < 12; fiber += 1) {
    await press(page, padKey(2));
    await see(page, `fiber ${fiber + 1} of 12 in the ribbon`);
  }
  await press(page, 'Take back');
  await see(page, 'fiber 11 of 12 in the ribbon');
  await press(page, padKey(3));
  await see(page, 'fiber 12 of 12 in the ribbon');
  await press(page, padKey(9));
  await see(page, 'Slot 9 holds: 0.09 of 0.12 dB.');
  await page.close();
}, 60_000);

test('before the arc the advice names the fiber by the project’s limit, and what was seen stands in the history', async () => {
  const page = await at.open();
  await page.goto(`${at.demo.line}/limits`);
  await fill(page, 'Axis offset before the arc, at most (μm)', 'wide');
  await press(page, 'Save and judge again');
  await see(page, 'Give a limit in μm, or leave it empty.');
  await fill(page, 'Axis offset before the arc, at most (μm)', '0,6');
  await press(page, 'Save and judge again');
  await page.waitForFunction(
    () => [...document.querySelectorAll('input')].some((input) => input.value === '0.6'),
    { polling: 'raf' },
  );

  await page.goto(at.demo.bench(5, 9));
  await press(page, bothBlue);
  await press(page, 'Before arc');
  await press(page, 'More, Cleave left');
  await press(page, 'Same for all');
  for (let fiber = 2; fiber <= 7; fiber += 1) {
    await press(page, 'The next fiber');
    await see(page, `Fiber ${fiber} of 12`);
  }
  for (let step = 0; step < 3; step += 1) await press(page, 'More, Axis offset');
  await see(page, 'Reseat fiber 7: offset 0.7 μm, over the project’s 0.6 μm.');
  await press(page, 'Less, Axis offset');
  await see(page, 'Fuse: what was looked at is within the limits.');
  await press(page, 'Back to the pad');
  await press(page, padKey(2));
  await press(page, 'The other 11 read 0.02 too');
  await see(page, 'Slot 9 holds: 0.02 of 0.12 dB.');
  // Where the next one is asked about, there is no room for the one before.
  await press(page, bothBlue);
  await press(page, /slot 9, /);
  await press(page, 'History, correct');
  await see(page, '0.02 dB, left 0.5°, offset 0.6 μm');
  await page.close();
}, 120_000);
