import { press, see } from './support/browser';
import { demoJourneys } from './support/journeys';

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
