import type { Page } from 'puppeteer-core';
import { press, see } from '../browser';
import { refuseRecords } from '../network';
import { shown } from '../demoOfScreens';
import type { ScreenAt } from './screenAt';

const openFullPad = (page: Page) => press(page, '0.10 dB or more');

const openDetails = (page: Page) => press(page, 'Details');

const lookBeforeTheArc = async (page: Page) => {
  await press(page, 'Before arc');
  await see(page, 'Fiber 1 of 12');
  await press(page, 'More, Gap');
};

const correct = async (page: Page) => {
  await press(page, 'Correct this reading');
  await see(page, 'Why it is corrected');
};

/** The bench, alone and with gear, and what waits on the device. */
export const benchScreens: ScreenAt[] = [
  { name: 'tray', path: () => `${shown.demo.closure}/t/2`, shows: 'Redo slot 19' },
  { name: 'bench', path: () => shown.demo.bench(3, 6), shows: 'Tray mean' },
  { name: 'bench, redo', path: () => shown.demo.bench(2, 19), shows: 'Redo. Try 2 of 3' },
  { name: 'bench, owner’s call', path: () => shown.demo.bench(2, 22), shows: 'Owner allows it' },
  {
    name: 'bench, full pad',
    path: () => shown.demo.bench(3, 6),
    shows: 'Tray mean',
    then: openFullPad,
    onWide: openFullPad,
  },
  {
    name: 'bench, details',
    path: () => shown.demo.bench(3, 6),
    shows: 'Tray mean',
    then: openDetails,
    onWide: openDetails,
  },
  {
    name: 'bench, before the arc',
    path: () => shown.demo.bench(5, 10),
    shows: 'Straight: 1 meets 1, 12 meets 12',
    then: lookBeforeTheArc,
    onWide: lookBeforeTheArc,
  },
  {
    name: 'bench, asked how a ribbon lies',
    path: () => shown.demo.bench(5, 9),
    shows: 'which colors lie at the hinge, left and right?',
  },
  {
    name: 'bench, ribbon half read',
    path: () => shown.demo.bench(5, 10),
    shows: 'Straight: 1 meets 1, 12 meets 12',
    then: async (page) => {
      await press(page, /0\.02 dB$|^2 \.02 dB/);
      await see(page, 'The other 11 read 0.02 too');
    },
    onWide: (page) => see(page, 'The other 11 read 0.02 too'),
  },
  {
    name: 'history',
    path: () => shown.demo.bench(1, 15),
    shows: 'The owner allowed it.',
    then: async (page) => {
      await press(page, 'History, correct');
      await correct(page);
    },
    onWide: correct,
  },
  {
    name: 'bench, order of work',
    path: () => shown.demo.bench(3, 6),
    shows: 'Tray mean',
    then: async (page) => {
      await press(page, 'Details');
      await press(page, 'Order of work');
      await see(page, 'Tube after tube');
    },
  },
  // From here on the page asks for gear.
  {
    name: 'bench, gear asked for',
    path: () => shown.demo.bench(3, 6),
    shows: 'Tray mean',
    then: async (page) => {
      await page.evaluate(() => localStorage.setItem('askForGear', 'yes'));
      await page.evaluate(() => localStorage.removeItem('cordel.gear-tonight'));
      await page.reload();
      await see(page, 'Which gear tonight?');
    },
  },
  {
    name: 'bench, calibration due',
    path: () => shown.demo.bench(3, 6),
    shows: 'Which gear tonight?',
    then: async (page) => {
      await press(page, 'Single 1', 'radio');
      await press(page, 'These tonight');
      await see(page, 'Arc calibration is due');
    },
    onWide: (page) => see(page, 'Arc calibration is due'),
  },
  {
    name: 'gear tonight',
    path: () => shown.demo.bench(2, 22),
    shows: 'Owner allows it',
    then: async (page) => {
      await press(page, 'Gear tonight');
      await see(page, 'Note the weather as it is now');
    },
  },
  // From here on the server takes no more records.
  {
    name: 'waiting, one refused',
    path: () => shown.demo.bench(3, 10),
    shows: 'Tray mean',
    then: async (page) => {
      // Without the gear that a screen before it picked: that may be due, and ask.
      await page.evaluate(() =>
        ['askForGear', 'cordel.gear-tonight'].forEach((key) => localStorage.removeItem(key)),
      );
      await page.reload();
      await see(page, 'Tray mean');
      await refuseFirst(page);
      await press(page, /0\.02 dB$|^2 \.02 dB/);
      await see(page, 'Slot 10 holds');
      await page.goto(`${shown.server.url}/waiting`);
      await see(page, 'What the server will not take counts in no sum');
      // It comes with the project, and moves the keys beside it.
      await see(page, 'Go there');
      await press(page, 'Drop: Reading 0.02 dB');
      await see(page, 'Dropped, it is gone for good.');
    },
  },
];

/** The server refuses the first record of this page, and then does not answer any. */
async function refuseFirst(page: Page): Promise<void> {
  const message = 'This project has no such closure on the server. It may have been deleted there.';
  await refuseRecords(page, (before) => (before === 0 ? message : null));
}
