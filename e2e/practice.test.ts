import type { Page } from 'puppeteer-core';
import { press, see } from './support/browser';
import { demoJourneys } from './support/journeys';
import { setOffline } from './support/network';

/** Practice that needs neither glass nor a network. */

const at = demoJourneys({ each: false });

test.each(['phone', 'wide'] as const)(
  'a round of the drill is played through, timed, explained and remembered: %s',
  async (size) => {
    const page = await at.open({ size });
    await page.goto(at.server.url);
    await press(page, 'Practice');
    await press(page, 'Tubes of 24 in groups', 'radio');
    await press(page, 'Begin, 20 questions');
    for (let question = 1; question <= 20; question += 1) {
      await see(page, `${question} of 20 · a cable of`);
      const given = await page.evaluate(
        () => document.querySelector('[role=group][aria-label="The question"]')!.textContent!,
      );
      expect(given).toMatch(/^Where is fiber \d+\?|^Which number has this fiber\?/);
      // The third answer, whatever it is.
      await page.waitForFunction(
        () => {
          const keys = [
            ...document.querySelectorAll<HTMLElement>('main [role=button], [role=button]'),
          ].filter((key) => key.getAttribute('aria-disabled') !== 'true' && key.getClientRects().length > 0);
          const end = keys.findIndex((key) => key.innerText.includes('End this round'));
          const third = keys[end - 2];
          if (!third) return false;
          third.click();
          return true;
        },
        { polling: 'raf' },
      );
      await see(
        page,
        /(Right\.|Not this one\.) Tube \d+ is [a-z ]+ and holds \d+ to \d+\. \d+ is number \d+ in it, in group [12]/,
      );
      await press(page, question === 20 ? 'See the result' : 'Next');
    }
    await see(page, /\d+ of 20 right/);
    await see(page, /\d+\.\d s each/);
    // It is there again after a reload.
    await page.reload();
    await see(page, /\d+ of 20 right/);
    await page.close();
  },
  120_000,
);

/** Fuses what lies in the machine and leaves it, or does it again where it broke; true when it was over its limit. */
async function spliceOne(page: Page): Promise<boolean> {
  for (;;) {
    await press(page, 'Fuse');
    await page.waitForFunction(() => /Leave it, next/.test(document.body.innerText), { polling: 'raf' });
    const [broke, over] = await page.evaluate(() => {
      const card = document.querySelector<HTMLElement>('[role=group][aria-label*="in the machine"]')!;
      const losses = card.querySelector('[role=table][aria-label^="Losses"]');
      const values = [...(losses?.querySelectorAll<HTMLElement>('[role=cell]') ?? [])].map((cell) =>
        Number(cell.innerText),
      );
      return [/It broke/.test(card.innerText), values.some((value) => value > 12)];
    });
    await press(page, broke ? 'Do it again' : 'Leave it, next');
    if (!broke) return over!;
  }
}

test.each(['phone', 'wide'] as const)(
  'practice night one is played through with no network: found, put right, named, scored, explained: %s',
  async (size) => {
    const page = await at.open({ size });
    await page.goto(`${at.server.url}/practice`);
    await press(page, /^Night 1/);
    await see(page, 'Ribbon 1 of 12');
    await setOffline(page, true);
    // The first three are well. From the fourth on position 4 reads high, and the crew sees it in the column.
    for (let ribbon = 1; ribbon <= 5; ribbon += 1) {
      await see(page, `Ribbon ${ribbon} of 12`);
      expect(await spliceOne(page)).toBe(ribbon === 5);
    }
    await press(page, 'Put right');
    await press(page, /^Brush the grooves/);
    await see(page, 'Done: brush the grooves.');
    await press(page, 'Name the fault');
    await press(page, 'Dirt in one groove');
    await see(page, 'You say: dirt in one groove.');
    // Left and come back to: it goes on where it was.
    await press(page, 'Up to practice');
    await press(page, /^Night 1.*begun/);
    await see(page, 'Ribbon 6 of 12');
    for (let ribbon = 6; ribbon <= 12; ribbon += 1) {
      await see(page, `Ribbon ${ribbon} of 12`);
      await spliceOne(page);
    }
    await see(page, 'What was wrong?');
    await press(page, 'See how it went');
    await see(page, 'It was: dirt in one groove');
    await see(page, 'It began at ribbon 4. You named it.');
    await see(page, 'Brush the grooves: you did at ribbon 6, the judge would have at ribbon 10.');
    await see(page, 'The fault named: 30 of 30');
    await see(page, /Position 4 reads 0\.\d+ dB|read over their limit/);
    const points = await page.evaluate(() => Number(/(\d+) of 100/.exec(document.body.innerText)![1]));
    expect(points).toBeGreaterThan(80);
    // It is remembered on the device.
    await press(page, 'Up to practice');
    await see(page, `Night 1: ${points} of 100`);
    await setOffline(page, false);
    await page.close();
  },
  120_000,
);
